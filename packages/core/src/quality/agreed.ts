import { say } from '../words/form.js';
import type { Answers, FormItem, ReviewForm } from '../form/form.js';
import { levelShares } from './flags.js';

/** An item on which all reviews of a draft say the same, or on which they are far apart. */
export interface AgreedItem {
  readonly itemId: string;
  readonly title: string;
  /** Of those that answered it. */
  readonly reviews: number;
  /** What they say, from the lowest to the highest; one where all agree. */
  readonly words: readonly string[];
}

export interface Agreed {
  readonly agree: readonly AgreedItem[];
  readonly differ: readonly AgreedItem[];
}

/** From half of the scale on, two readers have seen two different drafts. Ours. */
const FAR = 0.5;

/**
 * What the reviews of one draft agree on, and where they differ by half of the scale or more; items that fewer than two answered, or that have
 * no scale, are in neither. In the order of the form.
 */
export function agreedOn({ items }: Pick<ReviewForm, 'items'>, reviews: readonly Answers[]): Agreed {
  const agree: AgreedItem[] = [];
  const differ: AgreedItem[] = [];
  const shares = reviews.map((answers) => levelShares({ items }, answers));
  for (const item of items) {
    const given = reviews
      .flatMap((answers, index) => {
        const share = shares[index]?.[item.id];
        return share === undefined ? [] : [{ share, words: levelWords(item, answers) }];
      })
      .sort((a, b) => a.share - b.share);
    const [low, high] = [given[0], given.at(-1)];
    if (low === undefined || high === undefined || given.length < 2) continue;
    const one = { itemId: item.id, title: item.title, reviews: given.length };
    if (given.every(({ words }) => words === low.words)) agree.push({ ...one, words: [low.words] });
    else if (high.share - low.share >= FAR) differ.push({ ...one, words: [low.words, high.words] });
  }
  return { agree, differ };
}

function levelWords(item: FormItem, answers: Answers): string {
  const answer = answers[item.id];
  if (item.kind === 'criterion') return item.levels.find(({ id }) => id === answer?.levelId)?.title ?? '';
  if (answer?.value != null) return String(answer.value);
  const count = Object.values(answer?.checks ?? {}).filter((check) => check === 'yes').length;
  return say('yesCount', { count });
}
