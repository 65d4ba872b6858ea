import type { PlanView } from '@salt-circle/contracts';
import { Select, TextField } from '../../kit/index.js';
import { gradeWords } from '@salt-circle/core';
import { useExchange } from '../../app/useExchange.js';
import { AttachmentsField } from './AttachmentsField.js';
import { Deliverables } from './Deliverables.js';
import { ChangingGrade } from './ChangingGrade.js';
import { GradeParts } from '../../app/GradeParts.js';
import { Names } from './Names.js';
import { Practice } from './Practice.js';
import { Rich } from './Rich.js';
import { SettingsGroup } from './SettingsGroup.js';
import type { Settings } from './settings.js';
import { AfterRelease } from './AfterRelease.js';
import { afterWords, handInWords, namesWords, practiceWords, takesPartWords, whomWords } from './summaries.js';
import { TakesPart } from './TakesPart.js';
import { WhenGroup } from './dates/WhenGroup.js';
import { WhoReviews } from './WhoReviews.js';
import { say } from '../../words/plan.js';

export type ProblemAt = (path: string) => string | undefined;

interface PlanGroupsProps {
  readonly settings: Settings;
  readonly plan: PlanView;
  readonly readOnly: boolean;
  readonly problemAt: ProblemAt;
  readonly onChange: (part: Partial<Settings>) => void;
  /** What was changed of what takes a step of its own, in words; not there before that step. */
  readonly onUnmoved: (of: 'when' | 'allocation' | 'grade', sentences: readonly string[]) => void;
}

/** The settings of an exchange, group by group, in the order of the job. */
export function PlanGroups(props: PlanGroupsProps) {
  const { settings, plan, readOnly, problemAt, onChange, onUnmoved } = props;
  const { course } = useExchange();
  const missingIn = (...paths: string[]) =>
    !plan.published && plan.missing.some(({ path }) => paths.some((one) => path.split('.')[0] === one));
  return (
    <>
      <Writing {...props} />
      <HandingIn {...props} startOpen={missingIn('deliverables', 'handInAs')} />
      <WhenGroup
        dates={settings.dates}
        late={settings.late}
        nightly={plan.allocation.kind === 'nightly'}
        selfReview={settings.selfReview !== 'off'}
        published={plan.published}
        readOnly={readOnly}
        students={plan.students}
        remarks={plan.remarks}
        problemAt={problemAt}
        startOpen={!plan.published}
        lateHandIns={plan.lateHandIns}
        onUnmoved={(sentences) => onUnmoved('when', sentences)}
        onDates={(dates) => onChange({ dates })}
        onLate={(late) => onChange({ late })}
      />
      <SettingsGroup
        title={say('whoTakesPart')}
        summary={takesPartWords(settings, plan)}
        startOpen={missingIn('takesPart')}
      >
        <TakesPart
          rule={settings.takesPart}
          choices={plan.choices}
          fixed={plan.fixed.takesPart}
          problem={problemAt('takesPart')}
          onChange={(takesPart) => onChange({ takesPart })}
        />
      </SettingsGroup>
      <SettingsGroup
        title={say('whoReviewsWhom')}
        summary={whomWords(settings, plan)}
        startOpen={missingIn('reviewsPerStudent', 'whom', 'groupSetId', 'selfReview')}
      >
        <WhoReviews
          settings={settings}
          plan={plan}
          courseId={course.id}
          problemAt={problemAt}
          onChange={onChange}
          onUnmoved={(sentences) => onUnmoved('allocation', sentences)}
        />
      </SettingsGroup>
      <SettingsGroup title={say('practice')} summary={practiceWords(settings)} startOpen={missingIn('practice')}>
        <Practice
          rule={settings.practice}
          readOnly={readOnly}
          problem={problemAt('practice')}
          onChange={(practice) => onChange({ practice })}
        />
      </SettingsGroup>
      <SettingsGroup title={say('names')} summary={namesWords(settings)}>
        <Names settings={settings} fixed={plan.fixed.names} onChange={onChange} />
      </SettingsGroup>
      <HowToReview {...props} />
      <SettingsGroup
        title={say('afterRelease')}
        summary={afterWords(settings)}
        startOpen={missingIn('after', 'remindHours')}
      >
        <AfterRelease
          rule={settings.after}
          remindHours={settings.remindHours}
          readOnly={readOnly}
          problemAt={problemAt}
          onRule={(after) => onChange({ after })}
          onRemind={(remindHours) => onChange({ remindHours })}
        />
      </SettingsGroup>
      <SettingsGroup
        title={say('grade')}
        summary={settings.gradeParts.length === 0 ? say('noGrade') : gradeWords(settings.gradeParts)}
        startOpen={missingIn('gradeParts')}
      >
        {plan.published ? (
          <ChangingGrade
            parts={settings.gradeParts}
            students={plan.students}
            readOnly={readOnly}
            onUnmoved={(sentences) => onUnmoved('grade', sentences)}
          />
        ) : (
          <GradeParts
            parts={settings.gradeParts}
            problemAt={problemAt}
            onChange={(gradeParts) => onChange({ gradeParts })}
          />
        )}
      </SettingsGroup>
    </>
  );
}

