import { DndContext, PointerSensor, useDraggable, useDroppable, useSensor, useSensors } from '@dnd-kit/core';
import type { BoardReviewer } from '@salt-circle/contracts';
import { pairKey, type Pair, wordsBy } from '@salt-circle/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { Lock, Plus } from 'lucide-react';
import { useRef, useState } from 'react';
import { isFound } from '../../../app/boards/Find.js';
import { Person } from '../../../app/People.js';
import { Menu, StateMark, TextField } from '../../../kit/index.js';
import { draftChoices, reviewerChoices, swapChoices } from '../choices.js';
import { doneOf } from './marks.js';
import type { Model } from '../model.js';
import { Picker, type Choice } from './Picker.js';
import { named } from '../sentences.js';
import { stepOf } from './steps.js';
import { useCellFocus } from './useCellFocus.js';
import type { ManualChanges } from '../useManualChanges.js';
import { say } from '../../../words/allocation.js';

export interface BoardProps {
  readonly model: Model;
  readonly manual: ManualChanges;
  /** A preview is shown: its pairs are not there yet to be moved about. */
  readonly preview: boolean;
}

interface Picking {
  readonly title: string;
  readonly choices: readonly Choice[];
}

/** Where there is little room, names of reviewers give way to their number. */
const COLUMNS = 'grid-cols-[9rem_1fr_4rem_4rem] xl:grid-cols-[13rem_1fr_4.5rem_minmax(9rem,16rem)]';

const LEFT_OUT = wordsBy(say, { 'not-handed-in': 'notHandedIn', excused: 'excused', left: 'noLongerInCourse' });

/** A row per reviewer: whose drafts they review, and who reviews theirs. Drafts are dragged from row to row. */
export function ListView({ model, manual, preview }: BoardProps) {
  const [wanted, setWanted] = useState('');
  const [picking, setPicking] = useState<Picking | null>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));
  const rows = model.view.reviewers.filter(({ label }) => isFound(label, wanted));
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 46,
    overscan: 8,
    getItemKey: (index) => rows[index]?.id ?? index,
  });
  const columns = (row: number) => (model.draftsOf.get(rows[row]?.id ?? '')?.length ?? 0) + (preview ? 0 : 1);
  const { active, setActive, ...onFrame } = useCellFocus(scroller, rows.length, columns, (row) =>
    virtual.scrollToIndex(row),
  );
  return (
    <>
      <div className="mb-2 max-w-72">
        <TextField
          label={say('findReviewer')}
          labelHidden
          placeholder={say('findReviewer')}
          value={wanted}
          onChange={({ target }) => setWanted(target.value)}
        />
      </div>
      <DndContext
        sensors={sensors}
        onDragEnd={({ active: dragged, over }) => {
          const from = model.applied.get(String(dragged.id));
          if (over === null || from === undefined || over.id === from.reviewerId) return;
          const { reviewerId, draftId } = from;
          manual.move({ reviewerId, draftId }, { reviewerId: String(over.id), draftId });
        }}
      >
        <div className={`grid gap-3 border-b border-ink px-2 py-1.5 text-sm font-semibold text-ink-soft ${COLUMNS}`}>
          <span>{say('reviewer')}</span>
          <span>{say('reviewsDraftsBy')}</span>
          <span className="text-right">{say('reviewsLabel')}</span>
          <span>
            <span className="xl:hidden">{say('gets')}</span>
            <span className="hidden xl:inline">{say('isReviewedBy')}</span>
          </span>
        </div>
        <div
          ref={scroller}
          {...onFrame}
          role="list"
          aria-label={say('reviewersAndTheirDrafts')}
          className="h-[calc(100dvh-20rem)] min-h-72 overflow-y-auto"
        >
          <div className="relative" style={{ height: virtual.getTotalSize() }}>
            {virtual.getVirtualItems().map(({ index, start, key }) => (
              <div
                key={key}
                ref={virtual.measureElement}
                data-index={index}
                className="absolute inset-x-0"
                style={{ transform: `translateY(${start}px)` }}
              >
                <Row
                  reviewer={rows[index] as BoardReviewer}
                  row={index}
                  active={active}
                  model={model}
                  manual={manual}
                  preview={preview}
                  onActive={setActive}
                  onPick={setPicking}
                />
              </div>
            ))}
          </div>
          {rows.length === 0 && <p className="p-3 text-ink-soft">{say('nobodyByThatName')}</p>}
        </div>
      </DndContext>
      {picking !== null && <Picker {...picking} onClose={() => setPicking(null)} />}
    </>
  );
}

