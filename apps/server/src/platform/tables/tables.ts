import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import { LIMITS, type SourceRequest } from '@salt-circle/contracts';
import type { Answer } from '../bytes/answered.js';
import { outcome } from '../jobs/outcome.js';
import { compiled, Threads } from '../jobs/threads.js';
import { unreadable } from './cells.js';
import type { ReadRoster, ReadTable, TableTask } from './worker/tables.js';
import { say } from '../../words/tables.js';

/** Milliseconds; a table within the bounds takes a fraction of a second. */
const LONGEST = 15_000;
/** Megabytes of a thread's own memory. */
const MEMORY = 384;

/** Reads tables that people bring, in threads: a file can end its thread, and the server goes on. Ask before a transaction, not within. */
@Injectable()
export class Tables implements OnApplicationShutdown {
  readonly #threads = new Threads(compiled('platform/tables/worker/tables.js'), {
    ...{ memory: MEMORY, atOnce: 2, inTurn: true },
  });

  /** @throws ProblemError `file-unreadable` with what to do */
  table(source: SourceRequest): Promise<ReadTable> {
    return this.#run('readTable', source, {});
  }

  /** @param traitColumn title of the column to mix groups by */
  roster(source: SourceRequest, traitColumn: string | null): Promise<ReadRoster> {
    return this.#run('readRosterFile', source, { traitColumn });
  }

  async #run<T>(name: string, { base64 = null, text = null }: SourceRequest, more: object): Promise<T> {
    const bytes = text !== null || base64 === null ? null : new Uint8Array(Buffer.from(base64, 'base64'));
    if (bytes !== null && bytes.length > LIMITS.importBytes) {
      throw unreadable(say('fileIsLargerThanCan'), say('splitItIntoSeveralFiles'));
    }
    const task: TableTask = { bytes, text, ...more };
    return outcome(
      this.#threads.run<Answer<T>>(name, task, { time: LONGEST }),
      { sentence: say('readingThisFileTookToo'), whatToDo: say('bringSmallerOne') },
      ({ sentence, whatToDo }) => unreadable(sentence, whatToDo),
    );
  }

  onApplicationShutdown(): Promise<void> {
    return this.#threads.end();
  }
}
