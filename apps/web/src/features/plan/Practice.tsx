import type { PracticeCard } from '@salt-circle/contracts';
import { MAX_PRACTICE_DRAFTS, MAX_PRACTICE_TRIES, type PracticeRule } from '@salt-circle/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { percent } from '../../app/percent.js';
import { usePracticeQuery, useRemovePracticeMutation } from '../../app/practice/practiceApi.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, buttonClass, Dialog, Loading, Select, StateMark, TextField, type MarkState } from '../../kit/index.js';
import { AddPractice } from './AddPractice.js';
import { say } from '../../words/plan.js';

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
        label={say('practice')}
        value={rule.when}
        options={[
          ['off', say('off')],
          ['offered', say('offeredStudentsMayPractiseAnd')],
          ['first', say('firstDraftsOfOthersOpen')],
        ]}
        hint={say('studentsReviewSampleDraftThen')}
        problem={problem}
        onChange={(when) => onChange({ ...rule, when: when as PracticeRule['when'] })}
      />
      {rule.when !== 'off' && (
        <>
          <div className="grid max-w-[44rem] gap-4 sm:grid-cols-2">
            <Select
              label={say('triesOfEachPracticeDraft')}
              value={rule.tries === null ? '' : String(rule.tries)}
              options={[
                ['', say('asManyAsTheyLike')],
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
      label={say('nearEnoughInPercentOf')}
      type="number"
      min={0}
      max={100}
      step={5}
      value={rule.closeEnough === null ? '' : String(Math.round(100 * rule.closeEnough))}
      hint={say('leftBlankSubmittingIsEnough')}
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
  if (data === undefined) return <Loading what={say('practiceDrafts')} />;
  const { drafts } = data;
  return (
    <div>
      <p className="mb-1 font-medium">{say('practiceDraftsLabel')}</p>
      {drafts.length === 0 && (
        <p className="text-ink-soft">{say('noneYetAddOneTo', { maxpracticedrafts: MAX_PRACTICE_DRAFTS })}</p>
      )}
      <ul>
        {drafts.map((draft) => (
          <Row key={draft.id} draft={draft} readOnly={readOnly} />
        ))}
      </ul>
      {!readOnly && drafts.length < MAX_PRACTICE_DRAFTS && (
        <Button className="mt-3" onClick={() => setAdding(true)}>
          {say('addPracticeDraftLabel')}
        </Button>
      )}
      {adding && <AddPractice onClose={() => setAdding(false)} />}
    </div>
  );
}

const statesOfKey = (): Readonly<
  Record<NonNullable<PracticeCard['staff']>['key'], readonly [MarkState, string, string]>
> => ({
  'not-begun': ['not-begun', say('noKeyYetStudentsDo'), say('writeKey')],
  'in-progress': ['in-progress', say('keyBegunNotSubmittedStudents'), say('goOnWithKey')],
  submitted: ['done', say('keySubmitted'), say('lookAtKey')],
});

function Row({ draft, readOnly }: { readonly draft: PracticeCard; readonly readOnly: boolean }) {
  const [remove, { isLoading, error }] = useRemovePracticeMutation();
  const [asking, setAsking] = useState(false);
  const { staff, title, id } = draft;
  if (staff === null) return null;
  const [mark, words, verb] = statesOfKey()[staff.key];
  return (
    <li className="flex flex-wrap items-center justify-between gap-x-4 gap-y-2 border-b border-line py-2 first:border-t">
      <div>
        <p className="font-semibold">{title}</p>
        <p className="flex flex-wrap items-center gap-x-3 text-ink-soft">
          <StateMark state={mark} share={0.5} word={words} wordHidden={false} />
          {staff.tried > 0 && (
            <span>
              {staff.meanShare === null
                ? say('studentsHaveTriedIt', { tried: staff.tried })
                : say('onAverageOfItemsNear', { tried: staff.tried, share: percent(staff.meanShare) })}
            </span>
          )}
          {staff.consent !== null && <span>{say('authorAgreed', { consent: staff.consent })}</span>}
        </p>
      </div>
      <div className="flex gap-2">
        <Link
          to={`/reviews/${staff.keyReviewId}`}
          className={buttonClass(staff.key === 'submitted' ? 'plain' : 'primary')}
        >
          {verb}
        </Link>
        {!readOnly && <Button onClick={() => setAsking(true)}>{say('removeLabel')}</Button>}
      </div>
      <Dialog open={asking} onClose={() => setAsking(false)} title={say('removeOf', { title })}>
        <div className="space-y-3">
          <p>{staff.tried === 0 ? say('draftAndItsKeyGo') : say('draftItsKeyAndTries', { tried: staff.tried })}</p>
          {error !== undefined && <ProblemNotice error={error} />}
          <Button
            look="primary"
            busy={isLoading}
            onClick={() => void remove(id).then((result) => result.error === undefined && setAsking(false))}
          >
            {say('remove')}
          </Button>
        </div>
      </Dialog>
    </li>
  );
}
