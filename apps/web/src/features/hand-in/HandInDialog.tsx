import type { HandInCheck, HiddenPassage, NameFindView, Problem, VersionMeta } from '@salt-circle/contracts';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Button, Checkbox, Loading, Notice } from '../../kit/index.js';
import { problemOf } from '../../app/api.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { saveQueue } from '../../app/store.js';
import { useExchange } from '../../app/useExchange.js';
import { DraftText } from '../../app/reading/DraftText.js';
import type { Passage } from '../../app/reading/passages.js';
import { ReadingParts } from '../../app/viewing/ReadingParts.js';
import { findPassages } from './findPassages.js';
import { useHandInMutation, useHideFindMutation, useLazyCheckQuery, useShowAgainMutation } from './handInApi.js';
import { lateInWords } from '../../app/settingWords.js';
import { NameFinds } from './NameFinds.js';

export interface HandInDialogProps {
  /** Nothing can be handed in from here. */
  readonly lookOnly: boolean;
  readonly savePrefix: string;
  readonly onDone: (version: VersionMeta) => void;
}

const NO_PASSAGES: readonly Passage[] = [];
/** Nothing stands beside the text here. */
const ignored = () => {};

/** The last look: what is missing, what it costs, what may tell a name, and what reviewers will see. */
export function HandInDialog({ lookOnly, savePrefix, onDone }: HandInDialogProps) {
  const exchange = useExchange();
  const [load] = useLazyCheckQuery();
  const [hideFind, hiding] = useHideFindMutation();
  const [handIn, handing] = useHandInMutation();
  const [check, setCheck] = useState<HandInCheck | null>(null);
  const [kept, setKept] = useState<ReadonlySet<string>>(new Set());
  const [lateSeen, setLateSeen] = useState(false);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [unsent, setUnsent] = useState(false);
  const [round, setRound] = useState(0);
  const [shown, setShown] = useState<NameFindView | null>(null);
  const [partId, setPartId] = useState<string | null>(null);
  const [showAgain] = useShowAgainMutation();
  const preview = useRef<HTMLDivElement>(null);
  const passages = useMemo(() => findPassages(check?.finds ?? []), [check?.finds]);
  useEffect(() => {
    if (shown === null) return;
    const mark = preview.current?.querySelector(`mark[data-note="${shown.key}"]`);
    (mark ?? preview.current)?.scrollIntoView({ block: 'center' });
  }, [shown, partId]);

  useEffect(() => {
    let over = false;
    const look = async () => {
      const sent = await saveQueue.flush(savePrefix);
      if (over) return;
      setUnsent(!sent);
      if (!sent) return;
      const result = await load(exchange.id);
      if (over) return;
      if (result.data !== undefined) setCheck(result.data);
      else setProblem(problemOf(result.error));
    };
    void look();
    return () => {
      over = true;
    };
  }, [exchange.id, load, savePrefix, round]);

  // A copy that is still being made may hold names: looked at again until it is there.
  const making = check?.reading.parts.some(({ copy }) => copy?.state === 'waiting') ?? false;
  useEffect(() => {
    if (!making) return;
    const timer = setTimeout(() => setRound((count) => count + 1), 1_500);
    return () => clearTimeout(timer);
  }, [making, round, check]);

  if (unsent) {
    return (
      <Notice tone="waiting" title="Your last changes have not reached the server, so nothing can be handed in yet.">
        They are kept in this browser. Close this, and try again when the state at the bottom says they are saved.
      </Notice>
    );
  }
  if (check === null)
    return problem === null ? (
      <Loading what="your draft as reviewers will see it" />
    ) : (
      <ProblemNotice error={problem} />
    );

  const open = check.finds.filter(({ removed, key }) => !removed && !kept.has(key));
  const hide = async (find: NameFindView) => {
    setProblem(null);
    const result = await hideFind({ exchangeId: exchange.id, fingerprint: check.fingerprint, key: find.key });
    if (result.data !== undefined) setCheck(result.data);
    else setProblem(result.error as Problem);
  };
  const again = async ({ partId: of, start, end }: HiddenPassage) => {
    const result = await showAgain({ exchangeId: exchange.id, partId: of, start, end });
    if (result.error === undefined) setRound((count) => count + 1);
    else setProblem(result.error as Problem);
  };
  const go = async () => {
    setProblem(null);
    const { fingerprint } = check;
    const result = await handIn({ exchangeId: exchange.id, fingerprint, namesSeen: open.length === 0 });
    if (result.data !== undefined) return onDone(result.data);
    setProblem(result.error as Problem);
    setRound((count) => count + 1);
  };
  const complete = check.problems.length === 0;
  return (
    <div className="space-y-4">
      {!complete && (
        <Notice tone={lookOnly ? 'waiting' : 'problem'} title="This cannot be handed in yet.">
          <ul>
            {check.problems.map(({ path, sentence }) => (
              <li key={path}>{sentence}</li>
            ))}
          </ul>
        </Notice>
      )}
      {check.remarks.map((remark) => (
        <Notice key={remark} tone="waiting">
          {remark}
        </Notice>
      ))}
      {(check.finds.length > 0 || check.hidden.length > 0) && (
        <NameFinds
          finds={check.finds}
          hidden={check.hidden}
          kept={kept}
          busy={hiding.isLoading}
          onHide={(find) => void hide(find)}
          onKeep={(find) => setKept(new Set([...kept, find.key]))}
          onShow={(find) => {
            setShown(find);
            if (find.partId !== null) setPartId(find.partId);
          }}
          onShowAgain={(passage) => void again(passage)}
        />
      )}
      {check.late !== null && !lookOnly && (
        <Notice tone="soon" title={lateInWords(check.late)}>
          <Checkbox
            label="I know, and hand in late"
            checked={lateSeen}
            onChange={({ target }) => setLateSeen(target.checked)}
          />
        </Notice>
      )}
      {problem !== null && <ProblemNotice error={problem} />}
      {!lookOnly && (
        <div className="flex flex-wrap items-center gap-3">
          <Button
            look="primary"
            busy={handing.isLoading}
            disabled={!complete || open.length > 0 || (check.late !== null && !lateSeen)}
            onClick={() => void go()}
          >
            Hand in
          </Button>
          {open.length > 0 && (
            <span className="text-sm text-ink-soft">
              {open.length === 1 ? 'One place above is' : `${open.length} places above are`} still to be decided.
            </span>
          )}
        </div>
      )}
      <div ref={preview} className="max-h-[55vh] overflow-y-auto border border-line p-4">
        <h3 className="mb-3 font-serif text-xl font-semibold">
          {check.reading.title === '' ? <span className="text-madder">No title yet</span> : check.reading.title}
        </h3>
        <ReadingParts
          reading={check.reading}
          exchangeId={exchange.id}
          partId={partId}
          onPart={setPartId}
          renderText={(html, { id }) => (
            <DraftText
              html={html}
              passages={passages.get(id) ?? NO_PASSAGES}
              activeId={shown?.key ?? null}
              onActivate={() => {}}
              onLayout={ignored}
            />
          )}
        />
      </div>
    </div>
  );
}
