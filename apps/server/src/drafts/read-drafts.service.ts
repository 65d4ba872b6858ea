import { Injectable } from '@nestjs/common';
import type { DraftReadingView, VersionView } from '@salt-circle/contracts';
import type { EntityManager } from 'typeorm';
import type { Person } from '../accounts/entities.js';
import { Database } from '../database/database.js';
import { Access, isOwnDraft, see, type Place } from '../exchanges/access.js';
import { iso } from '../exchanges/instants.js';
import { Labels } from '../exchanges/labels.js';
import { refusal } from '../problems/sentences.js';
import { Draft, DraftVersion } from './entities.js';
import { Readings, readerOf } from './readings.js';
import { versionMetas } from './version-metas.js';
import { lastVersion } from './versions.js';

/** Handed-in drafts, for their authors, for staff and for reviewers. */
@Injectable()
export class ReadDraftsService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly readings: Readings,
  ) {}

  async version(person: Person, exchangeId: string, number: number): Promise<VersionView> {
    const place = await this.access.exchange(person, exchangeId);
    see(place, { kind: 'own-draft' });
    return this.#version(place, await this.access.ownDraft(place), number, 'author');
  }

  /** An earlier version, for staff. */
  async versionOf(person: Person, exchangeId: string, draftId: string, number: number): Promise<VersionView> {
    const place = await this.access.exchange(person, exchangeId);
    see(place, { kind: 'workspace' });
    return this.#version(
      place,
      await this.database.read.findOneBy(Draft, { id: draftId, exchangeId }),
      number,
      'staff',
    );
  }

  async #version(place: Place, draft: Draft | null, number: number, reader: 'author' | 'staff'): Promise<VersionView> {
    const manager = this.database.read;
    const version = draft === null ? null : await manager.findOneBy(DraftVersion, { draftId: draft.id, number });
    if (draft === null || version === null) throw refusal('unknown');
    const reading = await this.readings.of(manager, place, draft, version, reader);
    const [meta] = await versionMetas(manager, place, draft, [version]);
    return { ...(meta as NonNullable<typeof meta>), context: version.context, html: reading.html, reading };
  }

  /** A handed-in draft, for staff and for its reviewers. */
  async read(person: Person, exchangeId: string, draftId: string): Promise<DraftReadingView> {
    const place = await this.access.exchange(person, exchangeId);
    const manager = this.database.read;
    const draft = await this.#readable(manager, place, draftId);
    const version = await lastVersion(manager, draft.id);
    if (version === null) throw refusal('unknown');
    const labels = await Labels.ofExchange(manager, place);
    const staff = place.viewer.role !== 'student';
    const all = staff ? await manager.find(DraftVersion, { where: { draftId }, order: { number: 'ASC' } }) : [];
    const metas = await versionMetas(manager, place, draft, all);
    return {
      ...(await this.readings.of(manager, place, draft, version, readerOf(place))),
      author: labels.authorOf(draft),
      handedInAt: iso(version.handedInAt),
      late: metas.find(({ number }) => number === version.number)?.late ?? null,
      versions: metas,
    };
  }

  /** @throws ProblemError unless the one who asks may read this draft as a reviewer or as staff */
  async #readable(manager: EntityManager, place: Place, draftId: string): Promise<Draft> {
    const draft = await manager.findOneBy(Draft, { id: draftId, exchangeId: place.exchange.id });
    const { participant } = place;
    see(place, {
      kind: 'draft',
      allocatedToViewer:
        participant !== null &&
        draft !== null &&
        (await manager.existsBy('review', { reviewerId: participant.id, draftId: draft.id })),
      viewerHandedIn: await this.access.hasHandedIn(place),
      ofOwnDraft: isOwnDraft(place, draft),
      selfReviewed: await this.access.selfReviewed(place),
    });
    if (draft === null) throw refusal('unknown');
    return draft;
  }

  /** Where somebody stands to a draft whose files are asked for: as an author, as staff, or as a reviewer. */
  async reading(
    person: Person,
    exchangeId: string,
    draftId: string,
  ): Promise<{ place: Place; draft: Draft; own: boolean }> {
    const place = await this.access.exchange(person, exchangeId);
    const mine = await this.access.ownDraft(place);
    if (mine !== null && mine.id === draftId) {
      see(place, { kind: 'own-draft' });
      return { place, draft: mine, own: true };
    }
    return { place, draft: await this.#readable(this.database.read, place, draftId), own: false };
  }
}
