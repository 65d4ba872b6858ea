import { Injectable } from '@nestjs/common';
import type { AdoptResult, DecisionRequest, DecisionsView, DecisionView, NotAdopted } from '@salt-circle/contracts';
import { decisionTarget, matchTextAnchor, MisuseError, placedEdit, splicesOf } from '@salt-circle/core';
import { In, IsNull, type EntityManager } from 'typeorm';
import { Access, assertCan, can, assertCanSee, canSee, type ExchangeContext } from '../../permissions/access.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { draftRelation, draftAccess } from '../../permissions/draft-access.js';
import { countingRows } from '../../queries/written-rows.js';
import { DraftPart, type Draft } from '../../model/draft.js';
import { NoteRow, Review } from '../../model/review.js';
import { AdoptionRow, DecisionRow } from '../../model/revision.js';
import { Database, type EmitEvent } from '../../platform/database/database.js';
import { htmlToText } from '../../platform/html/html-to-text.js';
import { spliceHtml } from '../../platform/html/splice-html.js';
import { Ids } from '../../platform/ids/ids.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { conflict, refusal } from '../../platform/problems/sentences.js';
import { OwnDrafts } from '../drafts/own-draft.service.js';
import { decisionView } from './decision-view.js';
import { say } from '../../words/revising.js';

