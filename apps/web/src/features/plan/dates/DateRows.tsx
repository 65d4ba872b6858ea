import type { DatesView, FieldProblem } from '@salt-circle/contracts';
import { OPTIONAL_DATES, type DateName, type LateRule } from '@salt-circle/core';
import { useNow } from '../../../app/time/useNow.js';
import { inWords } from '../../../app/time/words.js';
import { DateInput } from '../../../app/time/DateInput.js';
import { LateRuleEditor } from './LateRuleEditor.js';
import { say } from '../../../words/plan.js';

const dateRows = (): ReadonlyArray<readonly [DateName, string, string]> => [
  ['draftsOpen', say('draftsOpen'), say('fromThenOnAuthorsCan')],
  ['draftsDue', say('draftsDue'), ''],
  ['lateUntil', say('lateUntil'), say('blankNothingIsTakenLate')],
  ['reviewsOpen', say('reviewsOpen'), say('blankWhenDraftsCanNo')],
  ['selfReviewDue', say('selfReviewsDue'), say('blankWithOtherReviews')],
  ['reviewsDue', say('reviewsDue'), ''],
  ['checkUntil', say('checkUntil'), say('blankNoTimeIsSet')],
  ['release', say('releaseFeedback'), say('blankWhenReviewsAreDue')],
  ['repliesDue', say('repliesDue'), say('blankAuthorsAndReviewersDo')],
  ['revisionDue', say('revisionDue'), say('blankNoRevisionIsHanded')],
];

export interface DateRowsProps {
  readonly dates: DatesView;
  readonly late: LateRule | null;
  /** Drafts are allocated night by night: reviewing opens with drafts, so no date is asked for it. */
  readonly nightly: boolean;
  /** Students review their own drafts as well. */
  readonly selfReview: boolean;
  readonly timeZone: string;
  readonly remarks: readonly FieldProblem[];
  readonly problemAt: (path: string) => string | undefined;
  readonly onDates: (dates: DatesView) => void;
  readonly onLate: (late: LateRule | null) => void;
}

/** All dates of an exchange in the order in which they fall, blanks with what they mean. */
export function DateRows({
  dates,
  late,
  nightly,
  selfReview,
  timeZone,
  remarks,
  problemAt,
  onDates,
  onLate,
}: DateRowsProps) {
  const now = useNow();
  const asked = (name: DateName) => {
    if (name === 'selfReviewDue') return selfReview;
    return !(nightly && name === 'reviewsOpen' && dates.reviewsOpen === null);
  };
  const hint = (name: DateName, blank: string) => {
    const at = dates[name];
    if (at !== null) return inWords(Date.parse(at), timeZone, now);
    return OPTIONAL_DATES.has(name) ? blank : say('notSet');
  };
  return (
    <>
      <p className="text-sm text-ink-soft">
        {say('allTimesInCoursesTime', { timeZone: timeZone.replaceAll('_', ' ') })}
      </p>
      {dateRows()
        .filter(([name]) => asked(name))
        .map(([name, words, blank]) => (
          <div key={name}>
            <DateInput
              label={words}
              value={dates[name]}
              timeZone={timeZone}
              hint={hint(name, blank)}
              problem={problemAt(`dates.${name}`)}
              remark={remarks.find(({ path }) => path === `dates.${name}`)?.sentence}
              onChange={(at) => onDates({ ...dates, [name]: at })}
            />
            {name === 'lateUntil' && (dates.lateUntil !== null || late !== null) && (
              <LateRuleEditor late={late} problemAt={problemAt} onChange={onLate} />
            )}
          </div>
        ))}
    </>
  );
}
