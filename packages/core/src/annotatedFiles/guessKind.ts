import { KIND_NAMES, type AnnotatedKind } from './annotatedDraft.js';

/** What somebody wrote beside a passage, and what it is probably for. */
export interface Guessed {
  readonly kind: AnnotatedKind;
  /** Without a kind that the words begin with. */
  readonly body: string;
}

/** Words of praise without a wish beside them. English; elsewhere the guess is `change`, and can be changed. */
const PRAISE =
  /\b(?:nice|good|great|excellent|well (?:done|put|said|written)|lovely|beautiful(?:ly)?|clear(?:ly)?|strong|convincing|i (?:really )?(?:like|love|enjoyed)|keep (?:this|it|that)|works (?:well|for me))\b/i;
const WISH =
  /\b(?:but|however|should|could|would|please|add|remove|delete|cut|more|less|instead|rather|needs?|missing|unclear|not|n[’']t)\b/i;
/** Slips of the pen, which are mended rather than thought about. */
const SLIP =
  /\b(?:typos?|spelling|misspell?ed|commas?|full stop|punctuation|grammar|tense|plural|capital(?:s| letter)?|hyphen|apostrophe|double space)\b/i;

/**
 * Guesses from its words what a note is for: the kind that it is called by, a question, praise, a slip, else a change. Ours, tried on the
 * sentences of its test; whoever brings notes in sees the guess and changes it.
 *
 * @param edits a change of the passage goes with it: that is no question and no praise
 */
export function guessKind(words: string, edits = false): Guessed {
  const named = beginsWithKind().exec(words);
  const body = words.trim();
  if (named !== null) {
    const kind = kindCalled(named[1] as string);
    const rest = words.slice(named[0].length).trim();
    if (!edits || kind === 'change' || kind === 'fix') return { kind, body: rest };
  }
  if (SLIP.test(body)) return { kind: 'fix', body };
  if (edits) return { kind: body === '' ? 'fix' : 'change', body };
  if (/\?["”’)\s]*$/.test(body)) return { kind: 'ask', body };
  if (PRAISE.test(body) && !WISH.test(body)) return { kind: 'keep', body };
  return { kind: 'change', body };
}

/** A kind of note at the beginning, as it is called in the language spoken. */
function beginsWithKind(): RegExp {
  return new RegExp(`^\\s*(${Object.values(KIND_NAMES).join('|')})\\b\\s*(?:[:.–—-]\\s*|\\n|$)`, 'i');
}

function kindCalled(name: string): AnnotatedKind {
  const found = Object.entries(KIND_NAMES).find(([, known]) => known.toLowerCase() === name.toLowerCase());
  return (found as [AnnotatedKind, string])[0];
}
