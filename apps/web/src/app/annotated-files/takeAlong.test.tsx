import type { DraftReading } from '@salt-circle/contracts';
import { act, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { Tabs } from '../../kit/index.js';
import { fileNameOf } from '../saveAs.js';
import { usePrinting } from '../usePrinting.js';
import { TakeAlong } from './TakeAlong.js';

const parts = [
  { id: 'p1', name: '', deliverable: 'Report', show: 'html' },
  { id: 'p2', name: 'Map.pdf', deliverable: 'Figures', show: 'pdf' },
] as unknown as DraftReading['parts'];
const DRAFT = { parts, version: 2 };

const asked: string[] = [];
const saved: string[] = [];

beforeEach(() => {
  asked.length = saved.length = 0;
  jest.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function click(this: HTMLAnchorElement) {
    saved.push(this.download);
  });
  Object.assign(URL, { createObjectURL: () => 'blob:x', revokeObjectURL: () => undefined });
});

const answers = (status: number, body: BodyInit, disposition = '') =>
  jest.spyOn(globalThis, 'fetch').mockImplementation((url) => {
    asked.push(url instanceof Request ? url.url : url.toString());
    return Promise.resolve(new Response(body, { status, headers: { 'content-disposition': disposition } }));
  });

const choose = async (words: string) => {
  fireEvent.keyDown(screen.getByRole('button', { name: 'Download…' }), { key: 'Enter' });
  fireEvent.click(await screen.findByRole('menuitem', { name: words }));
};

describe('taking a draft along', () => {
  it('saves each kind of file under its own name, and offers PDFs of parts that are one', async () => {
    answers(200, 'x', `attachment; filename="On the basin.pdf"; filename*=UTF-8''Nordk%C3%BCste.pdf`);
    render(<TakeAlong base="/reviews/r1" draft={DRAFT} />);
    await choose('Map.pdf with notes (PDF)');
    await waitFor(() => expect(saved).toEqual(['Nordküste.pdf']));
    expect(asked).toEqual(['/api/reviews/r1/parts/p2/notes.pdf']);
    fireEvent.keyDown(screen.getByRole('button', { name: 'Download…' }), { key: 'Enter' });
    expect(screen.queryByRole('menuitem', { name: /^Report with notes/ })).toBeNull();
  });

  it('says why there is no file, and saves nothing', async () => {
    const problem = {
      code: 'unexpected',
      sentence: 'This file is too much to make.',
      whatToDo: 'Print it.',
      fields: [],
    };
    answers(500, JSON.stringify(problem));
    render(<TakeAlong base="/reviews/r1" draft={DRAFT} />);
    await choose('Text with comments and changes (DOCX)');
    expect(await screen.findByText(/This file is too much to make/)).not.toBeNull();
    expect(saved).toEqual([]);
    // Of the version that is on the page.
    expect(asked).toEqual(['/api/reviews/r1/draft.docx?version=2']);
  });

  it('knows names in quotes, without them, and none', () => {
    const named = (disposition: string) =>
      fileNameOf(new Response('', { headers: { 'content-disposition': disposition } }), 'notes.pdf');
    expect([named('attachment; filename="a b.pdf"'), named('attachment; filename=a.pdf'), named('inline')]).toEqual([
      'a b.pdf',
      'a.pdf',
      'notes.pdf',
    ]);
  });
});

describe('on paper', () => {
  function Page() {
    const tabs = ['One', 'Two'].map((words) => ({ key: words, words, content: <p>{`${words} says`}</p> }));
    return <Tabs label="Both" value="One" onChange={() => undefined} all={usePrinting()} tabs={tabs} />;
  }

  it('all tabs stand below each other, while it is printed', () => {
    render(<Page />);
    expect(screen.queryByText('Two says')).toBeNull();
    act(() => void window.dispatchEvent(new Event('beforeprint')));
    expect(screen.getByText('Two says')).not.toBeNull();
    expect(screen.getByRole('heading', { name: 'Two' })).not.toBeNull();
    act(() => void window.dispatchEvent(new Event('afterprint')));
    expect(screen.queryByText('Two says')).toBeNull();
  });
});
