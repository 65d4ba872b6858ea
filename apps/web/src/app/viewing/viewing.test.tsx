import type { DraftReading, PartView } from '@salt-circle/contracts';
import { compareTexts } from '@salt-circle/core';
import { act, fireEvent, render, screen, within } from '@testing-library/react';
import { Compare } from './Compare.js';
import { HtmlPart } from './HtmlPart.js';
import { MediaPart } from './MediaPart.js';
import { partWords } from './partWords.js';
import { ReadingParts } from './ReadingParts.js';
import { bytesInWords, secondsInWords } from './sizes.js';

globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
};

const PART: PartView = {
  id: 'a',
  deliverableId: 'text',
  deliverable: 'Report',
  kind: 'text',
  show: 'html',
  name: '',
  html: '<p>The bed rose.</p>',
  url: '',
  title: '',
  about: '',
  words: 3,
  size: null,
  digest: null,
  copy: null,
  facts: {},
  captions: false,
  original: false,
};
const file = (part: Partial<PartView>): PartView => ({
  ...PART,
  kind: 'file',
  deliverableId: 'files',
  deliverable: 'Files',
  html: null,
  words: 0,
  copy: { state: 'ready', progress: 1, problem: null },
  ...part,
});
const reading = (parts: readonly PartView[], part: Partial<DraftReading> = {}): DraftReading => ({
  draftId: 'd',
  title: 'T',
  context: '',
  words: 3,
  version: 1,
  parts,
  ...part,
});

describe('sizes and lengths', () => {
  it('are told in words, in steps of a thousand', () => {
    expect([0, 999, 1_000, 12_400, 999_999, 3_400_000].map(bytesInWords)).toEqual([
      '0 B',
      '999 B',
      '1 kB',
      '12 kB',
      '1000 kB',
      '3.4 MB',
    ]);
    expect([0, 42.4, 60, 3_600, 3_683].map(secondsInWords)).toEqual(['0:00', '0:42', '1:00', '1:00:00', '1:01:23']);
  });

  it('of a part are those that its kind has', () => {
    expect(partWords(PART)).toBe('3 words');
    expect(partWords(file({ show: 'pdf', facts: { pages: 1, words: 400 }, size: 5_000 }))).toBe('1 page, 5 kB');
    expect(partWords(file({ show: 'picture', facts: { width: 900, height: 560 } }))).toBe('900 × 560');
    expect(partWords(file({ show: 'sound', facts: { seconds: 65 } }))).toBe('1:05');
    expect(partWords(file({ show: 'link' }))).toBe('');
  });
});

describe('the parts of a draft', () => {
  it('show the only one without a choice, and what the author says to reviewers', () => {
    render(<ReadingParts reading={reading([PART], { context: 'Is the order right?' })} exchangeId="x" />);
    expect(screen.getByText('The bed rose.').tagName).toBe('P');
    expect(screen.getByText('Is the order right?')).toBeTruthy();
    expect(screen.queryByRole('group')).toBeNull();
  });

  it('are chosen by name, numbered where a deliverable has several', () => {
    const parts = [
      PART,
      file({ id: 'b', show: 'picture', name: 'Files 1.png', facts: { width: 9, height: 9 } }),
      file({ id: 'c', show: 'video', name: 'Files 2.mp4' }),
      {
        ...PART,
        id: 'l',
        deliverableId: 'map',
        kind: 'link' as const,
        show: 'link' as const,
        title: 'Map',
        url: 'https://example.org/map',
        about: 'Two gauges.',
      },
    ];
    render(<ReadingParts reading={reading(parts)} exchangeId="x" />);
    const choice = within(screen.getByRole('group', { name: 'Parts of this draft' }));
    expect(choice.getAllByRole('button').map((one) => one.textContent)).toEqual([
      'Report 3 words',
      'Files 1 9 × 9',
      'Files 2 ',
      'Map ',
    ]);
    fireEvent.click(choice.getByRole('button', { name: /^Files 1/ }));
    expect(screen.getByRole('img').getAttribute('src')).toBe('/api/exchanges/x/drafts/d/parts/b/copy');
    fireEvent.click(choice.getByRole('button', { name: /^Map/ }));
    const link = screen.getByRole('link', { name: 'Map' });
    expect([link.getAttribute('href'), link.getAttribute('target'), link.getAttribute('rel')]).toEqual([
      'https://example.org/map',
      '_blank',
      'noopener noreferrer',
    ]);
    expect(screen.getByText('Two gauges.')).toBeTruthy();
  });

  it('give the text in which passages are marked to those who mark them', () => {
    const marked = jest.fn(({ html }: PartView) => <p>marked {html?.length}</p>);
    render(<ReadingParts reading={reading([PART])} exchangeId="x" renderPart={marked} />);
    expect(marked).toHaveBeenCalledWith(PART, '/api/exchanges/x/drafts/d/parts/a');
    expect(screen.getByText('marked 20')).toBeTruthy();
  });

  it('say that a copy is being made, how far it is, and why one could not be', () => {
    const copy = { state: 'waiting' as const, progress: 0.42, problem: null };
    const { rerender } = render(<ReadingParts reading={reading([file({ show: 'pdf', copy })])} exchangeId="x" />);
    expect(screen.getByRole('status').textContent).toBe('A copy to read is being made, 42%…');
    const failed = { state: 'failed' as const, progress: 0, problem: 'It took too long.' };
    rerender(<ReadingParts reading={reading([file({ show: 'pdf', copy: failed })])} exchangeId="x" />);
    expect(screen.getByRole('alert').textContent).toContain('It took too long.');
  });

  it('say so when there are none', () => {
    render(<ReadingParts reading={reading([])} exchangeId="x" />);
    expect(screen.getByText('There is nothing in it.')).toBeTruthy();
  });
});

