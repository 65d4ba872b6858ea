import { countWords, type Answer, type FormItem, type Missing } from '@salt-circle/core';

/** What is still asked for here, in a few words at the right of the title. */
export function itemState(
  item: FormItem,
  answer: Answer | undefined,
  missing: readonly Missing[],
): readonly [string, string] {
  const words = missing.find(({ what }) => what === 'words' || what === 'text');
  if (words !== undefined && item.kind === 'prompt' && item.minimumWords > 0)
    return [`${words.have} of ${words.need} words`, 'text-copper'];
  if (missing.length > 0) return [missing[0]?.what === 'comment' ? 'say why' : 'not answered', 'text-copper'];
  const text = answer?.text ?? '';
  if (item.kind === 'prompt') {
    const count = countWords(text);
    if (count === 0) return [item.required ? '' : 'may be left out', 'text-ink-soft'];
    return [count === 1 ? '1 word' : `${count} words`, 'text-kelp'];
  }
  return answer?.levelId == null ? ['may be left out', 'text-ink-soft'] : ['done', 'text-kelp'];
}

/** What is missing, as the end of “Missing: …”. */
export function missingWords(missing: Missing, items: readonly FormItem[]): string {
  const title = items.find(({ id }) => id === missing.itemId)?.title ?? '';
  switch (missing.what) {
    case 'words':
      return `${missing.need - missing.have} more words in “${title}”`;
    case 'comment':
      return `a reason in “${title}”`;
    default:
      return `“${title}”`;
  }
}
