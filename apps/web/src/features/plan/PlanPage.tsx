import type { FieldProblem, PlanView, Problem } from '@salt-circle/contracts';
import { useEffect, useState } from 'react';
import { Loading, SaveMark, Select, TextField } from '../../kit/index.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { Conflict } from '../../app/saving/Conflict.js';
import { LeaveGuard } from '../../app/saving/LeaveGuard.js';
import { useMe } from '../../app/session/useMe.js';
import { gradeWords } from '@salt-circle/core';
import { useFresh } from '../../app/useFresh.js';
import { useExchange } from '../../app/useExchange.js';
import { AttachmentsField } from './AttachmentsField.js';
import { Deliverables } from './Deliverables.js';
import { FormSummary } from './FormSummary.js';
import { ChangingGrade } from './ChangingGrade.js';
import { GradeParts } from '../../app/GradeParts.js';
import { Names } from './Names.js';
import { OwnTimes } from './dates/OwnTimes.js';
import { PlainWords } from './PlainWords.js';
import { Practice } from './Practice.js';
import { PlanMenu } from './PlanMenu.js';
import { usePlanFormQuery, usePlanQuery } from './planApi.js';
import { RecordGroup } from './RecordGroup.js';
import { Rich } from './Rich.js';
import { SettingsGroup } from './SettingsGroup.js';
import type { Settings } from './settings.js';
import { AfterRelease } from './AfterRelease.js';
import { afterWords, handInWords, namesWords, practiceWords, takesPartWords, whomWords } from './summaries.js';
import { TakesPart } from './TakesPart.js';
import { usePlanSettings } from './usePlanSettings.js';
import { WhenGroup } from './dates/WhenGroup.js';
import { WhoReviews } from './WhoReviews.js';
import { say } from '../../words/plan.js';

/** All settings of an exchange, in the order of the job, saved as they are changed. */
export function PlanPage() {
  const exchange = useExchange();
  const query = usePlanQuery(exchange.id, { refetchOnMountOrArgChange: true });
  const plan = useFresh(query);
  if (query.error !== undefined) return <ProblemNotice error={query.error} />;
  if (plan === undefined) return <Loading what={say('plan')} />;
  return <PlanWorkspace plan={plan} fresh={!query.isFetching} readOnly={exchange.course.role !== 'instructor'} />;
}

interface WorkspaceProps {
  readonly plan: PlanView;
  readonly fresh: boolean;
  readonly readOnly: boolean;
}

function PlanWorkspace({ plan, fresh, readOnly }: WorkspaceProps) {
  const exchange = useExchange();
  const me = useMe();
  const key = `${me.id}:plan:${exchange.id}`;
  const { settings, saving, touched, held, refused, change, take } = usePlanSettings(plan, exchange.id, key);
  const [unmoved, setUnmoved] = useState<Readonly<Record<string, readonly string[]>>>({});
  const { refetch } = usePlanQuery(exchange.id);
  const { data: form } = usePlanFormQuery(exchange.id, { refetchOnMountOrArgChange: true });
  // What is still missing is the server's to say, after each save.
  useEffect(() => {
    if (touched && saving.state === 'saved') void refetch();
  }, [touched, saving.state, saving.savedAt, refetch]);

  const problemAt = problemFinder(held, plan);
  const unsaved = [...held.map(({ sentence }) => sentence), ...Object.values(unmoved).flat()];

  return (
    <div className="grid flex-1 grid-cols-1 lg:grid-cols-[1fr_26rem]">
      <div className="min-w-0 px-5 py-5">
        <div className="mb-2 flex flex-wrap items-center justify-between gap-3">
          <h2 className="text-xl font-semibold">{say('planLabel')}</h2>
          <div className="flex items-center gap-3">
            {!readOnly && <SaveMark state={saving.state} savedAt={saving.savedAt} />}
            <PlanMenu plan={plan} readOnly={readOnly} />
          </div>
        </div>
        {saving.state === 'conflict' && <PlanConflict saveKey={key} problem={saving.problem} onTake={take} />}
        {refused !== null && <ProblemNotice error={refused} />}
        {held.length > 0 && (
          <p role="status" className="mb-2 text-madder">
            {say('settingsAreNotSavedFor', { held: held.length })}
          </p>
        )}
        <LeaveGuard unsaved={unsaved.length > 0}>
          {unsaved.map((sentence) => (
            <p key={sentence}>{sentence}</p>
          ))}
        </LeaveGuard>
        <fieldset disabled={readOnly} className="min-w-0">
          <Groups
            settings={settings}
            plan={plan}
            readOnly={readOnly}
            problemAt={problemAt}
            onChange={change}
            onUnmoved={(of, sentences) => setUnmoved((all) => ({ ...all, [of]: sentences }))}
          />
        </fieldset>
        <FormSummary form={form} readOnly={readOnly} />
        <OwnTimes plan={plan} readOnly={readOnly} />
        <RecordGroup />
      </div>
      <PlainWords
        settings={settings}
        plan={plan}
        form={form ?? null}
        canPublish={!readOnly && fresh && saving.state === 'saved'}
        saveKey={key}
        unsaved={held}
      />
    </div>
  );
}

type ProblemAt = (path: string) => string | undefined;

/** What was refused comes first; what is missing stands beside its field as well as in the list. */
function problemFinder(held: readonly FieldProblem[], plan: PlanView): ProblemAt {
  return (path) =>
    held.find((one) => one.path === path)?.sentence ??
    plan.missing.find((one) => one.path === path && one.code !== 'date-missing')?.sentence;
}

interface GroupsProps {
  readonly settings: Settings;
  readonly plan: PlanView;
  readonly readOnly: boolean;
  readonly problemAt: ProblemAt;
  readonly onChange: (part: Partial<Settings>) => void;
  /** What was changed of what takes a step of its own, in words; not there before that step. */
  readonly onUnmoved: (of: 'when' | 'allocation' | 'grade', sentences: readonly string[]) => void;
}

function Groups({ settings, plan, readOnly, problemAt, onChange, onUnmoved }: GroupsProps) {
  const { course } = useExchange();
  const missingIn = (...paths: string[]) =>
    !plan.published && plan.missing.some(({ path }) => paths.some((one) => path.split('.')[0] === one));
  return (
    <>
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
      <SettingsGroup
        title={say('whatIsHandedIn')}
        summary={handInWords(settings)}
        startOpen={missingIn('deliverables', 'handInAs')}
      >
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

interface PlanConflictProps {
  readonly saveKey: string;
  readonly problem: Problem | null;
  readonly onTake: (theirs: PlanView) => void;
}

function PlanConflict({ saveKey, problem, onTake }: PlanConflictProps) {
  const theirs = problem?.current as PlanView | undefined;
  if (problem === null || theirs === undefined) return null;
  return (
    <Conflict
      saveKey={saveKey}
      problem={problem}
      revision={theirs.revision}
      theirs={theirs.title}
      onTake={() => onTake(theirs)}
    />
  );
}
