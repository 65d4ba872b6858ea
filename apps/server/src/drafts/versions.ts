import type { DraftReading } from '@salt-circle/contracts';
import type { EntityManager } from 'typeorm';
import { DraftVersion, type Draft } from './entities.js';

/** The version that counts: the last one handed in. Late ones are refused, so it was in time. */
export function lastVersion(manager: EntityManager, draftId: string): Promise<DraftVersion | null> {
  return manager.findOne(DraftVersion, { where: { draftId }, order: { number: 'DESC' } });
}

export function reading({ title, html, words, number }: DraftVersion): DraftReading {
  return { title, html, words, version: number };
}

/** Whether what is saved differs from the version last handed in. */
export function changedSinceHandIn(draft: Pick<Draft, 'title' | 'html'>, last: DraftVersion | null): boolean {
  return last !== null && (draft.title.trim() !== last.title || draft.html !== last.html);
}
