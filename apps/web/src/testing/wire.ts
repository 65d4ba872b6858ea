import type { Problem } from '@salt-circle/contracts';

/** Turns of the page's loop after which nobody reads an answer any more. */
const MOST_TURNS = 500;

function nextTurn(): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve, 0));
}

interface Asked {
  readonly url: string;
  readonly method: string;
  readonly body: unknown;
}

/** Stands for the server, under the real store: keeps what was asked, and answers when and what a test says. */
export class Wire {
  readonly asked: Asked[] = [];
  readonly #waiting: Array<(response: Response) => void> = [];

  /** In the place of the browser's own; for one test after the other. */
  install(): void {
    this.asked.length = 0;
    this.#waiting.length = 0;
    globalThis.fetch = (url, { method = 'GET', body } = {}) => {
      if (typeof url !== 'string') throw new TypeError('our pages ask by address');
      this.asked.push({ url, method, body: typeof body === 'string' ? JSON.parse(body) : undefined });
      return new Promise((resolve) => this.#waiting.push(resolve));
    };
  }

  /** Answers a question that waits, the first one unless said otherwise. */
  async answer(body: object, at = 0): Promise<void> {
    await this.#give(new Response(JSON.stringify(body), { status: 200 }), at);
  }

  async refuse(problem: Problem, at = 0): Promise<void> {
    await this.#give(new Response(JSON.stringify(problem), { status: 409 }), at);
  }

  async #give(response: Response, at: number): Promise<void> {
    const [give] = this.#waiting.splice(at, 1);
    if (give === undefined) throw new Error('nothing was asked that waits for an answer');
    give(response);
    // Reading the body takes some turns, and what follows from it a few more.
    for (let turn = 0; turn < MOST_TURNS && !response.bodyUsed; turn += 1) await nextTurn();
    for (let turn = 0; turn < 30; turn += 1) await nextTurn();
  }
}
