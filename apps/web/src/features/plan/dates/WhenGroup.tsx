import type { DatesView, FieldProblem, StaffFigures } from '@salt-circle/contracts';
import { DATE_ORDER, resolveDates, type DateName, type LateRule, exactly } from '@salt-circle/core';
import { useState } from 'react';
import { problemOf } from '../../../app/api.js';
import { ProblemNotice } from '../../../app/ProblemNotice.js';
import { toDates } from '../../../app/time/dates.js';
import { useNow } from '../../../app/time/useNow.js';
import { useExchange } from '../../../app/useExchange.js';
import { Button, Checkbox, Dialog } from '../../../kit/index.js';
import { DateRows } from './DateRows.js';
import { tellWords, useDateNowMutation, useMoveDatesMutation, useSetRulesMutation } from '../planApi.js';
import { SettingsGroup } from '../SettingsGroup.js';
import { say } from '../../../words/plan.js';

export interface WhenGroupProps {
  readonly dates: DatesView;
  readonly late: LateRule | null;
  readonly nightly: boolean;
  readonly selfReview: boolean;
  readonly published: boolean;
  readonly readOnly: boolean;
  readonly students: number;
  readonly remarks: readonly FieldProblem[];
  readonly problemAt: (path: string) => string | undefined;
  readonly startOpen: boolean;
  readonly onDates: (dates: DatesView) => void;
  readonly onLate: (late: LateRule | null) => void;
  /** Of a published exchange, how many drafts have been handed in late. */
  readonly lateHandIns: number;
  readonly onUnmoved: (sentences: readonly string[]) => void;
}

/** Dates: saved as they are typed while in planning, moved by a step of their own afterwards. */
export function WhenGroup(props: WhenGroupProps) {
  const { dates, published, startOpen } = props;
  const { course } = useExchange();
  const now = useNow();
  const resolved = resolveDates(toDates(dates));
  const summary =
    resolved === null
      ? say('someDatesAreMissing')
      : say('draftsUntilReviewsUntil', {
          when: exactly(resolved.draftsDue, course.timeZone, now),
          when2: exactly(resolved.reviewsDue, course.timeZone, now),
        });
  return (
    <SettingsGroup title={say('when')} summary={summary} startOpen={startOpen}>
      {published ? <MovingDates {...props} /> : <DateRows {...props} timeZone={course.timeZone} />}
    </SettingsGroup>
  );
}

function MovingDates({ dates, late, readOnly, students, lateHandIns, problemAt, onUnmoved, ...rest }: WhenGroupProps) {
  const exchange = useExchange();
  const [wanted, setWanted] = useState(dates);
  const [tell, setTell] = useState(true);
  const [move, moving] = useMoveDatesMutation();
  const [rule, setRule] = useState(late);
  const [setRules, ruling] = useSetRulesMutation();
  const changed = DATE_ORDER.filter((name) => wanted[name] !== dates[name]);
  const ruleChanged = JSON.stringify(rule) !== JSON.stringify(late);
  const errors = [moving.error, ruling.error].filter((one) => one !== undefined);
  const wrong = errors.flatMap((error) => problemOf(error).fields);
  const want = (next: DatesView, nextRule: LateRule | null) => {
    setWanted(next);
    setRule(nextRule);
    onUnmoved(unmovedWords(next, dates, JSON.stringify(nextRule) !== JSON.stringify(late)));
  };
  const go = async () => {
    if (changed.length > 0) {
      const moved = await move({ exchangeId: exchange.id, dates: wanted, tell });
      if (moved.error !== undefined) return;
    }
    if (ruleChanged) {
      const set = await setRules({ exchangeId: exchange.id, late: rule, tell });
      if (set.error !== undefined) return;
    }
    onUnmoved([]);
  };
  return (
    <>
      <DateRows
        {...rest}
        dates={wanted}
        late={rule}
        timeZone={exchange.course.timeZone}
        problemAt={(path) => wrong.find((one) => one.path === path)?.sentence ?? problemAt(path)}
        onDates={(next) => want(next, rule)}
        onLate={(next) => want(wanted, next)}
      />
      {!readOnly && (
        <div className="sticky bottom-0 space-y-3 border-t border-line bg-salt py-3">
          {changed.length > 0 || ruleChanged ? (
            <div className="flex flex-wrap items-center gap-3">
              <p className="text-copper">{unmovedWords(wanted, dates, ruleChanged).join(' ')}</p>
              {ruleChanged && lateHandIns > 0 && (
                <p className="text-sm">{say('draftsWereHandedInLate', { lateHandIns })}</p>
              )}
              <Checkbox label={tellWords(students)} checked={tell} onChange={({ target }) => setTell(target.checked)} />
              <Button look="primary" small busy={moving.isLoading || ruling.isLoading} onClick={() => void go()}>
                {changed.length === 0
                  ? say('changeRule')
                  : ruleChanged
                    ? say('moveDatesAndChangeRule')
                    : say('moveDates')}
              </Button>
              <Button small onClick={() => want(dates, late)}>
                {say('putBack')}
              </Button>
            </div>
          ) : (
            <NowButtons dates={dates} tell={tell} onMoved={setWanted} />
          )}
          {wrong.length === 0 && errors.map((error, index) => <ProblemNotice key={index} error={error} />)}
        </div>
      )}
    </>
  );
}

