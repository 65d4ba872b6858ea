import type { OutwardFault } from '../../../platform/outward/outward.js';
import { ProblemError } from '../../../platform/problems/problem-error.js';
import { say } from '../../../words/lti.js';

interface Circumstances {
  /** It may have done it all the same. */
  readonly unsure: boolean;
  /** It could not be reached at all. */
  readonly silent: boolean;
  /** It says that what was asked for is not there. */
  readonly missing: boolean;
}

/**
 * A platform was asked and did not do it. `down`: it could not be asked, or says that it cannot now: later perhaps. `no`: it says no. `odd`: its
 * answer is not what the standard says.
 */
export class LtiFault extends Error implements Circumstances {
  override readonly name = 'LtiFault';
  readonly unsure: boolean;
  readonly silent: boolean;
  readonly missing: boolean;

  constructor(
    readonly kind: 'down' | 'no' | 'odd',
    /** For people. */
    readonly sentence: string,
    { unsure = false, silent = false, missing = false }: Partial<Circumstances> = {},
  ) {
    super(sentence);
    this.unsure = unsure;
    this.silent = silent;
    this.missing = missing;
  }

  asProblem(): ProblemError {
    return new ProblemError({
      code: this.kind === 'down' ? 'platform-silent' : 'platform-wrong',
      sentence: this.sentence,
      whatToDo: this.kind === 'down' ? say('nothingHasChangedTryAgain') : say('nothingHasChangedWhoeverRuns'),
    });
  }
}

const OUTWARD = {
  closed: ['no', 'isAtAddressThatThis'],
  none: ['down', 'cannotBeReached'],
  slow: ['down', 'didNotAnswerInTime'],
  large: ['odd', 'answeredWithMoreThanIs'],
  moved: ['odd', 'sentUsOnToAnother'],
} as const satisfies Record<OutwardFault, readonly [kind: LtiFault['kind'], sentence: string]>;

export function outwardFault(platform: string, host: string, fault: OutwardFault): LtiFault {
  const [kind, sentence] = OUTWARD[fault];
  const silent = kind === 'down';
  // Too large an answer is one: it may have been given to something that was done.
  return new LtiFault(kind, say(sentence, { platform, host }), { silent, unsure: silent || fault === 'large' });
}

/** What a platform says in its own words, as far as they can be shown. */
export function wordsIn(text: string): string | null {
  const plain = fromJson(text) ?? (text.trimStart().startsWith('<') ? '' : text);
  const clean = plain.replace(/[\p{C}\s]+/gu, ' ').trim();
  return clean === '' ? null : clean.slice(0, 300);
}

function fromJson(text: string): string | null {
  try {
    const body = JSON.parse(text) as unknown;
    if (typeof body !== 'object' || body === null) return String(body);
    const { error_description: described, message, error } = body as Record<string, unknown>;
    return [described, message, error].find((one) => typeof one === 'string') ?? null;
  } catch {
    return null;
  }
}

/** @param status of HTTP, 400 or more */
export function refusedWith(platform: string, status: number, text: string): LtiFault {
  const words = wordsIn(text) ?? 'none';
  if (status >= 500)
    return new LtiFault('down', say('hasFaultOfItsOwn', { platform, status, words }), { unsure: true });
  if (status === 429) return new LtiFault('down', say('asksUsToWait429', { platform, words }));
  if (status === 404) return new LtiFault('no', say('saysThatItIsNot', { platform, words }), { missing: true });
  return new LtiFault('no', say('refused', { platform, status, words }));
}
