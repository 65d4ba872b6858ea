import { InTurn } from './in-turn.js';

function all<T>(queue: InTurn<T>): T[] {
  const taken: T[] = [];
  for (let one = queue.next(); one !== undefined; one = queue.next()) taken.push(one);
  return taken;
}

describe('a queue for several', () => {
  it('gives each a turn before anybody gets a second one, each in the order in which they came', () => {
    const queue = new InTurn<string>();
    for (const one of ['a1', 'a2', 'a3']) queue.add('a', one);
    queue.add('b', 'b1');
    expect(queue.next()).toBe('a1');
    // Who comes later waits for no more than one turn of each.
    queue.add('c', 'c1');
    queue.add('b', 'b2');
    expect(all(queue)).toEqual(['b1', 'a2', 'c1', 'b2', 'a3']);
  });

  it('is empty at first, when all is taken, and when it is cleared', () => {
    const queue = new InTurn<number>();
    expect(queue.next()).toBeUndefined();
    queue.add('a', 1);
    queue.clear();
    expect(all(queue)).toEqual([]);
    queue.add('a', 2);
    expect(all(queue)).toEqual([2]);
  });
});
