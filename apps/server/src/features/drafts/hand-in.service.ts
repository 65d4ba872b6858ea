import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import type { FieldProblem, HandInCheck, HandInRequest, VersionMeta } from '@salt-circle/contracts';
import { feedbackIsOpen } from '@salt-circle/core';
import { IsNull, type EntityManager } from 'typeorm';
import type { CurrentUser } from '../../auth/view-as.js';
import { Clock } from '../../platform/clock/clock.js';
import { Database, type EmitEvent } from '../../platform/database/database.js';
import { insertAll } from '../../platform/database/insert-all.js';
import { authorPersons } from '../../queries/authors.js';
import { Access, assertCan, type ExchangeContext } from '../../permissions/access.js';
import { withFootnote } from '../../platform/html/footnotes.js';
import { HIDDEN, hideInHtml } from '../../platform/html/hide-in-html.js';
import { htmlToText } from '../../platform/html/html-to-text.js';
import { Ids } from '../../platform/ids/ids.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { refusal } from '../../platform/problems/sentences.js';
import { Review } from '../../model/review.js';
import { Draft, DraftPart, DraftVersion } from '../../model/draft.js';
import type { LocatedFind } from './name-finds.js';
import { assertComplete, problemsOf, remarksOf, type HandInState } from './hand-in-problems.js';
import { NameSearch } from './name-search.service.js';
import { Readings } from '../reading/readings.service.js';
import { lateView, versionMeta } from '../../queries/version-meta.js';
import { contentDigest, countingVersion, filesOfParts, lastRevision, partsOf } from '../../queries/versions.js';
import { say } from '../../words/drafts.js';

