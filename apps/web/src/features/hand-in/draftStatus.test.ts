import type { VersionMeta } from '@salt-circle/contracts';
import { draftStatus } from './draftStatus.js';

const version = (number: number): VersionMeta => ({
  number,
  title: 'T',
  words: 9,
  digest: 'x',
  handedInAt: '2026-03-05T00:00:00Z',
  handedInBy: null,
  late: null,
  withdrawn: false,
  purpose: 'draft',
  changes: '',
  parts: [],
});
const none = { id: null, versions: [] };
const saved = { id: 'd', versions: [] };
const twice = { id: 'd', versions: [version(1), version(2)] };

describe('whether a draft counts', () => {
  it('is loudly denied before handing in, whether or not something is saved', () => {
    expect(draftStatus(none, false, true)).toMatchObject({ mark: 'not-begun', words: 'Not handed in yet', loud: true });
    expect(draftStatus(saved, false, true)).toMatchObject({
      mark: 'in-progress',
      words: 'Not handed in yet',
      loud: true,
    });
    // Never claims that it is saved: the saved state beside it says so, or says why not.
    expect(draftStatus(saved, true, true).explained).not.toMatch(/saved/);
    // Typed a moment ago, not even saved.
    expect(draftStatus(none, true, true).mark).toBe('in-progress');
  });

  it('is said plainly once handed in, with the version', () => {
    expect(draftStatus(twice, false, true)).toMatchObject({ mark: 'done', words: 'Handed in, version 2', loud: false });
    expect(draftStatus(twice, false, true).explained).toContain('hand in again until drafts are due');
    expect(draftStatus(twice, false, false).explained).toBe('This is what reviewers read.');
  });

  it('warns while what is on the page is not what counts', () => {
    expect(draftStatus(twice, true, true)).toMatchObject({ mark: 'in-progress', loud: true });
    expect(draftStatus(twice, true, true).explained).toContain('The earlier version counts');
    const late = draftStatus(twice, true, false);
    expect(late.loud).toBe(false);
    expect(late.explained).toContain('version 2 counts');
  });

  it('goes by the last version that was not taken back', () => {
    const back = (number: number) => ({ ...version(number), withdrawn: true });
    expect(draftStatus({ id: 'd', versions: [version(1), back(2)] }, false, true).words).toBe('Handed in, version 1');
    expect(draftStatus({ id: 'd', versions: [back(1)] }, false, true).words).toBe('Not handed in yet');
  });

  it('tells after the due time what is kept, and whom to ask', () => {
    const late = draftStatus(saved, false, false);
    expect(late).toMatchObject({ mark: 'late', words: 'Not handed in', loud: true });
    expect(late.explained).toMatch(/kept and can be read; ask your instructor/);
  });
});
