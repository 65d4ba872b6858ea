import { act, fireEvent, render, screen } from '@testing-library/react';
import { useRef, useState } from 'react';
import { useCellFocus } from './useCellFocus.js';

/** Three rows of three; rows that were not gone to are drawn only when `draw` says so, as in a long list. */
let draw: () => void = () => {};
function Grid({ lazy }: { readonly lazy: boolean }) {
  const frame = useRef<HTMLDivElement>(null);
  const [drawn, setDrawn] = useState(lazy ? 1 : 3);
  draw = () => setDrawn(3);
  const focus = useCellFocus(
    frame,
    3,
    () => 3,
    () => {},
  );
  return (
    <div ref={frame} onKeyDown={focus.onKeyDown} onFocus={focus.onFocus} onBlur={focus.onBlur}>
      {Array.from({ length: drawn * 3 }, (_, index) => (
        <button key={index} data-at={`${Math.floor(index / 3)}:${index % 3}`}>
          cell {Math.floor(index / 3)} {index % 3}
        </button>
      ))}
    </div>
  );
}

const press = (...keys: string[]) => {
  for (const key of keys) fireEvent.keyDown(document.activeElement as Element, { key });
};

describe('moving the focus by keys', () => {
  it('moves with each key, and stops at the edges', () => {
    render(<Grid lazy={false} />);
    screen.getByText('cell 0 0').focus();
    press('ArrowDown', 'ArrowRight');
    expect(document.activeElement?.textContent).toBe('cell 1 1');
    press('End', 'PageDown', 'ArrowDown');
    expect(document.activeElement?.textContent).toBe('cell 2 2');
    press('Home');
    expect(document.activeElement?.textContent).toBe('cell 2 0');
  });

  it('loses no key while the row that it goes to is still to be drawn', () => {
    render(<Grid lazy />);
    screen.getByText('cell 0 0').focus();
    press('ArrowDown', 'ArrowRight', 'ArrowRight');
    expect(document.activeElement?.textContent).toBe('cell 0 0');
    act(() => draw());
    expect(document.activeElement?.textContent).toBe('cell 1 2');
  });

  it('gives what comes in the place of a cell that went away the focus, but not once it has gone elsewhere', () => {
    function Chips() {
      const frame = useRef<HTMLDivElement>(null);
      const [chips, setChips] = useState(['a', 'b', 'c']);
      const {
        active: _active,
        setActive,
        ...onFrame
      } = useCellFocus(
        frame,
        1,
        () => chips.length,
        () => {},
      );
      take = (chip) => setChips((all) => all.filter((one) => one !== chip));
      return (
        <div ref={frame} {...onFrame}>
          {chips.map((chip, col) => (
            <button key={chip} data-at={`0:${col}`} onFocus={() => setActive({ row: 0, col })}>
              {chip}
            </button>
          ))}
        </div>
      );
    }
    let take: (chip: string) => void = () => {};
    render(<Chips />);
    act(() => screen.getByText('b').focus());
    act(() => take('b'));
    expect(document.activeElement?.textContent).toBe('c');
    act(() => take('c'));
    expect(document.activeElement?.textContent).toBe('a');
    act(() => screen.getByText('a').blur());
    act(() => take('a'));
    expect(document.activeElement).toBe(document.body);
  });
});