function remarkOn({ leftOut, extra, practised }: BoardReviewer): string | null {
  if (leftOut !== null) return LEFT_OUT[leftOut];
  if (extra) return say('ofStaff');
  return practised === false ? say('hasNotPractised') : null;
}

interface RowProps extends BoardProps {
  readonly reviewer: BoardReviewer;
  readonly row: number;
  readonly active: { readonly row: number; readonly col: number };
  readonly onActive: (at: { row: number; col: number }) => void;
  readonly onPick: (picking: Picking) => void;
}

function Row({ reviewer, row, active, model, manual, preview, onActive, onPick }: RowProps) {
  const { setNodeRef, isOver } = useDroppable({ id: reviewer.id, disabled: preview });
  const drafts = model.draftsOf.get(reviewer.id) ?? [];
  const own = model.ownOf.get(reviewer.id);
  const reviewers = own === undefined ? [] : (model.reviewersOf.get(own.id) ?? []);
  const cell = (col: number) => ({
    'data-at': `${row}:${col}`,
    tabIndex: active.row === row && active.col === col ? 0 : -1,
    onFocus: () => onActive({ row, col }),
  });
  const remark = remarkOn(reviewer);
  const odd = reviewer.leftOut === null && drafts.length !== reviewer.capacity;
  return (
    <div
      ref={setNodeRef}
      role="listitem"
      aria-label={model.reviewerName(reviewer.id)}
      className={`grid min-h-11 ${COLUMNS} items-center gap-3 border-b px-2 py-1 ${isOver ? 'border-iodine bg-crust' : 'border-line'}`}
    >
      <span className="min-w-0 leading-tight">
        <Person label={reviewer.label} />
        {remark !== null && <span className="block text-sm text-copper">{remark}</span>}
      </span>
      <span className="flex flex-wrap items-center gap-1.5">
        {drafts.map((draftId, col) => (
          <Chip
            key={draftId}
            pair={{ reviewerId: reviewer.id, draftId }}
            model={model}
            manual={manual}
            preview={preview}
            cell={cell(col)}
            onPick={onPick}
          />
        ))}
        {!preview && reviewer.leftOut !== 'left' && reviewer.leftOut !== 'excused' && (
          <button
            {...cell(drafts.length)}
            type="button"
            aria-label={say('addDraftFor', { reviewerName: model.reviewerName(reviewer.id) })}
            onClick={() =>
              onPick({
                title: say('furtherDraftFor', { reviewerName: model.reviewerName(reviewer.id) }),
                choices: draftChoices(model, manual, reviewer.id),
              })
            }
            className="rounded border border-dashed border-edge p-1 text-ink-soft hover:bg-crust"
          >
            <Plus size={14} aria-hidden="true" />
          </button>
        )}
      </span>
      <span className={`text-right tabular-nums ${odd ? 'font-semibold text-copper' : ''}`}>
        {reviewer.capacity === 0 && drafts.length === 0
          ? ''
          : say('of', { drafts: drafts.length, capacity: reviewer.capacity })}
      </span>
      <span className="min-w-0 text-sm leading-snug text-ink-soft">
        {own !== undefined && own.closed && say('takesNoReviews')}
        {own !== undefined && !own.closed && (
          <>
            <span className="tabular-nums text-ink">{reviewers.length}</span>{' '}
            {reviewers.length > 0 && (
              <span className="hidden xl:inline">{named(reviewers.map((id) => model.reviewerName(id)))}</span>
            )}
          </>
        )}
      </span>
    </div>
  );
}

