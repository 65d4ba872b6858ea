import type { CourseView } from '@salt-circle/contracts';
import { DATE_ORDER, instantOf, exactly } from '@salt-circle/core';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useNow } from '../../app/time/useNow.js';
import { Checkbox, Notice, Select, TextField } from '../../kit/index.js';
import { useCopyPreviewQuery, type CopyBody } from './coursesApi.js';
import { DATE_WORDS } from './dateWords.js';
import { say } from '../../words/courses.js';

export type Shift = Pick<CopyBody, 'shift' | 'days' | 'firstAt' | 'keepWeekdays'>;

export const NO_SHIFT: Shift = { shift: 'none', days: 0, firstAt: null, keepWeekdays: true };

export interface CopyDatesProps {
  readonly course: CourseView;
  readonly body: CopyBody;
  readonly shift: Shift;
  readonly onChange: (shift: Shift) => void;
}

/** How the dates of a copy are shifted, with the outcome and the holidays that it meets. */
export function CopyDates({ course, body, shift, onChange }: CopyDatesProps) {
  const now = useNow();
  const incomplete = shift.shift === 'first' && shift.firstAt === null;
  const { data, error } = useCopyPreviewQuery(
    { courseId: course.id, body },
    { skip: incomplete || shift.shift === 'none' },
  );
  const setDay = (text: string) => {
    const match = /^(\d{4})-(\d\d)-(\d\d)$/.exec(text);
    if (match === null) return onChange({ ...shift, firstAt: null });
    const [year, month, day] = match.slice(1).map(Number) as [number, number, number];
    const at = instantOf({ year, month, day, hour: 12, minute: 0 }, course.timeZone);
    return onChange({ ...shift, firstAt: new Date(at).toISOString() });
  };
  return (
    <div className="space-y-3 border-t border-line pt-3">
      <Select
        label={say('dates')}
        value={shift.shift}
        options={[
          ['none', say('leaveBlank')],
          ['first', say('shiftToNewFirstDay')],
          ['days', say('shiftByNumberOfDays')],
        ]}
        onChange={(next) => onChange({ ...shift, shift: next as Shift['shift'] })}
      />
      {shift.shift === 'days' && (
        <TextField
          label={say('daysLater')}
          type="number"
          value={Number.isNaN(shift.days) ? '' : shift.days}
          onChange={({ target }) => onChange({ ...shift, days: target.valueAsNumber || 0 })}
        />
      )}
      {shift.shift === 'first' && (
        <>
          <TextField
            label={say('firstDay')}
            type="date"
            value={shift.firstAt?.slice(0, 10) ?? ''}
            onChange={({ target }) => setDay(target.value)}
          />
          <Checkbox
            label={say('keepWeekdaysNearestDayOf')}
            checked={shift.keepWeekdays}
            onChange={({ target }) => onChange({ ...shift, keepWeekdays: target.checked })}
          />
        </>
      )}
      {error !== undefined && <ProblemNotice error={error} />}
      {data !== undefined && shift.shift !== 'none' && !incomplete && (
        <>
          <ul className="text-sm text-ink-soft">
            {DATE_ORDER.flatMap((name) => {
              const at = data.dates[name];
              if (at === null) return [];
              return [
                <li key={name}>
                  {say('dated', { name: DATE_WORDS[name], when: exactly(Date.parse(at), course.timeZone, now) })}
                </li>,
              ];
            })}
          </ul>
          {data.clashes.length > 0 && (
            <Notice tone="soon" title={say('fallsOnHolidayOfCourse')}>
              <ul>
                {data.clashes.map((clash) => (
                  <li key={clash}>{clash}</li>
                ))}
              </ul>
            </Notice>
          )}
        </>
      )}
    </div>
  );
}
