import type { ReviewNamesView } from '@salt-circle/contracts';
import { namesWords } from './namesWords.js';

type Policy = ReviewNamesView['policy'];
const hit = (exact: string, own = false) => ({ itemId: null, noteId: 'n', exact, own });
const found = (policy: Policy, names: ReviewNamesView['names'], searched: ReviewNamesView['searched'] = 'all') =>
  namesWords({ policy, searched, unread: 0, names }, false);

describe('what is told of names before submitting', () => {
  it('says that nothing was found only where it was looked for', () => {
    expect(found('both-ways', [])).toBe('Neither your name nor an address or a student number was found in it.');
    expect(found('both-ways', [], 'beginning')).toMatch(/found in it\. It is very long: only the beginning/);
    const others = [namesWords(undefined, false), found('open', [], 'none')];
    others.push(namesWords({ policy: 'both-ways', searched: 'none', unread: 0, names: [] }, true));
    for (const words of others) expect(words).not.toMatch(/found/);
  });

  it('says what was not looked through', () => {
    const words = namesWords({ policy: 'both-ways', searched: 'all', unread: 2, names: [] }, false);
    expect(words).toMatch(/found in it\. 2 attached files were not looked through/);
  });

  it('says what is hidden here, and once each what gives it away', () => {
    const names = [hit('Cho'), hit('Ben Kiss', true), hit('Cho')];
    expect(found('both-ways', names)).toBe(
      'You wrote “Cho”, “Ben Kiss”. The author could tell from it who you are. Names are hidden in this exchange.',
    );
    expect(found('reviewers-only', [hit('Cho')])).toBe(
      'You wrote “Cho”. That may tell who somebody is. The author is not told who reviewed the draft.',
    );
  });

  it('takes the own name for nothing where authors are told who reviews them', () => {
    expect(found('authors-only', [hit('Ben Kiss', true)])).toBe('No address or student number was found in it.');
    expect(found('authors-only', [hit('Ben Kiss', true), hit('Cho')])).toMatch(
      /You wrote “Cho”\. .* Reviewers are not told/,
    );
  });
});
