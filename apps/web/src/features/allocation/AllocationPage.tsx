import { wordsBy } from '@salt-circle/core';
import type { AllocationView, WishesView } from '@salt-circle/contracts';
import { Grid3x3, List, Orbit, Undo2 } from 'lucide-react';
import { useEffect, useEffectEvent, useMemo, useState } from 'react';
import { Button, Dialog, Empty, Loading, Menu } from '../../kit/index.js';
import { usePolling } from '../../app/changes/useChanges.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useExchange } from '../../app/useExchange.js';
import { useAllocationQuery, useUndoAllocationMutation } from './allocationApi.js';
import { FileDialog } from './FileDialog.js';
import { ListView } from './views/ListView.js';
import { MatrixView } from './views/MatrixView.js';
import { Model } from './model.js';
import { RingView } from './views/RingView.js';
import { ScheduleDialog } from './ScheduleDialog.js';
import { Side } from './Side.js';
import { StaffDialog } from './StaffDialog.js';
import { useManualChanges } from './useManualChanges.js';
import { usePreview } from './usePreview.js';
import { asBody } from './Wishes.js';
import { say } from '../../words/allocation.js';

type Picture = 'list' | 'matrix' | 'ring';
const pictures = () =>
  [
    ['list', say('list'), List],
    ['matrix', say('matrix'), Grid3x3],
    ['ring', say('ring'), Orbit],
  ] as const;
const PICTURE_KEY = 'salt-circle-allocation-picture';

const UNDO_WORDS: Readonly<Record<NonNullable<AllocationView['undo']>['act'], string>> = wordsBy(say, {
  applied: 'undoApplying',
  repaired: 'undoRepair',
  round: 'undoLastRound',
  'by-hand': 'undoLastChange',
  imported: 'undoFile',
});

/** Who reviews whom: as it is applied, or as a preview; seen as a list, a matrix or a ring, with its quality beside it. */
export function AllocationPage() {
  const exchange = useExchange();
  const { data: view, error } = useAllocationQuery(exchange.id, {
    refetchOnMountOrArgChange: true,
    pollingInterval: usePolling(20_000),
  });
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (view === undefined) return <Loading what={say('allocation')} />;
  return <Workspace key={exchange.id} view={view} />;
}

function Workspace({ view }: { readonly view: AllocationView }) {
  const exchange = useExchange();
  const previewing = usePreview(exchange.id);
  const { preview } = previewing;
  const [picture, setPicture] = useState<Picture>(
    () => (localStorage.getItem(PICTURE_KEY) as Picture | null) ?? 'list',
  );
  const [changed, setChanged] = useState<WishesView | null>(null);
  const model = useMemo(() => new Model(view, preview?.pairs ?? null), [view, preview]);
  const wishes = changed ?? preview?.wishes ?? view.wishes;
  const look = (kind: 'new' | 'repair', seed: number | null, wanted = wishes) =>
    previewing.start({ kind, seed, wishes: asBody(wanted) });
  const manual = useManualChanges(exchange.id, model, () => {
    // What is kept apart from now on shows in the preview at once.
    if (preview !== null && preview.kind !== 'round') look(preview.kind, preview.seed);
  });
  const choose = (next: Picture) => {
    setPicture(next);
    localStorage.setItem(PICTURE_KEY, next);
  };
  const shown = { model, manual, preview: preview !== null };
  const none = model.pairs.length === 0 && preview === null;
  return (
    <div className="grid flex-1 grid-cols-1 lg:grid-cols-[minmax(0,1fr)_19rem] xl:grid-cols-[minmax(0,1fr)_23rem]">
      <div className="min-w-0 px-5 py-4">
        <div className="mb-3 flex flex-wrap items-center justify-between gap-3">
          <h2 className="text-xl font-semibold">{say('whoReviewsWhom')}</h2>
          <div className="flex items-center gap-2">
            {view.undo !== null && preview === null && <Undo of={view.undo} onDone={manual.quiet} />}
            <More view={view} wishes={wishes} />
            <Pictures value={picture} onChange={choose} />
          </div>
        </div>
        {/* Room for two lines, whether or not they are there: the board does not move under the pointer when something is said. */}
        <div className="mb-1 min-h-11">
          {preview !== null && <p className="text-copper">{say('previewNothingHasBeenApplied')}</p>}
          <p role="status" aria-live="polite" className="text-sm text-ink-soft">
            {manual.said}
          </p>
        </div>
        {manual.problem !== null && <ProblemNotice error={manual.problem} />}
        {none && <NothingYet view={view} published={exchange.published} />}
        {/* Pairs can be made by hand before there are any; a ring of nobody shows nothing. */}
        {view.drafts.length > 0 && picture === 'list' && <ListView {...shown} />}
        {view.drafts.length > 0 && picture === 'matrix' && <MatrixView {...shown} />}
        {!none && picture === 'ring' && <RingView model={model} onMatrix={() => choose('matrix')} />}
      </div>
      <Side
        view={view}
        model={model}
        manual={manual}
        previewing={previewing}
        wishes={wishes}
        onWishes={(next) => {
          setChanged(next);
          if (exchange.published && !view.begun) look('new', preview?.kind === 'new' ? preview.seed : null, next);
        }}
        onLook={look}
        onShow={(next) => {
          setChanged(null);
          previewing.show(next);
        }}
      />
      <Dialog
        open={manual.asked !== null}
        onClose={manual.forget}
        title={say('takeAwayWhatHasBegun')}
        description={manual.asked?.problem.sentence ?? ''}
      >
        <p className="mb-4">{manual.asked?.problem.whatToDo}</p>
        <Button look="destructive" busy={manual.busy} onClick={manual.confirm}>
          {say('takeItAwayKeepWork')}
        </Button>
      </Dialog>
    </div>
  );
}

