import { fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { MemoryRouter } from 'react-router';
import {
  BoardTable,
  Dialog,
  Levels,
  Prose,
  Ruler,
  SaveMark,
  sortedRows,
  Split,
  StateMark,
  TextField,
  type BoardColumn,
  type BoardSort,
  type MarkState,
  type SaveState,
} from './index.js';

// What the test document lacks of a browser.
globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
};

describe('StateMark', () => {
  it('gives each state a shape and a word of its own, for those who see and for those who listen', () => {
    const states: MarkState[] = ['not-begun', 'in-progress', 'done', 'late', 'excused'];
    const { container } = render(states.map((state) => <StateMark key={state} state={state} share={0.4} />));
    const shapes = [...container.querySelectorAll('svg')].map(({ innerHTML }) => innerHTML);
    expect(new Set(shapes).size).toBe(5);
    for (const word of ['not begun', 'in progress', 'done', 'late', 'exempt'])
      expect(screen.getByText(word).classList.contains('sr-only')).toBe(true);
  });

  it('fills the disc by the real share, and never to look empty or done', () => {
    /** How much of the disc is filled, from the end of the arc and from which way round it goes: 0 to 1, clockwise from the top. */
    const filled = (share: number) => {
      const path = render(<StateMark state="in-progress" share={share} />).container.querySelector('path');
      const [, toX, toY] = /A[\d. ]+ [01] [01] ([\d.]+) ([\d.]+)/.exec(path?.getAttribute('d') ?? '') ?? [];
      return (Math.atan2(Number(toX) - 8, 8 - Number(toY)) / (2 * Math.PI) + 1) % 1;
    };
    for (const share of [0.1, 0.25, 0.5, 0.9]) expect(filled(share)).toBeCloseTo(share, 2);
    expect(filled(0)).toBeGreaterThan(0.02);
    expect(filled(1)).toBeLessThan(0.98);
  });
});

describe('SaveMark', () => {
  it('says each state in words', () => {
    const states: SaveState[] = ['saved', 'unsaved', 'saving', 'offline', 'signed-out', 'refused', 'conflict'];
    const words = states.map((state) => render(<SaveMark state={state} savedAt="10:42:07" />).container.textContent);
    expect(words).toEqual([
      'Saved 10:42:07',
      'Saving…',
      'Saving…',
      'No connection: kept in this browser, sent when it is back',
      'Signed out: kept in this browser',
      'Not saved: see what is marked',
      'Changed elsewhere: choose which to keep',
    ]);
  });
});

describe('TextField', () => {
  it('ties hint and problem to the field, and announces the problem', () => {
    render(<TextField label="Title" hint="What students see." problem="Give a title." />);
    const field = screen.getByLabelText('Title');
    expect(field.getAttribute('aria-invalid')).toBe('true');
    const described = (field.getAttribute('aria-describedby') ?? '')
      .split(' ')
      .map((id) => document.getElementById(id)?.textContent);
    expect(described).toEqual(['What students see.', 'Give a title.']);
    expect(screen.getByRole('alert').textContent).toBe('Give a title.');
  });
});

describe('Levels', () => {
  const levels = [
    { id: 'a', title: 'Claims only', description: '', points: 0 },
    { id: 'b', title: 'All backed', description: 'With limits.', points: 4 },
  ];

  it('is a group of radio buttons with points and descriptions', () => {
    const chosen = jest.fn();
    render(<Levels label="Evidence" levels={levels} value={null} onChange={chosen} />);
    expect(screen.getByRole('radiogroup', { name: 'Evidence' })).toBeTruthy();
    fireEvent.click(screen.getByRole('radio', { name: /^All backed, 4 points/ }));
    expect(chosen).toHaveBeenCalledWith('b');
  });

  it('only shows the choice where it cannot be changed', () => {
    render(<Levels label="Evidence" levels={levels} value="a" />);
    expect(screen.getByRole('radio', { name: /Claims only/ }).getAttribute('data-state')).toBe('checked');
    for (const radio of screen.getAllByRole('radio')) expect((radio as HTMLButtonElement).disabled).toBe(true);
  });
});

describe('Split', () => {
  function Page() {
    const [share, setShare] = useState(0.6);
    return <Split label="Between" share={share} onShare={setShare} left={<p>left</p>} right={<p>right</p>} />;
  }

  it('moves by keys, gives either side all of the width, and comes back', () => {
    render(<Page />);
    const strip = screen.getByRole('separator', { name: 'Between' });
    const press = (key: string) => {
      fireEvent.keyDown(strip, { key });
      return strip.getAttribute('aria-valuenow');
    };
    expect(press('ArrowRight')).toBe('65');
    expect(press('ArrowLeft')).toBe('60');
    expect(press('End')).toBe('100');
    expect(screen.getByText('right').parentElement?.hidden).toBe(true);
    expect(press('ArrowRight')).toBe('100');
    expect(press('Home')).toBe('0');
    expect(screen.getByText('left').parentElement?.hidden).toBe(true);
    expect(press('Enter')).toBe('60');
    expect(press('x')).toBe('60');
  });
});

