import type { GradeRow, GradesView } from '@salt-circle/contracts';
import { GRADING_WORKS, listed } from '@salt-circle/core';
import { useEffect, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { Steps } from '../../app/boards/Steps.js';
import { Person } from '../../app/People.js';
import { useExchange } from '../../app/useExchange.js';
import { Select } from '../../kit/index.js';
import { usePresentMutation } from './gradesApi.js';
import { asked, ORDERS, progressWords } from './work.js';
import { say } from '../../words/grades.js';

interface HeadProps {
  readonly view: GradesView;
  /** In the order in which one goes through them. */
  readonly rows: readonly GradeRow[];
  readonly row: GradeRow;
}

/** Who is graded, how far all are, and the way to the next. */
export function DeskHead({ view, rows, row }: HeadProps) {
  const exchange = useExchange();
  const navigate = useNavigate();
  const [params, setParams] = useSearchParams();
  const works = asked(view);
  const base = `/exchanges/${exchange.id}/grades`;
  const change = (name: string, value: string) => {
    const next = new URLSearchParams(params);
    next.set(name, value);
    setParams(next, { replace: true });
  };
  const shared = view.rows.some((one) => GRADING_WORKS.some((work) => one.work[work].grader !== null));
  const search = params.size === 0 ? '' : `?${params.toString()}`;
  return (
    <div className="flex flex-wrap items-center justify-between gap-x-6 gap-y-2 px-5 py-3">
      <div>
        <h2 className="text-xl font-semibold">
          <Person label={row.person} />
        </h2>
        <p className="text-sm text-ink-soft">
          {say('allGradesOf', {
            link: (words) => (
              <Link to={base} className="text-dusk underline">
                {words}
              </Link>
            ),
            findIndex: rows.findIndex(({ id }) => id === row.id) + 1,
            rows: rows.length,
            progressWords: progressWords(rows, works),
          })}
        </p>
        <Company row={row} />
      </div>
      <div className="flex flex-wrap items-end gap-3">
        <div className="w-48">
          <Select
            label={say('order')}
            labelHidden
            value={params.get('order') ?? 'name'}
            options={Object.entries(ORDERS)}
            onChange={(order) => change('order', order)}
          />
        </div>
        {shared && (
          <div className="w-40">
            <Select
              label={say('whose')}
              labelHidden
              value={params.get('whose') ?? 'all'}
              options={[
                ['all', say('everybody')],
                ['mine', say('mineToGrade')],
              ]}
              onChange={(whose) => change('whose', whose)}
            />
          </div>
        )}
        <div className="flex gap-1">
          <Steps rows={rows} id={row.id} onShow={(id) => void navigate(`${base}/${id}${search}`)} />
        </div>
      </div>
    </div>
  );
}

/** Milliseconds between two words that one is here; three times as much and one is forgotten. */
const PRESENT = 15_000;

/** Two who grade the same person at once are told. */
function Company({ row }: { readonly row: GradeRow }) {
  const exchange = useExchange();
  const [present] = usePresentMutation();
  const [others, setOthers] = useState<readonly string[]>([]);
  useEffect(() => {
    let over = false;
    const tellPresence = async () => {
      const { data } = await present({ exchangeId: exchange.id, participantId: row.id });
      if (!over && data !== undefined) setOthers(data.others);
    };
    void tellPresence();
    const timer = setInterval(() => void tellPresence(), PRESENT);
    return () => {
      over = true;
      clearInterval(timer);
    };
  }, [present, exchange.id, row.id]);
  return (
    <p role="status" className="text-sm text-copper">
      {others.length > 0 &&
        (others.length === 1
          ? say('isGradingThisPersonAs', { others: listed(others) })
          : say('areGradingThisPersonAs', { others: listed(others) }))}
    </p>
  );
}