@Injectable()
export class HandInService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly clock: Clock,
    private readonly ids: Ids,
    private readonly readings: Readings,
    private readonly names: NameSearch,
  ) {}

  /** What handing in now would mean: what is missing, what it costs, and what may tell a name. */
  async check(person: CurrentUser, exchangeId: string): Promise<HandInCheck> {
    const { finds, ...standing } = await this.#look(person, exchangeId);
    const { context, fingerprint, reading } = standing;
    return {
      fingerprint,
      problems: [...problemsOf(standing), ...(await this.#unchanged(this.database.read, standing))],
      remarks: remarksOf(standing),
      purpose: purposeOf(context),
      late: purposeOf(context) === 'revision' ? null : lateView(context.exchange, context.own, context.now),
      finds: finds.map(({ view }) => view),
      hidden: hiddenPassages(standing),
      reading,
    };
  }

  /** Hides one of the finds from reviewers: in typed words by a mark in their place, in a document in its copy. */
  async hide(person: CurrentUser, exchangeId: string, fingerprint: string, key: string): Promise<HandInCheck> {
    const looked = await this.#look(person, exchangeId);
    const find = looked.finds.find(({ view }) => view.key === key);
    if (looked.fingerprint !== fingerprint) throw changedSince();
    if (find === undefined || !find.view.hideable) throw refusal('unknown');
    await this.database.write(async (manager) => {
      const state = await this.#standingOf(person, exchangeId, manager);
      if (state.fingerprint !== fingerprint) throw changedSince();
      await this.#hide(manager, state.draft, find);
    });
    return this.check(person, exchangeId);
  }

  async #hide(manager: EntityManager, draft: Draft, { view, within }: LocatedFind): Promise<void> {
    const { start, end, where } = view;
    const savedAt = this.clock.now();
    const without = (text: string) => text.slice(0, start) + HIDDEN + text.slice(end);
    if (where === 'title' || where === 'context') {
      const revision = draft.revision + 1;
      await manager.update(Draft, { id: draft.id }, { [where]: without(draft[where]), revision, savedAt });
      return;
    }
    const part = within.part as DraftPart;
    const typed = (html: string) => ({ html, revision: part.revision + 1, savedAt });
    const hidden =
      within.footnote !== null
        ? typed(withFootnote(part.html, within.footnote, without(within.text)))
        : where === 'text'
          ? typed(hideInHtml(part.html, [{ start, end }]))
          : { hidden: [...part.hidden, { start, end }].sort((a, b) => a.start - b.start) };
    await manager.update(DraftPart, { id: part.id }, hidden);
  }

  /** Handing in the same saved state twice gives the same version: pressing twice does no harm. */
  async handIn(person: CurrentUser, exchangeId: string, request: HandInRequest): Promise<VersionMeta> {
    const { fingerprint, namesSeen, changes = '' } = request;
    // Before the transaction, which nobody else's saving should wait for; the fingerprint ties the two together.
    const told = namesSeen ? null : await this.#look(person, exchangeId);
    return this.database.write(async (manager, emit) => {
      const state = await this.#standingOf(person, exchangeId, manager, 'look');
      const { context, draft, parts } = state;
      const revises = handingIn(context) === 'hand-in-revision';
      const last = revises ? await lastRevision(manager, draft.id) : await countingVersion(manager, draft.id);
      const same = state.fingerprint === fingerprint;
      if (same && last !== null && last.digest === contentDigest(draft, parts))
        return meta(manager, context, draft, last);
      assertCan(context, { kind: handingIn(context) });
      if (!same || (told !== null && told.fingerprint !== fingerprint)) throw changedSince();
      assertComplete([...problemsOf(state), ...(await this.#unchanged(manager, state))]);
      if (told?.finds.some(({ view }) => !view.removed) === true) throw namesFound();
      return this.#keep(manager, emit, person, state, changes.trim());
    });
  }

  /** Hands in what a student has saved, whatever the dates: for staff, with the student's version history going on. */
  async handInFor(
    person: CurrentUser,
    context: ExchangeContext,
    draft: Draft,
    manager: EntityManager,
    emit: EmitEvent,
  ): Promise<VersionMeta> {
    const state = await this.#standing(manager, context, draft);
    assertComplete(problemsOf(state));
    return this.#keep(manager, emit, person, state);
  }

  /** Takes back what was handed in. Everything stays saved, and can be handed in again while that is open. */
  async withdraw(person: CurrentUser, exchangeId: string): Promise<void> {
    await this.database.write(async (manager, emit) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: handingIn(context) });
      const draft = await this.access.ownDraft(context, manager);
      if (purposeOf(context) === 'revision') {
        await this.#withdrawRevision(manager, emit, context, draft);
        return;
      }
      const last = draft === null ? null : await countingVersion(manager, draft.id);
      if (draft === null || last === null) return;
      if (await manager.existsBy(Review, { draftId: draft.id })) {
        throw new ProblemError({
          code: 'allocation-begun',
          sentence: say('yourDraftHasBeenGiven'),
          whatToDo: say('handInBetterVersionInstead'),
        });
      }
      await manager.update(
        DraftVersion,
        { draftId: draft.id, withdrawnAt: IsNull(), purpose: 'draft' },
        { withdrawnAt: this.clock.now() },
      );
      emit({
        action: 'draft-withdrawn',
        actorId: person.id,
        courseId: context.course.id,
        exchangeId,
        details: { version: last.number, draft: draft.id },
      });
    });
  }

  /** The draft that was reviewed stays as it is. */
  async #withdrawRevision(
    manager: EntityManager,
    emit: EmitEvent,
    context: ExchangeContext,
    draft: Draft | null,
  ): Promise<void> {
    const last = draft === null ? null : await lastRevision(manager, draft.id);
    if (draft === null || last === null) return;
    const those = { draftId: draft.id, withdrawnAt: IsNull(), purpose: 'revision' as const };
    await manager.update(DraftVersion, those, { withdrawnAt: this.clock.now() });
    emit({
      ...{ action: 'revision-withdrawn', actorId: context.person.id },
      ...{ courseId: context.course.id, exchangeId: context.exchange.id },
      details: { version: last.number, draft: draft.id },
    });
  }

  async #standing(manager: EntityManager, context: ExchangeContext, draft: Draft): Promise<HandInState> {
    const parts = await partsOf(manager, draft.id, null, context.exchange.deliverables);
    const fingerprint = createHash('sha256')
      .update(`${draft.id}\n${contentDigest(draft, parts)}`)
      .digest('base64url');
    return {
      context,
      draft,
      parts,
      files: await filesOfParts(manager, parts),
      reading: await this.readings.preview(manager, context, draft, parts),
      fingerprint,
    };
  }

  /** Where the own draft stands, with what may tell a name in it. */
  async #look(
    person: CurrentUser,
    exchangeId: string,
  ): Promise<HandInState & { readonly finds: readonly LocatedFind[] }> {
    const manager = this.database.read;
    const state = await this.#standingOf(person, exchangeId, manager);
    const { context, draft, parts, files } = state;
    return { ...state, finds: await this.names.finds(manager, context.exchange, draft, parts, files) };
  }

  /** @param how `look` leaves it to the caller to ask whether it can be handed in now */
  async #standingOf(
    person: CurrentUser,
    exchangeId: string,
    manager: EntityManager,
    how: 'act' | 'look' = 'act',
  ): Promise<HandInState> {
    const context = await this.access.exchange(person, exchangeId, manager);
    const draft = await this.access.ownDraft(context, manager);
    if (how === 'act' || draft === null) assertCan(context, { kind: handingIn(context) });
    if (draft === null) throw nothingSaved();
    return this.#standing(manager, context, draft);
  }

  /** A revision in which nothing was changed is none. */
  async #unchanged(manager: EntityManager, { context, draft, parts }: HandInState): Promise<FieldProblem[]> {
    if (purposeOf(context) !== 'revision') return [];
    const reviewed = await countingVersion(manager, draft.id);
    if (reviewed === null || reviewed.digest !== contentDigest(draft, parts)) return [];
    const sentence = say('nothingHasBeenChangedSince');
    return [{ path: 'parts', code: 'unchanged', sentence }];
  }

  async #keep(
    manager: EntityManager,
    emit: EmitEvent,
    person: CurrentUser,
    state: HandInState,
    changes = '',
  ): Promise<VersionMeta> {
    const { context, draft, parts, reading } = state;
    // Numbers go on over what was taken back: a number never means two things.
    const before = await manager.maximum(DraftVersion, 'number', { draftId: draft.id });
    const version = manager.create(DraftVersion, {
      id: this.ids.uuid(),
      draftId: draft.id,
      number: (before ?? 0) + 1,
      title: draft.title.trim(),
      context: draft.context.trim(),
      // Staff who hand in for a student hand in the draft.
      purpose: context.viewer.role === 'student' ? purposeOf(context) : 'draft',
      changes,
      words: reading.words,
      digest: contentDigest(draft, parts),
      handedInAt: context.now,
      handedInBy: person.id,
      withdrawnAt: null,
    });
    await manager.insert(DraftVersion, version);
    const copies = parts
      .filter(({ kind, html }) => kind !== 'text' || html !== '')
      .map((part) => ({ ...part, id: this.ids.uuid(), versionId: version.id, uploadId: null }));
    await insertAll(manager, DraftPart, copies);
    const forStudent = context.viewer.role !== 'student';
    const where = { courseId: context.course.id, exchangeId: context.exchange.id };
    const personIds = await authorPersons(manager, context.exchange, draft);
    emit.quietly({ topic: 'own-draft', ...where, personIds });
    emit({
      action: forStudent
        ? 'draft-handed-in-for'
        : version.purpose === 'revision'
          ? 'revision-handed-in'
          : 'draft-handed-in',
      actorId: person.id,
      courseId: context.course.id,
      exchangeId: context.exchange.id,
      details: {
        version: version.number,
        words: version.words,
        digest: version.digest,
        at: context.now,
        draft: draft.id,
      },
    });
    return meta(manager, context, draft, version);
  }
}