describe('Dialog', () => {
  it('has a name and a description, and closes by Escape', () => {
    const close = jest.fn();
    render(
      <Dialog open onClose={close} title="Hand in this draft?" description="Reviewers see Heron.">
        <button type="button">Hand in</button>
      </Dialog>,
    );
    const dialog = screen.getByRole('dialog', { name: 'Hand in this draft?' });
    expect(document.getElementById(dialog.getAttribute('aria-describedby') ?? '')?.textContent).toBe(
      'Reviewers see Heron.',
    );
    fireEvent.keyDown(dialog, { key: 'Escape' });
    expect(close).toHaveBeenCalledTimes(1);
  });
});

describe('Prose', () => {
  it('shows formatting, and nothing that runs or dresses up, even if the server had let it through', () => {
    const { container } = render(
      <Prose
        html={
          '<h2 style="color:red" onclick="x()">Why</h2><script>x()</script><img src=x onerror="x()"><form><input></form><a href="javascript:x()">a</a>'
        }
      />,
    );
    expect(container.innerHTML).toContain('<h2>Why</h2>');
    expect(container.innerHTML).not.toMatch(/script|style|onclick|onerror|input|img/);
  });

  it('shows pictures of drafts and of attachments, and of nothing else', () => {
    const at = (path: string) => `/api/exchanges/x-1/${path}/pictures/${'0a'.repeat(32)}`;
    const given = [
      at('drafts/d-1'),
      at('attachments/a-1'),
      at('people/p-1'),
      `https://evil.example${at('drafts/d-1')}`,
    ];
    const { container } = render(<Prose html={given.map((src) => `<img src="${src}">`).join('')} />);
    expect([...container.querySelectorAll('img')].map((img) => img.getAttribute('src'))).toEqual(given.slice(0, 2));
  });
});

describe('Ruler', () => {
  it('is a list of links, the present page marked, with a line at the present', () => {
    const segment = (key: string, from: number | null, until: number | null, active = false) => ({
      key,
      words: key,
      figure: `${key} figure`,
      to: `/${key}`,
      from,
      until,
      active,
    });
    render(
      <MemoryRouter>
        <Ruler
          now={150}
          nowWords="Tue 10 Mar"
          segments={[segment('plan', null, null), segment('drafts', 0, 100), segment('reviews', 100, 300, true)]}
        />
      </MemoryRouter>,
    );
    expect(screen.getAllByRole('link').map((link) => link.getAttribute('href'))).toEqual([
      '/plan',
      '/drafts',
      '/reviews',
    ]);
    expect(screen.getByRole('link', { current: 'page' }).textContent).toBe('reviewsreviews figure');
    const line = screen.getByText('now, Tue 10 Mar').parentElement as HTMLElement;
    expect(line.style.left).toBe('25%');
    const widths = screen.getAllByRole('listitem').map((item) => Number(item.style.flexGrow));
    // Drawn to scale: the reviews last twice as long as the drafts.
    expect((widths[2] as number) / (widths[1] as number)).toBeCloseTo(2);
  });
});

describe('BoardTable', () => {
  const rows = [
    { name: 'Åsa 2', words: 10 },
    { name: 'asa 10', words: null },
    { name: 'Bo', words: 200 },
  ];
  type Row = (typeof rows)[number];
  const columns: ReadonlyArray<BoardColumn<Row>> = [
    { key: 'name', head: 'Name', sort: ({ name }) => name, cell: ({ name }) => name },
    { key: 'words', head: 'Words', most: true, sort: ({ words }) => words, cell: ({ words }) => words },
  ];
  function Board() {
    const [sort, setSort] = useState<BoardSort>({ key: 'name', down: false });
    return (
      <BoardTable
        label="People"
        columns={columns}
        rows={sortedRows(rows, columns, sort)}
        rowKey={({ name }) => name}
        sort={sort}
        onSort={setSort}
      />
    );
  }

  it('goes by the head that is pressed, says so, and leaves what is empty to the end either way', () => {
    render(<Board />);
    const names = () => screen.getAllByRole('rowheader').map(({ textContent }) => textContent);
    expect(names()).toEqual(['Åsa 2', 'asa 10', 'Bo']);
    const press = (head: string) => fireEvent.click(screen.getByRole('button', { name: head }));
    press('Words');
    expect(names()).toEqual(['Bo', 'Åsa 2', 'asa 10']);
    expect(screen.getByRole('columnheader', { name: 'Words' }).getAttribute('aria-sort')).toBe('descending');
    press('Words');
    expect(names()).toEqual(['Åsa 2', 'Bo', 'asa 10']);
    expect(screen.getByRole('columnheader', { name: 'Name' }).getAttribute('aria-sort')).toBe('none');
  });
});
