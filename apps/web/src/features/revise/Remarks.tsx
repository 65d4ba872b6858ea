import type { RemarkView, RevisionView } from '@salt-circle/contracts';
import { comparePlaces, planFigures } from '@salt-circle/core';
import { useMemo, useState } from 'react';
import { Decide, DECISION_WORDS } from '../../app/after/Decide.js';
import { Thread } from '../../app/after/Thread.js';
import { labelWords } from '../../app/People.js';
import { EditWords } from '../../app/reading/EditWords.js';
import { KIND_EDGE, KIND_TEXT, kindWord } from '../../app/reading/noteKinds.js';
import type { ComparedVersions } from '../../app/viewing/useVersions.js';
import { Button, Empty } from '../../kit/index.js';
import { BECAME_TEXT, becameWords } from './becameWords.js';
import { becameOfRemark, type PartPair } from './versions.js';
import { say } from '../../words/revise.js';

interface RemarksProps {
  readonly view: RevisionView;
  readonly pairs: readonly PartPair[];
  readonly compared: ComparedVersions;
  readonly exchangeId: string;
  readonly timeZone: string;
  /** Its author decides and ticks here; everybody else reads. */
  readonly own: boolean;
}

/** Each remark beside what became of its passage; for the author, the plan of changes. */
export function Remarks({ view, pairs, compared, exchangeId, timeZone, own }: RemarksProps) {
  const [only, setOnly] = useState<'all' | 'to-do'>('all');
  const remarks = useMemo(() => {
    const byPlace = comparePlaces(view.reviewed.parts.map(({ id }) => id));
    const notes = view.remarks.filter(({ note }) => note !== null);
    notes.sort((a, b) => (a.note === null || b.note === null ? 0 : byPlace(a.note.place, b.note.place)));
    return [...notes, ...view.remarks.filter(({ note }) => note === null)];
  }, [view]);
  const asked = remarks.filter(({ note }) => note?.kind !== 'keep');
  const figures = planFigures(
    asked.map(({ key, decision }) => ({ key, decision: decision?.decision ?? null, done: decision?.done ?? false })),
  );
  const shown =
    only === 'all'
      ? remarks
      : remarks.filter(({ decision }) => decision?.decision === 'will-change' && decision.done !== true);
  return (
    <section
      aria-label={own ? say('planOfChanges') : say('remarks')}
      className="border-l border-line bg-crust px-5 py-5"
    >
      <div className="mb-2 flex flex-wrap items-baseline justify-between gap-x-4 gap-y-1">
        <h2 className="text-lg font-semibold">
          {own ? say('planOfChanges') : say('remarksAndWhatBecameOf')}{' '}
          <span className="text-sm font-normal text-ink-soft">
            {say('ofDoneOfDecided', {
              done: figures.done,
              toDo: figures.toDo,
              decided: figures.decided,
              remarks: figures.remarks,
            })}
          </span>
        </h2>
        {own && (
          <span className="no-print flex gap-2">
            <Button
              small
              aria-pressed={only === 'to-do'}
              className="aria-pressed:border-iodine aria-pressed:font-semibold"
              onClick={() => setOnly(only === 'all' ? 'to-do' : 'all')}
            >
              {say('stillToBeDone', { toDo: figures.toDo - figures.done })}
            </Button>
            <Button small onClick={() => window.print()}>
              {say('print')}
            </Button>
          </span>
        )}
      </div>
      {shown.length === 0 && (
        <Empty title={remarks.length === 0 ? say('thereAreNoRemarks') : say('nothingIsLeftToBe')}>
          <p>{remarks.length === 0 ? say('whatReviewersAskForStands') : say('handInRevisionWhenYou')}</p>
        </Empty>
      )}
      <ul className="divide-y divide-line">
        {shown.map((remark) => (
          <li key={remark.key} className="grid grid-cols-1 gap-x-4 gap-y-1 py-3 sm:grid-cols-[1fr_9rem]">
            <RemarkText {...{ remark, exchangeId, timeZone, own }} />
            <BecameOf remark={remark} pairs={pairs} compared={compared} />
          </li>
        ))}
      </ul>
    </section>
  );
}

interface RemarkTextProps {
  readonly remark: RemarkView;
  readonly exchangeId: string;
  readonly timeZone: string;
  readonly own: boolean;
}

function RemarkText({ remark, exchangeId, timeZone, own }: RemarkTextProps) {
  const { key, note, by, itemTitle, words, decision, reviewId } = remark;
  return (
    <div className={`min-w-0 border-l-[3px] pl-2.5 text-sm ${note === null ? 'border-line' : KIND_EDGE[note.kind]}`}>
      <p>
        <span className={`font-semibold ${note === null ? '' : KIND_TEXT[note.kind]}`}>
          {note === null ? say('nextStep') : kindWord(note.kind)}
        </span>{' '}
        <span className="text-ink-soft">
          {labelWords(by)}
          {itemTitle !== '' && `, ${itemTitle}`}
        </span>
      </p>
      {note?.place.selector.type === 'text' && note.edit === null && (
        <p className="text-ink-soft">
          <q>{note.place.selector.quote.exact.slice(0, 160)}</q>
        </p>
      )}
      {note != null && note.edit !== null && <EditWords edit={note.edit} selector={note.place.selector} />}
      {words !== '' && <p className="whitespace-pre-wrap">{words}</p>}
      {own && note?.kind !== 'keep' && <Decide exchangeId={exchangeId} of={key} decision={decision} ticks />}
      {(!own || note?.kind === 'keep') && decision?.decision != null && (
        <p>
          {say(decision.done ? 'itsAuthorDone' : 'itsAuthor', {
            decision: DECISION_WORDS[decision.decision],
            soft: (soft) => <span className="text-ink-soft">{soft}</span>,
          })}
          {decision.why !== '' && <span className="block">{decision.why}</span>}
        </p>
      )}
      {note !== null && <Thread reviewId={reviewId} noteId={note.id} timeZone={timeZone} />}
    </div>
  );
}

function BecameOf({
  remark,
  pairs,
  compared,
}: Pick<RemarksProps, 'pairs' | 'compared'> & { readonly remark: RemarkView }) {
  if (compared.state !== 'done') return <span />;
  const found = becameOfRemark(remark, pairs, compared.texts);
  if (found === null) return <span />;
  const [word, figures] = becameWords(found.became);
  return (
    <p className="text-sm">
      <span className={`font-semibold ${BECAME_TEXT[found.became.kind]}`}>{word}</span>
      {figures !== '' && <span className="block text-ink-soft">{figures}</span>}
    </p>
  );
}
