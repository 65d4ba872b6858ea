import type { ExchangeView, MyDraftView, Problem, VersionMeta } from '@salt-circle/contracts';
import { useState } from 'react';
import { Button, Dialog, Notice, Prose, SaveMark, StateMark } from '../../kit/index.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import type { SavingState } from '../../app/saving/useSaving.js';
import { useSeeing } from '../../app/seeing/useSeeing.js';
import { saveQueue } from '../../app/store.js';
import { useNow } from '../../app/time/useNow.js';
import { When } from '../../app/time/When.js';
import { exactly } from '../../app/time/words.js';
import { useExchange } from '../../app/useExchange.js';
import { useHandInMutation } from './handInApi.js';
import { standing } from './standing.js';

export interface HandInBarProps {
  readonly draft: MyDraftView;
  readonly text: { readonly title: string; readonly html: string };
  readonly words: number;
  readonly saveKey: string;
  readonly saving: SavingState;
  readonly receipt: VersionMeta | null;
  readonly onReceipt: (receipt: VersionMeta | null) => void;
}

export function HandInBar({ draft, text, words, saveKey, saving, receipt, onReceipt }: HandInBarProps) {
  const exchange = useExchange();
  const seeing = useSeeing() !== null;
  const [looking, setLooking] = useState<'as-reviewer' | 'hand-in' | null>(null);
  const changed = hasChanged(draft, saveKey, saving);
  const { mark, words: state, explained, loud } = standing(draft, changed, exchange.mayHandIn);
  const due = dueOf(exchange);
  const nothingNew = draft.versions.length > 0 && !changed;
  return (
    <footer className="no-print sticky bottom-0 z-20 flex flex-wrap items-center justify-between gap-x-5 gap-y-2 border-t border-line bg-paper px-5 py-2.5">
      <div className="flex items-center gap-3">
        <StateMark state={mark} share={0.6} word={state} size={20} />
        <div>
          <p className={`font-semibold ${loud ? 'text-madder' : ''}`}>{state}</p>
          <p className="text-sm text-ink-soft">{explained}</p>
        </div>
      </div>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <SaveMark state={saving.state} savedAt={saving.savedAt} />
        {due !== null && exchange.mayHandIn && (
          <span className="text-sm text-ink-soft">
            {exchange.handInIsLate ? 'late; taken until' : 'due'} <When at={due} timeZone={exchange.course.timeZone} />
          </span>
        )}
        <Button onClick={() => setLooking('as-reviewer')}>See it as a reviewer</Button>
        {exchange.mayHandIn && (
          <Button look="primary" disabled={nothingNew || seeing} onClick={() => setLooking('hand-in')}>
            {draft.versions.length > 0 ? 'Hand in again…' : 'Hand in…'}
          </Button>
        )}
      </div>
      <Dialog
        open={looking !== null}
        onClose={() => setLooking(null)}
        wide
        title={looking === 'hand-in' ? 'Hand in this draft?' : 'What reviewers will see'}
        description={`Reviewers see the author as ${exchange.alias ?? 'you, by name'}, and this text of ${words} words.`}
      >
        {looking === 'hand-in' && (
          <Confirm
            exchangeId={exchange.id}
            saveKey={saveKey}
            revision={draft.revision}
            onDone={(version) => {
              setLooking(null);
              onReceipt(version);
            }}
          />
        )}
        <div className="mt-4 max-h-[55vh] overflow-y-auto border border-line p-4">
          <h3 className="mb-3 font-serif text-xl font-semibold">
            {text.title === '' ? <span className="text-madder">No title yet</span> : text.title}
          </h3>
          <Prose html={text.html} reading />
        </div>
      </Dialog>
      <Receipt receipt={receipt} onClose={() => onReceipt(null)} />
    </footer>
  );
}

/** One's own due time, or the common one; once that has passed, the end of the late window. */
function dueOf({ own, dates, handInIsLate }: ExchangeView): string | null {
  if (handInIsLate && own?.draftsDue == null) return dates.lateUntil;
  return own?.draftsDue ?? dates.draftsDue;
}

/** Whether there is anything newer than what was handed in: unsent, sent since the page was loaded, or from before. */
function hasChanged(draft: MyDraftView, saveKey: string, saving: SavingState): boolean {
  const sentSince = saveQueue.revision(saveKey, draft.revision) !== draft.revision;
  return saving.state !== 'saved' || sentSince || draft.changedSinceHandIn;
}

interface ConfirmProps {
  readonly exchangeId: string;
  readonly saveKey: string;
  readonly revision: number;
  readonly onDone: (version: VersionMeta) => void;
}

function Confirm({ exchangeId, saveKey, revision, onDone }: ConfirmProps) {
  const [handIn, { isLoading }] = useHandInMutation();
  const [problem, setProblem] = useState<Problem | null>(null);
  const [unsent, setUnsent] = useState(false);
  const go = async () => {
    const sent = await saveQueue.flush(saveKey);
    setUnsent(!sent);
    if (!sent) return;
    const result = await handIn({ exchangeId, revision: saveQueue.revision(saveKey, revision) });
    if (result.data !== undefined) onDone(result.data);
    else setProblem(result.error as Problem);
  };
  return (
    <div className="space-y-3">
      {unsent && (
        <Notice tone="waiting" title="Your last changes have not reached the server, so nothing was handed in.">
          They are kept in this browser. Try again when the state at the bottom says they are saved.
        </Notice>
      )}
      {problem !== null && <ProblemNotice error={problem} />}
      <Button look="primary" busy={isLoading} onClick={() => void go()}>
        Hand in
      </Button>
    </div>
  );
}

function Receipt({ receipt, onClose }: { readonly receipt: VersionMeta | null; readonly onClose: () => void }) {
  const exchange = useExchange();
  const { course } = exchange;
  const due = dueOf(exchange);
  const now = useNow();
  return (
    <Dialog open={receipt !== null} onClose={onClose} title="Handed in">
      {receipt !== null && (
        <div className="space-y-3">
          <p className="flex items-center gap-2">
            <StateMark state="done" size={18} /> “{receipt.title}” counts as handed in.
          </p>
          <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
            <dt className="text-ink-soft">Version</dt>
            <dd>{receipt.number}</dd>
            <dt className="text-ink-soft">Handed in</dt>
            <dd>{exactly(Date.parse(receipt.handedInAt), course.timeZone, now)}</dd>
            <dt className="text-ink-soft">Words</dt>
            <dd>{receipt.words}</dd>
            <dt className="text-ink-soft">Digest</dt>
            <dd className="text-sm break-all">SHA-256 {receipt.digest}</dd>
          </dl>
          {due !== null && (
            <p className="text-ink-soft">
              You can replace it until <When at={due} timeZone={course.timeZone} />.
            </p>
          )}
          <Button look="primary" onClick={onClose}>
            Close the receipt
          </Button>
        </div>
      )}
    </Dialog>
  );
}
