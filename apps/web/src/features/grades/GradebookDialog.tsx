import { listed } from '@salt-circle/core';
import type { LtiScoreState, LtiScoreView, GradebookView } from '@salt-circle/contracts';
import { LTI_SCORE_STATES } from '@salt-circle/contracts/plain';
import { useState } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { relatively } from '../../app/time/words.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, Checkbox, Dialog, Notice, Select, StateMark, type MarkState } from '../../kit/index.js';
import { partName } from './gradeWords.js';
import {
  useDecideScoresMutation,
  useGradebookQuery,
  useSendScoresMutation,
  useSetGradebookMutation,
} from './gradesApi.js';
import { say } from '../../words/grades.js';

const statesOfScores = (): Readonly<Record<LtiScoreState, readonly [mark: MarkState, words: string]>> => ({
  sent: ['done', say('sentWord')],
  waiting: ['in-progress', say('waitingWord')],
  refused: ['late', say('refusedWord')],
  changed: ['late', say('changedThere')],
  apart: ['excused', say('notOfPlatform')],
  unreleased: ['not-begun', say('notReleased')],
});

interface GradebookDialogProps {
  readonly view: GradebookView;
  readonly onClose: () => void;
}

/** What the gradebook of the platform is told, person by person, and what to do where the two differ. */
export function GradebookDialog({ view, onClose }: GradebookDialogProps) {
  const exchange = useExchange();
  const [only, setOnly] = useState<LtiScoreState | null>(null);
  const [send, sending] = useSendScoresMutation();
  const [decide, deciding] = useDecideScoresMutation();
  const { platform, faults, columns, counts } = view;
  const { data: some } = useGradebookQuery({ exchangeId: exchange.id, state: only });
  const rows = some?.scores ?? [];
  const all = only === null ? Object.values(counts).reduce((sum, one) => sum + one, 0) : counts[only];
  const act = (how: 'again' | 'ours' | 'theirs', participantIds: readonly string[]) =>
    void decide({ exchangeId: exchange.id, how, participantIds: [...participantIds] });
  const error = sending.error ?? deciding.error;
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={say('gradebookOf', { platform: platform ?? say('platform') })}
      description={say('gradesGoThereOnceThey')}
    >
      <div className="space-y-4">
        <WhichColumns view={view} />
        {faults.map((fault) => (
          <Notice key={fault} tone="problem">
            {fault}
          </Notice>
        ))}
        {columns !== 'off' && (
          <>
            <div className="flex flex-wrap gap-2">
              {LTI_SCORE_STATES.filter((state) => counts[state] > 0).map((state) => (
                <Button
                  key={state}
                  small
                  aria-pressed={only === state}
                  className="aria-pressed:border-iodine aria-pressed:bg-crust"
                  onClick={() => setOnly(only === state ? null : state)}
                >
                  {statesOfScores()[state][1]} {counts[state]}
                </Button>
              ))}
            </div>
            <div className="flex flex-wrap gap-2">
              <Button busy={sending.isLoading} onClick={() => void send(exchange.id)}>
                {say('sendNowAndCompare')}
              </Button>
              {(counts.refused > 0 || faults.length > 0) && (
                <Button busy={deciding.isLoading} onClick={() => act('again', [])}>
                  {say('tryAgainWhatWasRefused')}
                </Button>
              )}
              {counts.changed > 1 && (
                <>
                  <Button onClick={() => act('ours', [])}>{say('sendOursToAll', { changed: counts.changed })}</Button>
                  <Button onClick={() => act('theirs', [])}>{say('leaveAllTheirs')}</Button>
                </>
              )}
            </div>
            {error !== undefined && <ProblemNotice error={error} />}
            <Rows rows={rows} parts={columns === 'parts'} onDecide={act} />
            {all > rows.length && <p className="text-ink-soft">{say('andMore', { all: all - rows.length })}</p>}
          </>
        )}
      </div>
    </Dialog>
  );
}

