import { eventOrigin } from '../../permissions/review-access.js';
import { Injectable } from '@nestjs/common';
import type { NoteRequest, NoteView } from '@salt-circle/contracts';
import type { Place } from '@salt-circle/core';
import { In } from 'typeorm';
import { formFor } from '../../queries/review-form.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { NoteRow } from '../../model/review.js';
import { insertAll } from '../../platform/database/insert-all.js';
import { conflict, refusal } from '../../platform/problems/sentences.js';
import { Readings } from '../reading/readings.service.js';
import { noteView, ReviewContents } from './contents.service.js';
import { assertEdit, editFrom, unknownItem } from './edits.js';
import { assertFits, assertPlace, placeableParts, placeFrom } from './places.js';
import { ReviewWriting } from './review-writing.service.js';
import { assertRoom } from './room.js';
import { say } from '../../words/reviews.js';

/** A note that comes with others. */
export interface NewNote extends Pick<NoteRow, 'id' | 'kind' | 'body' | 'edit'> {
  readonly at: Place;
}

/** The notes of a review, as its reviewer writes them. */
@Injectable()
export class ReviewNotes {
  constructor(
    private readonly writing: ReviewWriting,
    private readonly readings: Readings,
    private readonly contents: ReviewContents,
  ) {}

  save(person: CurrentUser, reviewId: string, noteId: string, request: NoteRequest): Promise<NoteView> {
    return this.writing.in(person, reviewId, request.place.version, async (manager, standing) => {
      const { context, review, version, draft } = standing;
      const { kind, body } = request;
      const at = placeFrom(request.place);
      const edit = editFrom(request.edit ?? null);
      const itemId = request.itemId ?? null;
      const current = await manager.findOneBy(NoteRow, { id: noteId });
      if (current !== null && current.reviewId !== reviewId) throw refusal('unknown');
      const stays = current?.partId === at.partId && same(current.selector, at.selector);
      const reads = current?.kind === kind && current.body === body && current.itemId === itemId;
      if (current !== null && stays && reads && same(current.edit, edit)) {
        return noteView(current, version.number);
      }
      if ((current?.revision ?? 0) !== request.revision) {
        throw conflict(say('thisNote'), current === null ? null : noteView(current, version.number));
      }
      await assertRoom(manager, reviewId, noteId, body.length + sizeOf([at.selector, edit]));
      if (!stays) await assertPlace(manager, this.readings, context, { draft, version, at });
      assertEdit(kind, at, edit);
      const form = await formFor(manager, context, review);
      if (itemId !== null && !form.items.some(({ id }) => id === itemId)) throw unknownItem();
      const row = {
        id: noteId,
        reviewId,
        kind,
        body,
        versionId: version.id,
        ...at,
        edit,
        itemId,
        withheldAt: current?.withheldAt ?? null,
        revision: request.revision + 1,
        createdAt: current?.createdAt ?? context.now,
      };
      await manager.save(NoteRow, row);
      await this.contents.recount(manager, context, review, form);
      return noteView(row, version.number);
    });
  }

  /**
   * Several at once, all or none. Those that are there already stay as they are.
   *
   * @param read number of the version that they stand in
   * @returns how many were added
   */
  add(person: CurrentUser, reviewId: string, read: number, notes: readonly NewNote[]): Promise<number> {
    return this.writing.in(person, reviewId, read, async (manager, standing, emit) => {
      const { context, review, version, draft } = standing;
      const there = new Set((await manager.findBy(NoteRow, { reviewId })).map(({ id }) => id));
      const fresh = notes.filter(({ id }) => !there.has(id));
      if (fresh.length === 0) return 0;
      if (await manager.existsBy(NoteRow, { id: In(fresh.map(({ id }) => id)) })) throw refusal('unknown');
      const parts = await placeableParts(manager, this.readings, context, { draft, version });
      for (const { kind, at, edit } of fresh) {
        assertFits(at, parts);
        assertEdit(kind, at, edit);
      }
      const size = fresh.reduce((sum, { body, at, edit }) => sum + body.length + sizeOf([at.selector, edit]), 0);
      await assertRoom(manager, reviewId, '', size, fresh.length);
      const row = {
        reviewId,
        versionId: version.id,
        itemId: null,
        withheldAt: null,
        revision: 1,
        createdAt: context.now,
      };
      await insertAll(
        manager,
        NoteRow,
        fresh.map(({ id, kind, body, at, edit }) => ({ ...row, id, kind, body, ...at, edit })),
      );
      await this.contents.recount(manager, context, review, await formFor(manager, context, review));
      emit({ action: 'notes-brought', ...eventOrigin(standing), details: { review: reviewId, notes: fresh.length } });
      return fresh.length;
    });
  }

  /** Deleting a note that is gone already is no problem. */
  async remove(person: CurrentUser, reviewId: string, noteId: string): Promise<void> {
    await this.writing.in(person, reviewId, undefined, async (manager, { context, review }) => {
      await manager.delete(NoteRow, { id: noteId, reviewId });
      await this.contents.recount(manager, context, review, await formFor(manager, context, review));
    });
  }
}

/** As kept, in UTF-16 code units. */
function sizeOf(kept: unknown): number {
  return JSON.stringify(kept).length;
}

function same(a: unknown, b: unknown): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}
