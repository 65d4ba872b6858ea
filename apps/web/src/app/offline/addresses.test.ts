import type { DeskView, PartView } from '@salt-circle/contracts';
import { addressesOf } from './addresses.js';

const part = (id: string, more: Partial<PartView>) =>
  ({ id, copy: null, html: null, captions: false, ...more }) as PartView;
const ready = { state: 'ready', progress: 1, problem: null } as const;
const desk = (...parts: PartView[]) =>
  ({
    id: 'r',
    exchange: { id: 'x' },
    draft: { draftId: 'd', parts },
    files: [],
    practice: null,
  }) as unknown as DeskView;
const AT = '/api/exchanges/x/drafts/d/parts';

describe('what is kept of a review', () => {
  it('is the desk, its copies, its captions, and the pictures of its texts, each once', () => {
    const picture = `<p>Here: <img alt="a" src="${AT}/t/pictures/1"><img src="${AT}/t/pictures/1"></p>`;
    const all = addressesOf(
      desk(
        part('t', { html: picture }),
        part('p', { copy: ready }),
        part('v', { copy: ready, captions: true }),
        part('w', { copy: { state: 'waiting', progress: 0, problem: null } }),
        part('l', {}),
      ),
    );
    expect(all).toEqual([
      '/api/session',
      '/api/reviews/r',
      '/api/exchanges/x',
      '/api/own-remarks',
      `${AT}/t/pictures/1`,
      `${AT}/p/copy`,
      `${AT}/v/copy`,
      `${AT}/v/captions`,
    ]);
  });

  it('is what is attached to notes and answers too; in practice, of the exchange that is practised for', () => {
    const files = [
      { id: 'a', family: 'document' },
      { id: 'b', family: 'audio' },
    ];
    const practice = { id: 'x', forId: 'y', key: false };
    expect(addressesOf({ ...desk(), files, practice } as unknown as DeskView)).toEqual([
      ...['/api/session', '/api/reviews/r', '/api/exchanges/y', '/api/own-remarks'],
      ...['/api/reviews/r/files/a', '/api/reviews/r/files/b', '/api/reviews/r/files/b/copy'],
    ]);
  });

  it('is nothing of other servers, whatever a text says', () => {
    const html = '<img src="https://elsewhere.example/x.png"><img src="data:image/png;base64,AA">';
    expect(addressesOf(desk(part('t', { html })))).toHaveLength(4);
  });
});
