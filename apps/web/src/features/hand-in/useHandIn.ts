import type { HandInCheck, HiddenPassage, NameFindView, Problem, VersionMeta } from '@salt-circle/contracts';
import { useEffect, useState } from 'react';
import { problemOf } from '../../app/api.js';
import { saveQueue } from '../../app/store.js';
import { useHandInMutation, useHideFindMutation, useLazyCheckQuery, useShowAgainMutation } from './handInApi.js';

/** Milliseconds until a copy that is still being made is looked at again: it may hold names. */
const LOOK_AGAIN = 1_500;

/** `unsent`: what was typed has not reached the server, so what it would check is not what is on the page. */
export type Looking =
  | { readonly state: 'loading' }
  | { readonly state: 'unsent' }
  | { readonly state: 'checked'; readonly check: HandInCheck };

export interface HandingIn {
  readonly looking: Looking;
  /** Names that were found and are neither taken out nor left on purpose. */
  readonly open: readonly NameFindView[];
  readonly kept: ReadonlySet<string>;
  readonly problem: Problem | null;
  readonly hiding: boolean;
  readonly handing: boolean;
  readonly hide: (find: NameFindView) => void;
  readonly keep: (find: NameFindView) => void;
  readonly showAgain: (passage: HiddenPassage) => void;
  /** @param changes what changed, for the instructor; of a revision */
  readonly handIn: (changes?: string) => void;
}

/** What the server finds in the draft as it is now, and what is done about it. Every look sends first what is unsaved. */
export function useHandIn(exchangeId: string, savePrefix: string, onDone: (version: VersionMeta) => void): HandingIn {
  const [load] = useLazyCheckQuery();
  const [hideFind, hiding] = useHideFindMutation();
  const [bringBack] = useShowAgainMutation();
  const [send, handing] = useHandInMutation();
  const [looking, setLooking] = useState<Looking>({ state: 'loading' });
  const [kept, setKept] = useState<ReadonlySet<string>>(new Set());
  const [problem, setProblem] = useState<Problem | null>(null);
  const [round, setRound] = useState(0);
  const lookAgain = () => setRound((count) => count + 1);

  useEffect(() => {
    let over = false;
    const look = async () => {
      const sent = await saveQueue.flush(savePrefix);
      if (over) return;
      if (!sent) return setLooking({ state: 'unsent' });
      const { data, error } = await load(exchangeId);
      if (over) return;
      if (data !== undefined) setLooking({ state: 'checked', check: data });
      else setProblem(problemOf(error));
    };
    void look();
    return () => {
      over = true;
    };
  }, [exchangeId, load, savePrefix, round]);

  const check = looking.state === 'checked' ? looking.check : null;
  const making = check?.reading.parts.some(({ copy }) => copy?.state === 'waiting') ?? false;
  useEffect(() => {
    if (!making) return;
    const timer = setTimeout(lookAgain, LOOK_AGAIN);
    return () => clearTimeout(timer);
  }, [making, round, check]);

  const open = (check?.finds ?? []).filter(({ removed, key }) => !removed && !kept.has(key));
  const fingerprint = check?.fingerprint ?? '';
  const hide = async ({ key }: NameFindView) => {
    setProblem(null);
    const { data, error } = await hideFind({ exchangeId, fingerprint, key });
    if (data !== undefined) setLooking({ state: 'checked', check: data });
    else setProblem(problemOf(error));
  };
  const showAgain = async ({ partId, start, end }: HiddenPassage) => {
    const { error } = await bringBack({ exchangeId, partId, start, end });
    if (error === undefined) lookAgain();
    else setProblem(problemOf(error));
  };
  const handIn = async (changes: string) => {
    setProblem(null);
    const { data, error } = await send({
      ...{ exchangeId, fingerprint, namesSeen: open.length === 0 },
      ...(changes.trim() !== '' && { changes }),
    });
    if (data !== undefined) return onDone(data);
    setProblem(problemOf(error));
    lookAgain();
  };
  return {
    looking,
    open,
    kept,
    problem,
    hiding: hiding.isLoading,
    handing: handing.isLoading,
    hide: (find) => void hide(find),
    keep: ({ key }) => setKept(new Set([...kept, key])),
    showAgain: (passage) => void showAgain(passage),
    handIn: (changes = '') => void handIn(changes),
  };
}