/** As long as drafts are taken, what is handed in is the draft; later, where it is planned, the revision. */
function purposeOf({ facts }: ExchangeContext): DraftVersion['purpose'] {
  return !facts.may.handIn && facts.may.revision && feedbackIsOpen(facts) ? 'revision' : 'draft';
}

function handingIn(context: ExchangeContext): 'hand-in' | 'hand-in-revision' {
  return purposeOf(context) === 'revision' ? 'hand-in-revision' : 'hand-in';
}

/** What is hidden from reviewers in copies of documents, so that it can be shown again. */
function hiddenPassages({ parts, files, reading }: HandInState): HandInCheck['hidden'] {
  return parts.flatMap(({ id, digest, hidden }) => {
    const file = files.get(digest ?? '');
    if (hidden.length === 0 || file?.copyHtml == null) return [];
    const text = htmlToText(file.copyHtml);
    const deliverable = reading.parts.find((one) => one.id === id)?.deliverable ?? '';
    return hidden.map(({ start, end }) => ({ partId: id, deliverable, start, end, words: text.slice(start, end) }));
  });
}

async function meta(
  manager: EntityManager,
  context: ExchangeContext,
  draft: Draft,
  version: DraftVersion,
): Promise<VersionMeta> {
  const parts = await partsOf(manager, draft.id, version.id, context.exchange.deliverables);
  return versionMeta(context.exchange, context.own, version, parts, null);
}

function nothingSaved(): ProblemError {
  return new ProblemError({
    code: 'draft-empty',
    sentence: say('yourDraftIsEmptySo'),
    whatToDo: say('writeYourDraftOrAdd'),
  });
}

function changedSince(): ProblemError {
  return new ProblemError({
    code: 'draft-changed',
    sentence: say('draftHasBeenChangedSince'),
    whatToDo: say('lookAtItAgainThen'),
  });
}

function namesFound(): ProblemError {
  return new ProblemError({
    code: 'names-found',
    sentence: say('somethingInDraftMayTell'),
    whatToDo: say('lookAtEachPlaceAnd'),
  });
}