interface ChipProps extends BoardProps {
  readonly pair: Pair;
  readonly cell: { readonly 'data-at': string; readonly tabIndex: number; readonly onFocus: () => void };
  readonly onPick: (picking: Picking) => void;
}

function Chip({ pair, model, manual, preview, cell, onPick }: ChipProps) {
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({ id: pairKey(pair), disabled: preview });
  const applied = model.applied.get(pairKey(pair));
  const author = model.authorName(pair.draftId);
  const reviewer = model.reviewerName(pair.reviewerId);
  const begun = applied !== undefined && applied.state !== 'not-begun';
  const met = model.times.has(pairKey(pair));
  const face = (
    <>
      {applied?.locked === true && <Lock size={12} aria-label={say('held')} />}
      {begun && (
        <StateMark
          state={applied.state === 'submitted' ? 'done' : 'in-progress'}
          share={doneOf(applied)}
          word={applied.state === 'submitted' ? say('submitted') : say('begun')}
          size={11}
        />
      )}
      {author}
      {met && <span className="text-xs text-saffron">{say('metBefore')}</span>}
    </>
  );
  const look = 'inline-flex items-center gap-1 rounded border bg-paper px-1.5 py-0.5';
  const isNew = preview && applied === undefined;
  if (preview) {
    return (
      <span className={`${look} ${isNew ? 'border-iodine' : 'border-line'}`} {...cell}>
        {face}
      </span>
    );
  }
  const chip = (
    <button
      {...cell}
      {...listeners}
      ref={setNodeRef}
      type="button"
      aria-label={
        applied?.locked === true
          ? begun
            ? applied.state === 'submitted'
              ? say('reviewsHeldSubmitted', { reviewer, author })
              : say('reviewsHeldBegun', { reviewer, author })
            : say('reviewsHeld', { reviewer, author })
          : begun
            ? applied.state === 'submitted'
              ? say('reviewsSubmitted', { reviewer, author })
              : say('reviewsBegun', { reviewer, author })
            : say('reviewsOf', { reviewer, author })
      }
      onKeyDown={(event) => {
        const keys: Readonly<Record<string, () => void>> = {
          Delete: () => manual.remove(pair),
          h: () => manual.hold(pair),
          k: () => manual.keepApart(pair),
        };
        keys[event.key]?.();
        // Arrows go from draft to draft: Down would open the menu as well, and the menu would take the focus.
        if (stepOf(event.key) !== null) event.preventDefault();
      }}
      style={transform === null ? undefined : { transform: `translate(${transform.x}px, ${transform.y}px)` }}
      className={`${look} touch-none border-edge hover:bg-crust ${isDragging ? 'relative z-20 shadow-lg' : ''}`}
    >
      {face}
    </button>
  );
  return (
    <Menu
      trigger={chip}
      groups={[
        [
          {
            words: say('moveToAnotherReviewer'),
            onPick: () =>
              onPick({
                title: say('whoReviewsInsteadOf', { author, reviewer }),
                choices: reviewerChoices(model, manual, pair),
              }),
          },
          {
            words: say('swapWithAnotherPair'),
            onPick: () =>
              onPick({ title: say('changesDraftsWith', { reviewer }), choices: swapChoices(model, manual, pair) }),
          },
        ],
        [
          {
            words: applied?.locked === true ? say('letGoH') : say('holdInEveryNewAllocation'),
            onPick: () => manual.hold(pair),
          },
          {
            words: model.isApart(pair) ? say('allowAgainK') : say('keepApartFromNowOn'),
            onPick: () => manual.keepApart(pair),
          },
        ],
        [{ words: say('takeAwayDelete'), onPick: () => manual.remove(pair) }],
      ]}
    />
  );
}
