import type { DatesView, FieldProblem } from '@salt-circle/contracts';
import { OPTIONAL_DATES, type DateName, type LateRule } from '@salt-circle/core';
import { useNow } from '../../app/time/useNow.js';
import { inWords } from '../../app/time/words.js';
import { DateInput } from '../../app/time/DateInput.js';
import { LateRuleEditor } from './LateRuleEditor.js';

const ROWS: ReadonlyArray<readonly [DateName, string, string]> = [
  ['draftsOpen', 'Drafts open', 'from then on authors can write and hand in'],
  ['draftsDue', 'Drafts due', ''],
  ['lateUntil', 'Late until', 'blank: nothing is taken late'],
  ['reviewsOpen', 'Reviews open', 'blank: when drafts can no longer be handed in'],
  ['selfReviewDue', 'Self-reviews due', 'blank: with the other reviews'],
  ['reviewsDue', 'Reviews due', ''],
  ['checkUntil', 'Check until', 'blank: no time is set aside to check reviews'],
  ['release', 'Release feedback', 'blank: when reviews are due, or checked'],
  ['repliesDue', 'Replies due', 'blank: authors and reviewers do not answer each other'],
  ['revisionDue', 'Revision due', 'blank: no revision is handed in'],
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
    return OPTIONAL_DATES.has(name) ? blank : 'not set';
  };
  return (
    <>
      <p className="text-sm text-ink-soft">All times in {timeZone.replaceAll('_', ' ')}, the course’s time zone.</p>
      {ROWS.filter(([name]) => asked(name)).map(([name, words, blank]) => (
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
