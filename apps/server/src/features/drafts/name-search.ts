import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import type { Exchange } from '../../model/exchange.js';
import type { StoredFile } from '../../model/stored-file.js';
import { FileWorkers } from '../../platform/files/file-workers.js';
import { hidesAuthors, identitiesOf } from '../../access/authors.js';
import type { Draft, DraftPart } from '../../model/draft.js';
import { locatedFinds, searchedTexts, type LocatedFind } from './name-finds.js';

/** Looks through a draft for what may tell reviewers who its authors are. In a thread: a book takes seconds. */
@Injectable()
export class NameSearch {
  constructor(private readonly workers: FileWorkers) {}

  /** Empty where reviewers see the authors' names anyway. */
  async finds(
    manager: EntityManager,
    exchange: Exchange,
    draft: Draft,
    parts: readonly DraftPart[],
    files: ReadonlyMap<string, StoredFile>,
  ): Promise<LocatedFind[]> {
    if (!hidesAuthors(exchange)) return [];
    const titles = new Map(exchange.deliverables.map(({ id, title }) => [id, title]));
    const texts = searchedTexts(draft, parts, files, titles);
    const people = await identitiesOf(manager, exchange, draft);
    const finds = await this.workers.findNames({ texts: texts.map(({ text, as }) => ({ text, as })), people });
    return locatedFinds(texts, finds);
  }
}
