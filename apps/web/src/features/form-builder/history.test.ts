import { begin, historyReducer, type History } from './history.js';

const change = (history: History<string>, to: string, label: string, at: number) =>
  historyReducer(history, { type: 'change', make: () => to, label, at });
const undo = (history: History<string>) => historyReducer(history, { type: 'undo' });
const redo = (history: History<string>) => historyReducer(history, { type: 'redo' });

describe('the history of a form', () => {
  it('goes back and forth, and stops at both ends', () => {
    const two = change(change(begin('a'), 'b', 'add', 0), 'c', 'move', 10);
    expect([undo(two).present, undo(undo(two)).present, undo(undo(undo(two))).present]).toEqual(['b', 'a', 'a']);
    expect(redo(undo(two))).toMatchObject({ present: 'c', future: [] });
    expect(redo(two)).toBe(two);
  });

  it('takes typing without a pause as one step', () => {
    const typed = ['x', 'xy', 'xyz'].reduce(
      (history, text, index) => change(history, text, 'title', index * 400),
      begin(''),
    );
    expect([typed.present, undo(typed).present]).toEqual(['xyz', '']);
    const paused = change(typed, 'xyz w', 'title', 5000);
    expect(undo(paused).present).toBe('xyz');
    expect(undo(change(typed, 'other', 'guidance', 900)).present).toBe('xyz');
  });

  it('forgets what was undone once something else is done', () => {
    const forked = change(undo(change(begin('a'), 'b', 'add', 0)), 'c', 'add', 10);
    expect([forked.present, redo(forked).present, undo(forked).present]).toEqual(['c', 'c', 'a']);
  });

  it('has nothing to undo where nothing changed', () => {
    const same = historyReducer(begin('a'), { type: 'change', make: (now) => now, label: 'x', at: 0 });
    expect(same.past).toEqual([]);
  });
});
