import type { Problem } from '@salt-circle/contracts';
import { pairKey, type Pair } from '@salt-circle/core';
import { useEffect, useRef, useState } from 'react';
import { problemOf } from '../../app/api.js';
import { useActByHandMutation, type ActsBody } from './allocationApi.js';
import { afterActs, type Meeting, type Model } from './model.js';
import { effectSentence } from './sentences.js';
import { say } from '../../words/allocation.js';

interface Acts {
  readonly add: (pair: Pair) => void;
  /** Pairs for people whom the rules give nobody; they may be of one's own draft. */
  readonly together: (pairs: readonly Pair[]) => void;
  readonly remove: (pair: Pair) => void;
  readonly move: (from: Pair, to: Pair) => void;
  readonly swap: (a: Pair, b: Pair) => void;
  readonly hold: (pair: Pair) => void;
  readonly keepApart: (pair: Pair) => void;
}

export interface ManualChanges extends Acts {
  readonly busy: boolean;
  /** What the last act did, for eyes and screen readers. */
  readonly said: string;
  readonly problem: Problem | null;
  /** An act that takes away work, and waits for a second yes. */
  readonly asked: { readonly body: ActsBody; readonly problem: Problem } | null;
  readonly confirm: () => void;
  readonly forget: () => void;
  /** After something else was done: what was said is no news any more. */
  readonly quiet: () => void;
}

/** Why a pair cannot be made, in a few words; null when it can. */
export function hindrance(meeting: Meeting): string | null {
  switch (meeting) {
    case 'own':
      return say('ownDraft');
    case 'given':
      return say('hasItAlready');
    case 'apart':
      return say('keptApart');
    case 'free':
      return null;
  }
}

/** Acts by hand on the board, each with what it does to the balance. */
export function useManualChanges(id: string, model: Model, onKeptApart: () => void): ManualChanges {
  const [act, { isLoading, isError }] = useActByHandMutation();
  const [said, setSaid] = useState('');
  const [problem, setProblem] = useState<Problem | null>(null);
  const [asked, setAsked] = useState<ManualChanges['asked']>(null);

  const waiting = useRef<((acts: Acts) => void) | null>(null);

  const go = async (body: ActsBody, what: string) => {
    setProblem(null);
    setSaid(what);
    const answer = await act({ id, ...body });
    if (answer.error === undefined) {
      setAsked(null);
      if (body.forbid !== undefined || body.allow !== undefined) onKeptApart();
      return;
    }
    setSaid('');
    const refused = problemOf(answer.error);
    if (refused.code === 'needs-confirming') setAsked({ body, problem: refused });
    else setProblem(refused);
  };
  const names = ({ reviewerId, draftId }: Pair) =>
    say('andDraftBy', { reviewerName: model.reviewerName(reviewerId), authorName: model.authorName(draftId) });
  const change = (body: ActsBody, what: string) => {
    const after = measuredAfter(model, body);
    void go(body, say('now', { what, effectSentence: effectSentence(model.measures(), after) }));
  };
  /** Only if all that is to be made can be made; otherwise the reason is said. */
  const possible = (pairs: readonly Pair[], leaving: readonly Pair[] = []): boolean => {
    for (const pair of pairs) {
      const meeting = model.meeting(pair);
      const reason =
        meeting === 'given' && leaving.some((one) => pairKey(one) === pairKey(pair)) ? null : hindrance(meeting);
      if (reason === null) continue;
      setSaid(say('notPossible', { names: names(pair), reason }));
      return false;
    }
    return true;
  };
  const acts: Acts = {
    add: (pair) => possible([pair]) && change({ add: [pair] }, say('added', { names: names(pair) })),
    together: (pairs) => change({ add: [...pairs] }, say('addedOf', { pairs: pairs.map(names).join('; ') })),
    remove: (pair) => change({ remove: [pair] }, say('takenAwayOf', { names: names(pair) })),
    move: (from, to) =>
      pairKey(from) !== pairKey(to) &&
      possible([to]) &&
      change({ remove: [from], add: [to] }, say('movedInsteadOf', { names: names(to), names2: names(from) })),
    swap: (a, b) => {
      const first = { reviewerId: a.reviewerId, draftId: b.draftId };
      const second = { reviewerId: b.reviewerId, draftId: a.draftId };
      if (possible([first, second]))
        change(
          { remove: [a, b], add: [first, second] },
          say('swapped', { first: names(first), second: names(second) }),
        );
    },
    hold: (pair) => {
      const held = model.applied.get(pairKey(pair))?.locked === true;
      void go(
        held ? { unlock: [pair] } : { lock: [pair] },
        held ? say('letGoOf', { names: names(pair) }) : say('heldOf', { names: names(pair) }),
      );
    },
    keepApart: (pair) => {
      const apart = model.isApart(pair);
      void go(
        apart ? { allow: [pair] } : { forbid: [pair] },
        apart ? say('allowedAgain', { names: names(pair) }) : say('keptApartFromNowOn', { names: names(pair) }),
      );
    },
  };
  // What is seen is not what is there until the last act has come back. What is pressed meanwhile is done on the board after it.
  const inTurn = (act: (fresh: Acts) => void) => {
    if (isLoading) waiting.current = act;
    else act(acts);
  };
  useEffect(() => {
    if (isLoading || waiting.current === null) return;
    const next = waiting.current;
    waiting.current = null;
    // What was to follow one that was refused was meant for another board.
    if (!isError) next(acts);
  });
  return {
    busy: isLoading,
    said,
    problem,
    asked,
    confirm: () => asked !== null && change({ ...asked.body, confirmed: true }, say('takenAwayWorkIsKept')),
    forget: () => setAsked(null),
    quiet: () => {
      setSaid('');
      setProblem(null);
    },
    add: (pair) => inTurn((fresh) => fresh.add(pair)),
    together: (pairs) => inTurn((fresh) => fresh.together(pairs)),
    remove: (pair) => inTurn((fresh) => fresh.remove(pair)),
    move: (from, to) => inTurn((fresh) => fresh.move(from, to)),
    swap: (a, b) => inTurn((fresh) => fresh.swap(a, b)),
    hold: (pair) => inTurn((fresh) => fresh.hold(pair)),
    keepApart: (pair) => inTurn((fresh) => fresh.keepApart(pair)),
  };
}

function measuredAfter(model: Model, body: ActsBody) {
  return model.measuresOf(afterActs(model.pairs, { add: body.add ?? [], remove: body.remove ?? [] }));
}