/** What authors decide about the remarks on their draft, and proposed edits put into the text that they go on with. */
@Injectable()
export class Decisions {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly ids: Ids,
    private readonly drafts: OwnDrafts,
  ) {}

  async mine(person: CurrentUser, exchangeId: string): Promise<DecisionsView> {
    const context = await this.access.exchange(person, exchangeId);
    assertCanSee(context, { kind: 'feedback' });
    const draft = await this.access.ownDraft(context);
    if (draft === null) throw refusal('unknown');
    return viewOf(this.database.read, context, draft);
  }

  /** The same decision again is none; another one on an old revision is shown, not written over. */
  async decide(
    person: CurrentUser,
    exchangeId: string,
    key: string,
    { decision, why, done, revision }: DecisionRequest,
  ): Promise<DecisionView> {
    return this.database.write(async (manager, emit) => {
      const { context, draft } = await this.#own(manager, person, exchangeId);
      assertCan(context, { kind: 'decide' });
      await assertReadable(manager, context, draft, key);
      const known = await manager.findOneBy(DecisionRow, { draftId: draft.id, key });
      const next = { decision, why: why.trim(), doneAt: done ? (known?.doneAt ?? context.now) : null };
      const same =
        known !== null &&
        known.decision === next.decision &&
        known.why === next.why &&
        (known.doneAt !== null) === done;
      if (same) return decisionView(known);
      if ((known?.revision ?? 0) !== revision) {
        throw conflict(say('thisDecision'), known === null ? null : decisionView(known), draft.groupId !== null);
      }
      const row = { draftId: draft.id, key, ...next, revision: revision + 1 };
      await manager.save(DecisionRow, row);
      await this.drafts.tell(manager, emit, context, draft);
      return decisionView(row);
    });
  }

  /** Puts proposed edits into the saved text, one after the other; what does not fit any more is left out and told. */
  async adopt(person: CurrentUser, exchangeId: string, noteIds: readonly string[]): Promise<AdoptResult> {
    return this.database.write(async (manager, emit) => {
      const { context, draft } = await this.#own(manager, person, exchangeId);
      assertCan(context, { kind: 'decide' });
      assertCan(context, { kind: 'hand-in-revision' });
      const notes = await readableNotes(manager, context, draft);
      const before = await manager.findBy(AdoptionRow, { draftId: draft.id });
      const skipped: Array<{ noteId: string; why: NotAdopted }> = [];
      const changed = new Set<string>();
      for (const noteId of new Set(noteIds)) {
        const note = notes.get(noteId);
        if (note === undefined) throw refusal('unknown');
        if (before.some((one) => one.noteId === noteId)) {
          skipped.push({ noteId, why: 'already' });
          continue;
        }
        const made = await this.#put(manager, context, draft, note);
        if (typeof made !== 'string') changed.add(made.deliverableId);
        // What an edit that was put in just now has changed is two edits of the same words.
        else skipped.push({ noteId, why: made === 'gone' && changed.size > 0 ? 'conflict' : made });
      }
      await this.#told(manager, emit, context, draft);
      return { ...(await viewOf(manager, context, draft)), skipped };
    });
  }

  /** Takes the last adopted edit back out. @throws ProblemError once something was written since */
  async undo(person: CurrentUser, exchangeId: string, adoptionId: string): Promise<DecisionsView> {
    return this.database.write(async (manager, emit) => {
      const { context, draft } = await this.#own(manager, person, exchangeId);
      assertCan(context, { kind: 'decide' });
      const row = await manager.findOneBy(AdoptionRow, { id: adoptionId, draftId: draft.id });
      if (row === null) throw refusal('unknown');
      const part = await textPart(manager, draft, row.deliverableId);
      if (part === null || part.html !== row.after) throw writtenSince();
      const saved = { html: row.before, revision: part.revision + 1, savedAt: context.now };
      await manager.update(DraftPart, { id: part.id }, saved);
      await manager.delete(AdoptionRow, { id: row.id });
      await this.#decided(manager, draft, row.noteId, null);
      await this.#told(manager, emit, context, draft);
      return viewOf(manager, context, draft);
    });
  }

  async #own(manager: EntityManager, person: CurrentUser, exchangeId: string) {
    const context = await this.access.exchange(person, exchangeId, manager);
    assertCanSee(context, { kind: 'feedback' });
    const draft = await this.access.ownDraft(context, manager);
    if (draft === null) throw refusal('unknown');
    return { context, draft };
  }

  async #put(
    manager: EntityManager,
    context: ExchangeContext,
    draft: Draft,
    note: NoteRow,
  ): Promise<{ readonly deliverableId: string } | NotAdopted> {
    const { edit, selector, partId } = note;
    if (edit === null || selector.type !== 'text' || partId === null) return 'no-text';
    const reviewed = await manager.findOneByOrFail(DraftPart, { id: partId });
    const part = reviewed.kind === 'text' ? await textPart(manager, draft, reviewed.deliverableId) : null;
    if (part === null) return 'no-text';
    const text = htmlToText(part.html);
    const match = matchTextAnchor(text, selector);
    // Only the very words, and only where it is sure that these are the ones: anything else is for its author to write.
    if (match.found === 'gone' || match.found === 'changed' || match.certainty !== 'sure') return 'gone';
    const placed = placedEdit(text, match.range, edit);
    if (placed === null) return 'gone';
    const html = spliceHtml(part.html, splicesOf(text, placed));
    await manager.update(DraftPart, { id: part.id }, { html, revision: part.revision + 1, savedAt: context.now });
    const { deliverableId } = part;
    await manager.insert(AdoptionRow, {
      ...{ id: this.ids.uuid(), draftId: draft.id, noteId: note.id, deliverableId },
      ...{ before: part.html, after: html, at: context.now },
    });
    await this.#decided(manager, draft, note.id, context.now);
    return { deliverableId };
  }

  /** An adopted edit is decided and done; taken back out, it is open again. */
  async #decided(manager: EntityManager, draft: Draft, noteId: string, doneAt: number | null): Promise<void> {
    const key = `note.${noteId}`;
    const known = await manager.findOneBy(DecisionRow, { draftId: draft.id, key });
    const decision = doneAt === null ? null : 'will-change';
    const revision = (known?.revision ?? 0) + 1;
    await manager.save(DecisionRow, { draftId: draft.id, key, why: known?.why ?? '', decision, doneAt, revision });
  }

  async #told(manager: EntityManager, emit: EmitEvent, context: ExchangeContext, draft: Draft): Promise<void> {
    await this.drafts.tell(manager, emit, context, draft);
    const { course, exchange, person } = context;
    // Also the other pages of the one who did it.
    emit.quietly({ topic: 'own-draft', courseId: course.id, exchangeId: exchange.id, personIds: [person.id] });
  }
}