function WhichColumns({ view }: { readonly view: GradebookView }) {
  const exchange = useExchange();
  const [columns, setColumns] = useState(view.columns);
  const [removeThere, setRemoveThere] = useState(false);
  const [set, { isLoading, error }] = useSetGradebookMutation();
  const isOther = columns !== view.columns;
  const fewer = (isOther && view.columns !== 'off') || view.tidy !== null;
  const options = [
    ['off', say('nothingGoesThere')] as const,
    ['whole', say('oneColumnGrade')] as const,
    ...(view.canMake || view.columns === 'parts' ? [['parts', say('columnForEachPartOf')] as const] : []),
  ];
  return (
    <div className="space-y-3">
      <Select
        label={say('whatGoesThere')}
        value={columns}
        options={options}
        {...(!view.canMake && { hint: say('letsNobodyMakeColumnsOne', { platform: view.platform }) })}
        onChange={(next) => setColumns(next as GradebookView['columns'])}
      />
      {fewer && view.canMake && (
        <Checkbox
          label={say('removeColumnsThereThatAre')}
          checked={removeThere}
          onChange={({ target }) => setRemoveThere(target.checked)}
        />
      )}
      {error !== undefined && <ProblemNotice error={error} />}
      {view.tidy !== null && !isOther && <p className="text-copper">{view.tidy}</p>}
      {(isOther || view.tidy !== null) && (
        <Button
          look={removeThere ? 'destructive' : 'primary'}
          busy={isLoading}
          onClick={() => void set({ exchangeId: exchange.id, columns, removeThere })}
        >
          {columns === 'off' ? say('sendNothingAnyMore') : isOther ? say('apply') : say('makeColumnsAsPartsAre')}
        </Button>
      )}
    </div>
  );
}

interface RowsProps {
  readonly rows: readonly LtiScoreView[];
  readonly parts: boolean;
  readonly onDecide: (how: 'ours' | 'theirs', participantIds: readonly string[]) => void;
}

function Rows({ rows, parts, onDecide }: RowsProps) {
  return (
    <div className="overflow-x-auto">
      <table className="w-full text-left">
        <thead>
          <tr className="border-b border-line text-sm text-ink-soft">
            <th className="py-1 pr-3 font-normal">{say('student')}</th>
            {parts && <th className="py-1 pr-3 font-normal">{say('part')}</th>}
            <th className="py-1 pr-3 text-right font-normal">{say('ours')}</th>
            <th className="py-1 pr-3 text-right font-normal">{say('theirs')}</th>
            <th className="py-1 font-normal">{say('state')}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={`${row.participantId} ${row.part}`} className="border-b border-line align-top">
              <td className="py-1.5 pr-3">{row.name}</td>
              {parts && <td className="py-1.5 pr-3">{row.part === '' ? say('gradeWord') : partName(row.part)}</td>}
              <td className="py-1.5 pr-3 text-right tabular-nums">{oursWords(row)}</td>
              <td className="py-1.5 pr-3 text-right tabular-nums">{row.theirs === null ? '' : percent(row.theirs)}</td>
              <td className="py-1.5">
                <StateMark
                  state={statesOfScores()[row.state][0]}
                  share={0.5}
                  word={statesOfScores()[row.state][1]}
                  wordHidden={false}
                />
                <Besides row={row} onDecide={onDecide} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Besides({ row, onDecide }: { readonly row: LtiScoreView; readonly onDecide: RowsProps['onDecide'] }) {
  const { state, at, nextTryAt, error, theirs, name, participantId } = row;
  const now = Date.now();
  if (state === 'changed')
    return (
      <span className="mt-1 flex flex-wrap gap-2">
        <Button small aria-label={say('sendOursFor', { name })} onClick={() => onDecide('ours', [participantId])}>
          {say('sendOurs')}
        </Button>
        <Button small aria-label={say('leaveTheirsFor', { name })} onClick={() => onDecide('theirs', [participantId])}>
          {say('leaveTheirs')}
        </Button>
      </span>
    );
  const words = [
    state === 'sent' && at !== null ? relatively(Date.parse(at), now) : null,
    state === 'sent' && theirs !== null ? say('theirsWasLeft') : null,
    state === 'waiting' && nextTryAt !== null
      ? say('triedAgain', { when: relatively(Date.parse(nextTryAt), now) })
      : null,
    error,
  ].filter((one) => one !== null);
  return words.length === 0 ? null : <span className="block text-sm text-ink-soft">{listed(words, 'comma')}</span>;
}

function oursWords({ state, kind, ours }: LtiScoreView): string {
  if (state === 'unreleased' || state === 'apart') return '';
  if (kind === 'graded' && ours !== null) return percent(ours);
  return kind === 'excused' ? say('excused') : say('notGraded');
}

function percent(value: number): string {
  return `${value}%`;
}

/** On the button that opens it: how many want to be looked at. */
export function gradebookWords({ counts }: GradebookView): string {
  const wanting = counts.changed + counts.refused;
  return wanting === 0 ? say('gradebook') : say('gradebookToLookAt', { wanting });
}
