// A worker that misbehaves in the ways that a hostile file could make a reader misbehave.

export function inspectFile({ path }) {
  if (path === 'good') return { done: 'looked at' };
  if (path === 'crash') throw new TypeError('a fault in a reader');
  for (;;);
}

export function convertFile() {
  const hoard = [];
  for (;;) hoard.push(Array.from({ length: 10_000 }, (_, index) => ({ index })));
}