function textPart(manager: EntityManager, draft: Draft, deliverableId: string): Promise<DraftPart | null> {
  return manager.findOneBy(DraftPart, { draftId: draft.id, versionId: IsNull(), deliverableId, kind: 'text' });
}

/** Reviews of the own draft that its author reads. */
async function readReviews(manager: EntityManager, context: ExchangeContext, draft: Draft): Promise<Review[]> {
  const reading = { ...draftRelation(await draftAccess(manager, context, draft)), byViewer: false };
  const all = await manager.findBy(Review, { draftId: draft.id });
  return all.filter(({ submittedAt, withheldAt }) =>
    canSee(context, { kind: 'review', ...reading, submitted: submittedAt !== null, withheld: withheldAt !== null }),
  );
}

async function readableNotes(
  manager: EntityManager,
  context: ExchangeContext,
  draft: Draft,
): Promise<ReadonlyMap<string, NoteRow>> {
  const reviews = await readReviews(manager, context, draft);
  const rowsOf = await countingRows(manager, reviews);
  const notes = reviews.flatMap((review) => rowsOf(review).notes.filter(({ withheldAt }) => withheldAt === null));
  return new Map(notes.map((note) => [note.id, note]));
}

/** @throws ProblemError `not-found` unless the remark is there for its author */
async function assertReadable(
  manager: EntityManager,
  context: ExchangeContext,
  draft: Draft,
  key: string,
): Promise<void> {
  const target = targetOf(key);
  if (target.kind === 'note') {
    if (!(await readableNotes(manager, context, draft)).has(target.noteId)) throw refusal('unknown');
    return;
  }
  const review = (await readReviews(manager, context, draft)).find(({ id }) => id === target.reviewId);
  if (review === undefined) throw refusal('unknown');
  const { answers } = (await countingRows(manager, [review]))(review);
  const there = answers.some(({ itemId, withheldAt }) => itemId === target.itemId && withheldAt === null);
  if (!there) throw refusal('unknown');
}

function targetOf(key: string) {
  try {
    return decisionTarget(key);
  } catch (error) {
    if (error instanceof MisuseError) throw refusal('unknown');
    throw error;
  }
}

/** Of remarks that are there: a decision about a note that is withheld since is not told, as the note is not. */
async function viewOf(manager: EntityManager, context: ExchangeContext, draft: Draft): Promise<DecisionsView> {
  const reviews = await readReviews(manager, context, draft);
  const reviewIds = new Set(reviews.map(({ id }) => id));
  const notes = await readableNotes(manager, context, draft);
  const rows = await manager.find(DecisionRow, { where: { draftId: draft.id }, order: { key: 'ASC' } });
  const shown = rows.filter(({ key }) => {
    const target = decisionTarget(key);
    return target.kind === 'note' ? notes.has(target.noteId) : reviewIds.has(target.reviewId);
  });
  const adopted = await manager.find(AdoptionRow, { where: { draftId: draft.id }, order: { at: 'ASC', id: 'ASC' } });
  const parts = await manager.findBy(DraftPart, {
    draftId: draft.id,
    versionId: IsNull(),
    deliverableId: In(adopted.map(({ deliverableId }) => deliverableId)),
  });
  const savedOf = new Map(parts.map(({ deliverableId, html }) => [deliverableId, html]));
  return {
    decisions: shown.map(decisionView),
    adoptions: adopted
      .filter(({ noteId }) => notes.has(noteId))
      .map(({ id, noteId, deliverableId, after }) => ({ id, noteId, undoable: savedOf.get(deliverableId) === after })),
    mayAdopt: can(context, { kind: 'decide' }) && can(context, { kind: 'hand-in-revision' }),
  };
}

function writtenSince(): ProblemError {
  return new ProblemError({
    code: 'draft-changed',
    sentence: say('textHasBeenChangedSince'),
    whatToDo: say('changeWordsInYourText'),
  });
}
