import type { Topic } from '@salt-circle/core';

/** That something changed: what, and where. Never what it is now. */
export interface Change {
  readonly topic: Topic;
  readonly courseId: string;
  /** Null for what concerns the whole course. */
  readonly exchangeId: string | null;
  /** Whose own it is, of topics that are somebody's own: ids of persons. */
  readonly personIds?: readonly string[];
}

type Listener = (changes: readonly Change[]) => void;

/** Passes on, within the server, what has changed. Told after it is committed: whoever looks then sees it. */
export class Changes {
  readonly #listeners = new Set<Listener>();

  tell(changes: readonly Change[]): void {
    if (changes.length > 0) for (const listener of this.#listeners) listener(changes);
  }

  /** @returns a function that ends it */
  listen(listener: Listener): () => void {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  }
}