function unmovedWords(wanted: DatesView, dates: DatesView, ruleChanged: boolean): string[] {
  const moved = DATE_ORDER.filter((name) => wanted[name] !== dates[name]).length;
  return [
    ...(moved === 0 ? [] : [say('datesAreNotMovedYet', { moved })]),
    ...(ruleChanged ? [say('whatLateHandInLoses')] : []),
  ];
}

const nowWords = (): ReadonlyArray<readonly [DateName, string]> => [
  ['draftsOpen', say('openDraftsNow')],
  ['draftsDue', say('closeDraftsNow')],
  ['reviewsOpen', say('openReviewsNow')],
  ['reviewsDue', say('closeReviewsNow')],
];

interface NowProps {
  readonly dates: DatesView;
  readonly tell: boolean;
  readonly onMoved: (dates: DatesView) => void;
}

/** The one or two steps that make sense at this moment. */
function NowButtons({ dates, tell, onMoved }: NowProps) {
  const exchange = useExchange();
  const now = useNow();
  const [moveNow, { isLoading, error }] = useDateNowMutation();
  const [asking, setAsking] = useState<DateName | null>(null);
  const [before, setBefore] = useState<DatesView | null>(null);
  const [move, putting] = useMoveDatesMutation();
  const resolved = resolveDates(toDates(dates));
  if (resolved === null) return null;
  const ahead = nowWords().filter(([name]) => {
    const at = resolved[name as 'draftsOpen'];
    if (at <= now) return false;
    if (name === 'draftsDue') return now > resolved.draftsOpen;
    if (name === 'reviewsOpen') return now > resolved.draftsOpen;
    return name === 'draftsOpen' || now > resolved.reviewsOpen;
  });
  const go = async (date: DateName) => {
    const result = await moveNow({ exchangeId: exchange.id, date, tell });
    setAsking(null);
    if (result.data === undefined) return;
    setBefore(dates);
    onMoved(result.data);
  };
  const putBack = async () => {
    if (before === null) return;
    const result = await move({ exchangeId: exchange.id, dates: before, tell });
    if (result.error !== undefined) return;
    onMoved(before);
    setBefore(null);
  };
  return (
    <div className="flex flex-wrap items-center gap-2">
      {ahead.map(([name, words]) => (
        <Button key={name} small onClick={() => setAsking(name)}>
          {words}
        </Button>
      ))}
      {before !== null && (
        <span role="status" className="flex flex-wrap items-center gap-2">
          {say('nowDone')}
          <Button small busy={putting.isLoading} onClick={() => void putBack()}>
            {say('nowUndo')}
          </Button>
        </span>
      )}
      {error !== undefined && <ProblemNotice error={error} />}
      {putting.error !== undefined && <ProblemNotice error={putting.error} />}
      <Dialog
        open={asking !== null}
        onClose={() => setAsking(null)}
        title={nowWords().find(([name]) => name === asking)?.[1] ?? ''}
        description={asking === null ? '' : nowEffect(asking, exchange.figures)}
      >
        <div className="space-y-4">
          <p className="text-ink-soft">
            {asking === 'draftsDue' && dates.lateUntil !== null && <>{say('nowEndsLate')} </>}
            {tell ? say('nowTold', { students: exchange.figures?.students ?? 0 }) : say('nowNotTold')}{' '}
            {say('nowUndoable')}
          </p>
          <div className="flex justify-end gap-2">
            <Button onClick={() => setAsking(null)}>{say('nowCancel')}</Button>
            <Button look="primary" busy={isLoading} onClick={() => asking !== null && void go(asking)}>
              {nowWords().find(([name]) => name === asking)?.[1]}
            </Button>
          </div>
        </div>
      </Dialog>
    </div>
  );
}

/** What a press changes, and for whom. */
function nowEffect(date: DateName, figures: StaffFigures | null): string {
  const { students = 0, handedIn = 0, asked = 0, submitted = 0 } = figures ?? {};
  if (date === 'draftsOpen') return say('nowOpensDrafts', { students });
  if (date === 'draftsDue') return say('nowClosesDrafts', { missing: students - handedIn, students });
  if (date === 'reviewsOpen') return say('nowOpensReviews', { missing: students - handedIn });
  return say('nowClosesReviews', { missing: asked - submitted, asked });
}