function Pictures({ value, onChange }: { readonly value: Picture; readonly onChange: (picture: Picture) => void }) {
  return (
    <div role="group" aria-label={say('shownAs')} className="flex overflow-hidden rounded border border-edge">
      {pictures().map(([key, words, Icon]) => (
        <button
          key={key}
          type="button"
          aria-pressed={value === key}
          onClick={() => onChange(key)}
          className="flex items-center gap-1.5 border-edge px-3 py-1.5 not-first:border-l hover:bg-crust aria-pressed:bg-ink aria-pressed:text-salt"
        >
          <Icon size={15} aria-hidden="true" /> {words}
        </button>
      ))}
    </div>
  );
}

interface UndoProps {
  readonly of: NonNullable<AllocationView['undo']>;
  readonly onDone: () => void;
}

/** By its button, or by Ctrl Z anywhere on the page but where somebody types. */
function Undo({ of: { step, act }, onDone }: UndoProps) {
  const exchange = useExchange();
  const [undo, { isLoading, error }] = useUndoAllocationMutation();
  const go = useEffectEvent(() => {
    if (!isLoading) void undo({ id: exchange.id, step }).then(onDone);
  });
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const typing = (event.target as HTMLElement).closest('input, textarea, select, [contenteditable], [role=dialog]');
      if (event.key.toLowerCase() !== 'z' || !(event.ctrlKey || event.metaKey) || event.shiftKey || typing !== null)
        return;
      event.preventDefault();
      go();
    };
    document.addEventListener('keydown', press);
    return () => document.removeEventListener('keydown', press);
  }, []);
  return (
    <>
      {error !== undefined && <ProblemNotice error={error} />}
      <Button busy={isLoading} title={say('ctrlZ')} onClick={() => void undo({ id: exchange.id, step }).then(onDone)}>
        <Undo2 size={15} aria-hidden="true" /> {UNDO_WORDS[act]}
      </Button>
    </>
  );
}

function More({ view, wishes }: { readonly view: AllocationView; readonly wishes: WishesView }) {
  const exchange = useExchange();
  const [open, setOpen] = useState<'file' | 'staff' | 'schedule' | null>(null);
  const close = () => setOpen(null);
  return (
    <>
      <Menu
        trigger={<Button disabled={!exchange.published}>{say('more')}</Button>}
        groups={[
          [
            { words: say('whenDraftsAreAllocated'), onPick: () => setOpen('schedule') },
            { words: say('staffWhoReviewAsWell'), onPick: () => setOpen('staff') },
          ],
          [
            {
              words: say('downloadAsCsv'),
              disabled: !view.applied,
              onPick: () => window.location.assign(`/api/exchanges/${exchange.id}/allocation/file`),
            },
            { words: say('fromCsvFile'), onPick: () => setOpen('file') },
          ],
        ]}
      />
      {open === 'file' && <FileDialog onClose={close} />}
      {open === 'staff' && <StaffDialog view={view} onClose={close} />}
      {open === 'schedule' && <ScheduleDialog view={view} wishes={wishes} onClose={close} />}
    </>
  );
}

function NothingYet({ view, published }: { readonly view: AllocationView; readonly published: boolean }) {
  const title = say('noDraftsHaveBeenAllocated');
  const words = published
    ? say('ofStudentsHaveHandedIn', { handedIn: view.handedIn, students: view.students })
    : say('publishExchangeFirstDraftsAre');
  if (view.drafts.length === 0) {
    return (
      <Empty title={title}>
        <p>{words}</p>
      </Empty>
    );
  }
  return (
    <div className="mb-3">
      <p className="font-medium">{title}</p>
      <p className="text-ink-soft">{words}</p>
    </div>
  );
}
