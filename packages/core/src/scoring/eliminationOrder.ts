/** Neighbours of each node of an undirected graph, without itself, each once. */
export type Graph = ReadonlyArray<readonly number[]>;

/**
 * An order of elimination with little fill-in: always a node of smallest degree next, as in Amestoy, Davis and Duff (1996), "An
 * approximate minimum degree ordering algorithm": eliminated nodes are kept as elements (the clique that they leave), and degrees are
 * bounded from above. Once what is left is one clique, its order no longer matters.
 *
 * @returns the nodes in their order, all of them
 */
export function eliminationOrder(graph: Graph): Int32Array {
  const size = graph.length;
  const order = new Int32Array(size);
  const nodes = graph.map((list) => [...list]);
  const elements: number[][] = graph.map(() => []);
  const members: Array<number[] | null> = graph.map(() => null);
  const degree = Int32Array.from(graph, (list) => list.length);
  const done = new Uint8Array(size);
  const queue = new DegreeQueue(degree);
  const mark = new Int32Array(size).fill(-1);
  const outside = new Int32Array(size);
  const counted = new Int32Array(size).fill(-1);
  for (let step = 0; step < size; step += 1) {
    const pivot = queue.take();
    order[step] = pivot;
    done[pivot] = 1;
    // The clique that the pivot leaves: whatever it stands beside, directly or in an element.
    const clique: number[] = [];
    mark[pivot] = step;
    const join = (one: number) => {
      if (done[one] === 1 || mark[one] === step) return;
      mark[one] = step;
      clique.push(one);
    };
    (nodes[pivot] as number[]).forEach(join);
    for (const element of elements[pivot] as number[]) {
      members[element]?.forEach(join);
      members[element] = null;
    }
    members[pivot] = clique;
    nodes[pivot] = [];
    if (clique.length === size - step - 1) {
      clique.forEach((one, index) => (order[step + 1 + index] = one));
      return order;
    }
    for (const one of clique) {
      for (const element of elements[one] as number[]) {
        const within = members[element];
        if (within == null) continue;
        if (counted[element] !== step) {
          counted[element] = step;
          outside[element] = within.reduce((sum, other) => sum + (done[other] === 0 ? 1 : 0), 0);
        }
        outside[element] = (outside[element] as number) - 1;
      }
    }
    for (const one of clique) {
      // What is in the clique is found through its element from now on.
      const beside = (nodes[one] as number[]).filter((other) => done[other] === 0 && mark[other] !== step);
      nodes[one] = beside;
      const kept = (elements[one] as number[]).filter((element) => {
        if (members[element] == null) return false;
        // All of it lies in the new clique.
        if (outside[element] === 0) return false;
        return true;
      });
      const bound = kept.reduce((sum, element) => sum + (outside[element] as number), 0);
      elements[one] = [...kept, pivot];
      const next = Math.min(size - step - 2, beside.length + clique.length - 1 + bound);
      queue.change(one, next);
    }
  }
  return order;
}

/** Nodes by degree, in lists that are linked both ways. */
class DegreeQueue {
  readonly #head: Int32Array;
  readonly #next: Int32Array;
  readonly #before: Int32Array;
  #least = 0;

  constructor(private readonly degree: Int32Array) {
    const size = degree.length;
    this.#head = new Int32Array(size + 1).fill(-1);
    this.#next = new Int32Array(size).fill(-1);
    this.#before = new Int32Array(size).fill(-1);
    // Backwards, so that of equals the first comes first.
    for (let node = size - 1; node >= 0; node -= 1) this.#put(node);
  }

  take(): number {
    while (this.#head[this.#least] === -1) this.#least += 1;
    const node = this.#head[this.#least] as number;
    this.#drop(node);
    return node;
  }

  change(node: number, degree: number): void {
    this.#drop(node);
    this.degree[node] = degree;
    this.#put(node);
  }

  #put(node: number): void {
    const degree = this.degree[node] as number;
    const head = this.#head[degree] as number;
    this.#next[node] = head;
    this.#before[node] = -1;
    if (head !== -1) this.#before[head] = node;
    this.#head[degree] = node;
    this.#least = Math.min(this.#least, degree);
  }

  #drop(node: number): void {
    const before = this.#before[node] as number;
    const next = this.#next[node] as number;
    if (before === -1) this.#head[this.degree[node] as number] = next;
    else this.#next[before] = next;
    if (next !== -1) this.#before[next] = before;
  }
}
