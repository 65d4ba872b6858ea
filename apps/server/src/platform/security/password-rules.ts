import { LIMITS } from '@salt-circle/contracts';
import { ProblemError } from '../problems/problem-error.js';
import { say } from '../../words/security.js';

/** What is known of the one who chooses: names and addresses, and of the place. */
export type OwnWords = ReadonlyArray<string | null>;

/** A word of the person’s own that is shorter says nothing. */
const LONG_ENOUGH = 4;
/** What is left beside own words and digits must be at least so long. */
const OWN_PART = 4;

let common: Promise<ReadonlySet<string>> | null = null;

/** The 30,000 and more most common ones, from a list that is kept up (zxcvbn-ts), of the length that is asked for. */
async function commonOnes(): Promise<ReadonlySet<string>> {
  const { dictionary } = await import('@zxcvbn-ts/language-common');
  const words: readonly (string | number)[] = dictionary['passwords-common'];
  return new Set(words.map(String));
}

/**
 * After NIST SP 800-63B, section 5.1.1.2: compared with common ones, repetitions and words of the context (the person's own, the
 * service's); no rules about kinds of signs.
 *
 * @throws ProblemError `password-weak`, with what to do
 */
export async function assertGoodPassword(password: string, own: OwnWords): Promise<void> {
  const plain = plainOf(password);
  const most = [...password].length;
  if (most < LIMITS.passwordMin) {
    throw weak(say('tooShort', { length: most, least: LIMITS.passwordMin }));
  }
  const list = await (common ??= commonOnes());
  if (list.has(plain) || list.has(withoutTail(plain)) || /^(.{1,4})\1+.?$/u.test(plain)) {
    throw weak(say('tooCommon'));
  }
  if (ownPart(plain, own).length < OWN_PART) throw weak(say('ownWords'));
}

function plainOf(text: string): string {
  return text.normalize('NFKC').toLowerCase();
}

/** Digits and signs at the end make a common password no better. */
function withoutTail(text: string): string {
  // regex: a password is no longer than LIMITS.passwordMax
  return text.replace(/[\d\p{P}\p{S}]+$/u, '');
}

/** What is left when the person's own words are taken out, and what stands between them. */
function ownPart(plain: string, own: OwnWords): string {
  const words = [...own, 'salt circle saltcircle']
    .flatMap((text) => plainOf(text ?? '').split(/[^\p{L}\p{N}]+/u))
    .filter((word) => word.length >= LONG_ENOUGH)
    .sort((a, b) => b.length - a.length);
  return words.reduce((left, word) => left.replaceAll(word, ''), plain).replace(/[\d\p{P}\p{S}\s]+/gu, '');
}

function weak(sentence: string): ProblemError {
  return new ProblemError({
    code: 'password-weak',
    sentence,
    whatToDo: say('chooseAnother'),
    fields: [{ path: 'password', code: 'password-weak', sentence }],
  });
}