describe('a text to read', () => {
  const long =
    '<h1>Basin</h1><p>a</p><h2>Method</h2><p>b</p><h3>Costs</h3><p>c<sup><a href="#fn-1">1</a></sup></p><ol><li data-anchor="fn-1">Read.</li></ol>';

  it('has an outline that leads to its headings, when there are enough', () => {
    const seen = jest.fn();
    Element.prototype.scrollIntoView = seen;
    const { rerender } = render(<HtmlPart html={long} />);
    fireEvent.click(screen.getByText('Outline, 3 headings'));
    fireEvent.click(screen.getByRole('button', { name: 'Method' }));
    expect((seen.mock.contexts[0] as Element).tagName).toBe('H2');
    rerender(<HtmlPart html="<h1>Basin</h1><p>a</p>" />);
    expect(screen.queryByText(/^Outline/)).toBeNull();
  });

  it('leads from a number to its footnote, within the text', () => {
    const seen = jest.fn();
    Element.prototype.scrollIntoView = seen;
    Object.assign(globalThis, { CSS: { escape: (name: string) => name } });
    render(<HtmlPart html={long} />);
    fireEvent.click(screen.getByRole('link', { name: '1' }));
    expect((seen.mock.contexts[0] as Element).textContent).toBe('Read.');
  });

  it('shows pictures of drafts of this server, and no others', () => {
    const own = `/api/exchanges/x/drafts/d/pictures/${'a'.repeat(64)}`;
    const { container } = render(
      <HtmlPart
        html={`<p><img src="${own}" alt="A"><img src="https://evil.example/x.png"><img src="data:image/png;base64,x"></p>`}
      />,
    );
    expect([...container.querySelectorAll('img')].map((one) => one.getAttribute('src'))).toEqual([own]);
  });
});

describe('a recording', () => {
  it('plays at the chosen speed, goes back, and has its captions', () => {
    const { container } = render(<MediaPart kind="video" address="/copy" captions="/captions" name="Talk" />);
    const video = container.querySelector('video') as HTMLVideoElement;
    fireEvent.click(screen.getByRole('button', { name: '1.5×' }));
    expect([video.playbackRate, screen.getByRole('button', { name: '1.5×' }).getAttribute('aria-pressed')]).toEqual([
      1.5,
      'true',
    ]);
    video.currentTime = 25;
    fireEvent.click(screen.getByRole('button', { name: 'Back 10 s' }));
    expect(video.currentTime).toBe(15);
    expect(container.querySelector('track')?.getAttribute('src')).toBe('/captions');
    fireEvent.error(video);
    expect(screen.getByText(/This browser cannot play it/)).toBeTruthy();
  });
});

/** In the place of the browser's workers: compares at once, or never. */
class TestWorker {
  static stuck = false;
  static ended = 0;
  onmessage: ((event: { data: unknown }) => void) | null = null;
  postMessage([before, after]: [string, string]) {
    if (!TestWorker.stuck) queueMicrotask(() => this.onmessage?.({ data: compareTexts(before, after) }));
  }
  terminate() {
    TestWorker.ended += 1;
  }
}

describe('two versions side by side', () => {
  beforeEach(() => {
    Object.assign(globalThis, { Worker: TestWorker });
    TestWorker.stuck = false;
    TestWorker.ended = 0;
  });
  afterEach(() => jest.useRealTimers());

  it('differ word by word', async () => {
    const { container } = render(<Compare before="The bed rose by four." after="The whole bed rose by five." />);
    expect(await screen.findByText(/^3 passages differ\./)).toBeTruthy();
    const marked = (tag: string) =>
      [...container.querySelectorAll(`.prose-reading ${tag}`)].map((one) => one.textContent);
    expect([marked('del'), marked('ins').map((words) => words?.trim())]).toEqual([['four'], ['whole', 'five']]);
  });

  it('are said to be the same when they are', async () => {
    render(<Compare before="The bed rose." after="The bed rose." />);
    expect(await screen.findByText(/^The words are the same\./)).toBeTruthy();
  });

  it('are compared beside the page, which waits for it, and not for ever', async () => {
    jest.useFakeTimers();
    TestWorker.stuck = true;
    const { rerender, unmount } = render(<Compare before="a" after="b" />);
    expect(screen.getByText(/^Loading the comparison/)).toBeTruthy();
    rerender(<Compare before="a" after="c" />);
    expect(TestWorker.ended).toBe(1);
    await act(() => jest.advanceTimersByTimeAsync(10_000));
    expect(screen.getByText(/too long to be compared/)).toBeTruthy();
    unmount();
  });
});
