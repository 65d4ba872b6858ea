import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import type { Exchange } from '../../model/exchange.js';
import type { StoredFile } from '../../model/stored-file.js';
import { FileWorkers } from '../../platform/files/file-workers.js';
import { hidesAuthors, identitiesOf } from '../../queries/authors.js';
import type { Draft, DraftPart } from '../../model/draft.js';
import { locatedFinds, searchedTexts, type LocatedFind } from './name-finds.js';
import { withoutNames, type WithoutNames } from './without-names.js';

/** Enough for an author to act on; a text that has more is about its author. */
const MOST_FINDS = 200;

/** Looks through a draft for what may tell reviewers who its authors are. In a thread: a book takes seconds. */
@Injectable()
export class NameSearch {
  constructor(private readonly workers: FileWorkers) {}

  /** For its authors to decide about; empty where reviewers see the authors' names anyway. */
  async finds(
    manager: EntityManager,
    exchange: Exchange,
    draft: Draft,
    parts: readonly DraftPart[],
    files: ReadonlyMap<string, StoredFile>,
  ): Promise<LocatedFind[]> {
    return hidesAuthors(exchange) ? (await this.#all(manager, exchange, draft, parts, files)).slice(0, MOST_FINDS) : [];
  }

  /**
   * For others than it was handed in for: the draft with its authors’ names hidden wherever they stand for sure, whether or not
   * reviewers saw them.
   *
   * @throws ProblemError where a name stands in a place that cannot be hidden
   */
  async hidden(
    manager: EntityManager,
    exchange: Exchange,
    draft: Draft,
    parts: readonly DraftPart[],
    files: ReadonlyMap<string, StoredFile>,
  ): Promise<WithoutNames> {
    return withoutNames(draft, parts, await this.#all(manager, exchange, draft, parts, files));
  }

  async #all(
    manager: EntityManager,
    exchange: Exchange,
    draft: Draft,
    parts: readonly DraftPart[],
    files: ReadonlyMap<string, StoredFile>,
  ): Promise<LocatedFind[]> {
    const titles = new Map(exchange.deliverables.map(({ id, title }) => [id, title]));
    const texts = searchedTexts(draft, parts, files, titles);
    const people = await identitiesOf(manager, exchange, draft);
    const finds = await this.workers.findNames({ texts: texts.map(({ text, as }) => ({ text, as })), people });
    return locatedFinds(texts, finds);
  }
}