function Writing({ settings, plan, readOnly, problemAt, onChange }: PlanGroupsProps) {
  return (
    <SettingsGroup
      title={say('whatIsWritten')}
      summary={settings.briefHtml === '' ? say('titleWithoutBrief', { title: settings.title }) : settings.title}
      startOpen={!plan.published}
    >
      <TextField
        label={say('title')}
        value={settings.title}
        onChange={(event) => onChange({ title: event.target.value })}
        problem={problemAt('title')}
      />
      <Rich
        label={say('brief')}
        about={say('whatAuthorsAreAskedTo')}
        html={settings.briefHtml}
        readOnly={readOnly}
        onChange={(briefHtml) => onChange({ briefHtml })}
      />
      <AttachmentsField place="brief" readOnly={readOnly} />
    </SettingsGroup>
  );
}

function HandingIn({
  settings,
  plan,
  problemAt,
  onChange,
  startOpen,
}: PlanGroupsProps & { readonly startOpen: boolean }) {
  return (
    <SettingsGroup title={say('whatIsHandedIn')} summary={handInWords(settings)} startOpen={startOpen}>
      <Select
        label={say('handIn')}
        value={settings.handInAs}
        options={[
          ['alone', say('eachStudentAlone')],
          ['group', say('asGroupOneHandIn')],
        ]}
        disabled={plan.fixed.handInAs !== undefined}
        hint={plan.fixed.handInAs ?? (settings.handInAs === 'group' ? say('groupHandInsAreReviewed') : undefined)}
        onChange={(handInAs) =>
          onChange({
            handInAs: handInAs as Settings['handInAs'],
            ...(handInAs === 'group' && settings.whom !== 'other-groups' && { whom: 'other-groups' as const }),
          })
        }
      />
      <Deliverables
        deliverables={settings.deliverables}
        fixed={plan.fixed.deliverables}
        problemAt={problemAt}
        onChange={(deliverables) => onChange({ deliverables })}
      />
    </SettingsGroup>
  );
}

function HowToReview({ settings, plan, readOnly, onChange }: PlanGroupsProps) {
  return (
    <SettingsGroup
      title={say('howToReview')}
      summary={settings.guideHtml === '' ? say('noGuideForReviewersYet') : say('guideForReviewers')}
    >
      <Rich
        label={say('guide')}
        about={say('howReviewersAreAskedTo')}
        html={settings.guideHtml}
        readOnly={readOnly}
        onChange={(guideHtml) => onChange({ guideHtml })}
      />
      <AttachmentsField place="guide" readOnly={readOnly} />
      <Select
        label={say('authorsReadTheirFeedback')}
        value={settings.feedbackEach ? 'each' : 'together'}
        options={[
          ['together', say('allOfItAtRelease')],
          ['each', say('reviewByReviewAsEach')],
        ]}
        disabled={plan.fixed.feedbackEach !== undefined}
        hint={plan.fixed.feedbackEach ?? (settings.feedbackEach ? say('forCoursesThatGoOn') : undefined)}
        onChange={(when) => onChange({ feedbackEach: when === 'each' })}
      />
      <Select
        label={say('submittedReviews')}
        value={settings.reviewsFinal ? 'final' : 'open'}
        options={[
          ['open', say('canBeReopenedByTheir')],
          ['final', say('areFinalYouCanReopen')],
        ]}
        disabled={plan.fixed.reviewsFinal !== undefined}
        hint={plan.fixed.reviewsFinal}
        onChange={(how) => onChange({ reviewsFinal: how === 'final' })}
      />
      <Select
        label={say('shorthandForFixNotes')}
        value={settings.shorthandId ?? ''}
        options={[['', say('none')], ...plan.choices.shorthand.map(({ id, title }) => [id, title] as const)]}
        hint={say('shortLabelsWithKeyEach')}
        onChange={(id) => onChange({ shorthandId: id === '' ? null : id })}
      />
    </SettingsGroup>
  );
}
