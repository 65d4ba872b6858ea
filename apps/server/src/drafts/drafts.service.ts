import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import type {
  DraftReadingView,
  DraftSaveRequest,
  MyDraftView,
  SavedView,
  VersionMeta,
  VersionView,
} from '@salt-circle/contracts';
import { countWords } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import type { Person } from '../accounts/entities.js';
import { Clock } from '../clock/clock.js';
import { Database } from '../database/database.js';
import { Access, act, ownParticipant, see, type Place } from '../exchanges/access.js';
import { Labels } from '../exchanges/labels.js';
import { iso, isoOrNull } from '../exchanges/mapper.js';
import { cleanHtml } from '../html/clean-html.js';
import { htmlToText } from '../html/html-to-text.js';
import { Ids } from '../ids/ids.js';
import { ProblemError } from '../problems/problem-error.js';
import { conflict, refusal } from '../problems/sentences.js';
import { Draft, DraftVersion } from './entities.js';
import { changedSinceHandIn, lastVersion, reading } from './versions.js';

@Injectable()
export class DraftsService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly clock: Clock,
    private readonly ids: Ids,
  ) {}

  async mine(person: Person, exchangeId: string): Promise<MyDraftView> {
    const place = await this.access.exchange(person, exchangeId);
    see(place, { kind: 'own-draft' });
    return this.#view(this.database.read, place);
  }

  save(person: Person, exchangeId: string, request: DraftSaveRequest): Promise<SavedView> {
    const html = cleanHtml(request.html);
    return this.database.write(async (manager) => {
      const place = await this.access.exchange(person, exchangeId, manager);
      act(place, { kind: 'save-draft' });
      const draft = await this.#ensure(manager, place);
      const same = draft.title === request.title && draft.html === html;
      if (!same && draft.revision !== request.revision) throw conflict('Your draft', await this.#view(manager, place));
      if (same && draft.savedAt !== null) return { revision: draft.revision, savedAt: iso(draft.savedAt) };
      const revision = draft.revision + 1;
      const savedAt = this.clock.now();
      await manager.update(Draft, { id: draft.id }, { title: request.title, html, revision, savedAt });
      return { revision, savedAt: iso(savedAt) };
    });
  }

  /** Handing in the same saved state twice gives the same version: pressing twice does no harm. */
  handIn(person: Person, exchangeId: string, revision: number): Promise<VersionMeta> {
    return this.database.write(async (manager, happened) => {
      const place = await this.access.exchange(person, exchangeId, manager);
      const draft = await this.#ensure(manager, place);
      const last = await lastVersion(manager, draft.id);
      if (last !== null && draft.revision === revision && !changedSinceHandIn(draft, last)) return meta(last);
      act(place, { kind: 'hand-in' });
      if (draft.revision !== revision) throw conflict('Your draft', await this.#view(manager, place));
      const version = this.#newVersion(draft, last, place.now);
      await manager.insert(DraftVersion, version);
      happened({
        action: 'draft-handed-in',
        actorId: person.id,
        courseId: place.course.id,
        exchangeId,
        details: { version: version.number, words: version.words, digest: version.digest, at: version.handedInAt },
      });
      return meta(version);
    });
  }

  async version(person: Person, exchangeId: string, number: number): Promise<VersionView> {
    const place = await this.access.exchange(person, exchangeId);
    see(place, { kind: 'own-draft' });
    const manager = this.database.read;
    const draft = await manager.findOneBy(Draft, { participantId: ownParticipant(place).id });
    const version = draft === null ? null : await manager.findOneBy(DraftVersion, { draftId: draft.id, number });
    if (version === null) throw refusal('unknown');
    return { ...meta(version), html: version.html };
  }

  /** A handed-in draft, for staff and for its reviewers. */
  async read(person: Person, exchangeId: string, draftId: string): Promise<DraftReadingView> {
    const place = await this.access.exchange(person, exchangeId);
    const manager = this.database.read;
    const draft = await manager.findOneBy(Draft, { id: draftId, exchangeId });
    const version = draft === null ? null : await lastVersion(manager, draft.id);
    const { participant } = place;
    const allocatedToViewer =
      participant !== null && draft !== null && (await this.#isAllocated(manager, participant.id, draft.id));
    const viewerHandedIn = participant !== null && (await this.access.hasHandedIn(participant.id));
    const ofOwnDraft = participant !== null && participant.id === draft?.participantId;
    const selfReviewed = participant !== null && (await this.access.selfReviewed(participant.id));
    see(place, { kind: 'draft', allocatedToViewer, viewerHandedIn, ofOwnDraft, selfReviewed });
    if (draft === null || version === null) throw refusal('unknown');
    const labels = await Labels.ofExchange(manager, place);
    return { ...reading(version), author: labels.author(draft.participantId), handedInAt: iso(version.handedInAt) };
  }

  async #isAllocated(manager: EntityManager, reviewerId: string, draftId: string): Promise<boolean> {
    return manager.existsBy('review', { reviewerId, draftId });
  }

  async #ensure(manager: EntityManager, place: Place): Promise<Draft> {
    act(place, { kind: 'save-draft' });
    const participantId = ownParticipant(place).id;
    const known = await manager.findOneBy(Draft, { participantId });
    if (known !== null) return known;
    const fresh = {
      id: this.ids.uuid(),
      exchangeId: place.exchange.id,
      participantId,
      title: '',
      html: '',
      revision: 0,
      savedAt: null,
    };
    await manager.insert(Draft, fresh);
    return fresh;
  }

  #newVersion(draft: Draft, last: DraftVersion | null, handedInAt: number): DraftVersion {
    const title = draft.title.trim();
    const text = htmlToText(draft.html);
    if (title === '') {
      throw new ProblemError({
        code: 'draft-untitled',
        sentence: 'Your draft has no title.',
        whatToDo: 'Give it a title, then hand in.',
        fields: [{ path: 'title', code: 'missing', sentence: 'Give your draft a title.' }],
      });
    }
    if (countWords(text) === 0) {
      throw new ProblemError({
        code: 'draft-empty',
        sentence: 'Your draft has no text yet, so there would be nothing to review.',
        whatToDo: 'Write or paste your draft, then hand in.',
        fields: [{ path: 'html', code: 'missing', sentence: 'Write or paste your draft here.' }],
      });
    }
    return {
      id: this.ids.uuid(),
      draftId: draft.id,
      number: (last?.number ?? 0) + 1,
      title,
      html: draft.html,
      words: countWords(text),
      digest: createHash('sha256').update(`${title}\n\n${text}`).digest('hex'),
      handedInAt,
    };
  }

  async #view(manager: EntityManager, place: Place): Promise<MyDraftView> {
    const draft = await manager.findOneBy(Draft, { participantId: ownParticipant(place).id });
    if (draft === null)
      return { revision: 0, title: '', html: '', savedAt: null, versions: [], changedSinceHandIn: false };
    const versions = await manager.find(DraftVersion, { where: { draftId: draft.id }, order: { number: 'ASC' } });
    return {
      revision: draft.revision,
      title: draft.title,
      html: draft.html,
      savedAt: isoOrNull(draft.savedAt),
      versions: versions.map(meta),
      changedSinceHandIn: changedSinceHandIn(draft, versions.at(-1) ?? null),
    };
  }
}

function meta({ number, title, words, digest, handedInAt }: DraftVersion): VersionMeta {
  return { number, title, words, digest, handedInAt: iso(handedInAt) };
}
