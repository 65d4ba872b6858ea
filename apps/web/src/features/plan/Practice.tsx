import type { PracticeCard } from '@salt-circle/contracts';
import { counted, MAX_PRACTICE_DRAFTS, MAX_PRACTICE_TRIES, type PracticeRule } from '@salt-circle/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { percent } from '../../app/percent.js';
import { usePracticeQuery, useRemovePracticeMutation } from '../../app/practice/practiceApi.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, buttonClass, Dialog, Loading, Select, StateMark, TextField, type MarkState } from '../../kit/index.js';
import { AddPractice } from './AddPractice.js';

interface PracticeProps {
  readonly rule: PracticeRule;
  readonly readOnly: boolean;
  readonly problem: string | undefined;
  readonly onChange: (rule: PracticeRule) => void;
}

/** Practice before the real reviews: the rule, and the drafts with their keys. */
export function Practice({ rule, readOnly, problem, onChange }: PracticeProps) {
  return (
    <>
      <Select
        label="Practice"
        value={rule.when}
        options={[
          ['off', 'Off'],
          ['offered', 'Offered: students may practise, and reviewing does not wait'],
          ['first', 'First: the drafts of others open after practice'],
        ]}
        hint="Students review a sample draft, then see your own review of it, the key, beside theirs."
        problem={problem}
        onChange={(when) => onChange({ ...rule, when: when as PracticeRule['when'] })}
      />
      {rule.when !== 'off' && (
        <>
          <div className="grid max-w-[44rem] gap-4 sm:grid-cols-2">
            <Select
              label="Tries of each practice draft"
              value={rule.tries === null ? '' : String(rule.tries)}
              options={[
                ['', 'As many as they like'],
                ...[...Array(MAX_PRACTICE_TRIES).keys()].map((at) => [String(at + 1), String(at + 1)] as const),
              ]}
              onChange={(tries) => onChange({ ...rule, tries: tries === '' ? null : Number(tries) })}
            />
            {rule.when === 'first' && <CloseEnough rule={rule} onChange={onChange} />}
          </div>
          <PracticeDrafts readOnly={readOnly} />
        </>
      )}
    </>
  );
}

function CloseEnough({ rule, onChange }: Pick<PracticeProps, 'rule' | 'onChange'>) {
  return (
    <TextField
      label="Near enough, in percent of the items"
      type="number"
      min={0}
      max={100}
      step={5}
      value={rule.closeEnough === null ? '' : String(Math.round(100 * rule.closeEnough))}
      hint="Left blank, submitting is enough. Who has no try left goes on all the same; you see who that is."
      onChange={({ target }) => {
        const given = target.value === '' ? null : Math.min(100, Math.max(0, Number(target.value))) / 100;
        onChange({ ...rule, closeEnough: given });
      }}
    />
  );
}

function PracticeDrafts({ readOnly }: { readonly readOnly: boolean }) {
  const exchange = useExchange();
  const { data, error } = usePracticeQuery(exchange.id, { refetchOnMountOrArgChange: true });
  const [adding, setAdding] = useState(false);
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what="the practice drafts" />;
  const { drafts } = data;
  return (
    <div>
      <p className="mb-1 font-medium">Practice drafts</p>
      {drafts.length === 0 && (
        <p className="text-ink-soft">
          None yet. Add one to {MAX_PRACTICE_DRAFTS}, and review each yourself: that is the key.
        </p>
      )}
      <ul>
        {drafts.map((draft) => (
          <Row key={draft.id} draft={draft} readOnly={readOnly} />
        ))}
      </ul>
      {!readOnly && drafts.length < MAX_PRACTICE_DRAFTS && (
        <Button className="mt-3" onClick={() => setAdding(true)}>
          Add a practice draft…
        </Button>
      )}
      {adding && <AddPractice onClose={() => setAdding(false)} />}
    </div>
  );
}

const KEY: Readonly<Record<NonNullable<PracticeCard['staff']>['key'], readonly [MarkState, string, string]>> = {
  'not-begun': ['not-begun', 'no key yet: students do not see it', 'Write the key'],
  'in-progress': ['in-progress', 'key begun, not submitted: students do not see it', 'Go on with the key'],
  submitted: ['done', 'key submitted', 'Look at the key'],
};

function Row({ draft, readOnly }: { readonly draft: PracticeCard; readonly readOnly: boolean }) {
  const [remove, { isLoading, error }] = useRemovePracticeMutation();
  const [asking, setAsking] = useState(false);
  const { staff, title, id } = draft;
  if (staff === null) return null;
  const [mark, words, verb] = KEY[staff.key];
  const mean = staff.meanShare === null ? '' : `, on average ${percent(staff.meanShare)} of the items near the key`;
  return (
    <li className="flex flex-wrap items-center justify-between gap-x-4 gap-y-2 border-b border-line py-2 first:border-t">
      <div>
        <p className="font-semibold">{title}</p>
        <p className="flex flex-wrap items-center gap-x-3 text-ink-soft">
          <StateMark state={mark} share={0.5} word={words} wordHidden={false} />
          {staff.tried > 0 && (
            <span>
              {counted(staff.tried, '1 student has tried it', '# students have tried it')}
              {mean}
            </span>
          )}
          {staff.consent !== null && <span>the author agreed: {staff.consent}</span>}
        </p>
      </div>
      <div className="flex gap-2">
        <Link
          to={`/reviews/${staff.keyReviewId}`}
          className={buttonClass(staff.key === 'submitted' ? 'plain' : 'primary')}
        >
          {verb}
        </Link>
        {!readOnly && <Button onClick={() => setAsking(true)}>Remove…</Button>}
      </div>
      <Dialog open={asking} onClose={() => setAsking(false)} title={`Remove “${title}”`}>
        <div className="space-y-3">
          <p>
            {staff.tried === 0
              ? 'The draft and its key go away for good.'
              : `The draft, its key and ${counted(staff.tried, 'the tries of 1 student', 'the tries of # students')} go away for good.`}
          </p>
          {error !== undefined && <ProblemNotice error={error} />}
          <Button
            look="primary"
            busy={isLoading}
            onClick={() => void remove(id).then((result) => result.error === undefined && setAsking(false))}
          >
            Remove
          </Button>
        </div>
      </Dialog>
    </li>
  );
}
