import { Injectable } from '@nestjs/common';
import type { DraftReadingView, VersionView } from '@salt-circle/contracts';
import { readerOf, type Reader } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { Access, assertCanSee, canSee, type ExchangeContext } from '../../permissions/access.js';
import { PersonLabels } from '../../queries/person-labels.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { draftRelation, draftAccess, type DraftAccess } from '../../permissions/draft-access.js';
import { versionMetas } from '../../queries/version-metas.js';
import { countingVersion, lastRevision, reviewedVersion } from '../../queries/versions.js';
import { Draft, DraftPart, DraftVersion } from '../../model/draft.js';
import { Database } from '../../platform/database/database.js';
import { refusal } from '../../platform/problems/sentences.js';
import { iso } from '../../platform/wire/instants.js';
import { Readings } from './readings.service.js';

/** Handed-in drafts, for their authors, for staff and for reviewers. */
@Injectable()
export class ReadDraftsService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly readings: Readings,
  ) {}

  async version(person: CurrentUser, exchangeId: string, number: number): Promise<VersionView> {
    const context = await this.access.exchange(person, exchangeId);
    assertCanSee(context, { kind: 'own-draft' });
    return this.#version(context, await this.access.ownDraft(context), number, 'author');
  }

  /** An earlier version, for staff. */
  async versionOf(person: CurrentUser, exchangeId: string, draftId: string, number: number): Promise<VersionView> {
    const context = await this.access.exchange(person, exchangeId);
    assertCanSee(context, { kind: 'workspace' });
    return this.#version(
      context,
      await this.database.read.findOneBy(Draft, { id: draftId, exchangeId }),
      number,
      'staff',
    );
  }

  async #version(context: ExchangeContext, draft: Draft | null, number: number, reader: Reader): Promise<VersionView> {
    const manager = this.database.read;
    const version = draft === null ? null : await manager.findOneBy(DraftVersion, { draftId: draft.id, number });
    if (draft === null || version === null) throw refusal('unknown');
    const reading = await this.readings.of(manager, context, draft, version, reader);
    const [meta] = await versionMetas(manager, context, draft, [version]);
    return { ...(meta as NonNullable<typeof meta>), context: version.context, reading };
  }

  /** A handed-in draft, for staff and for its reviewers: each the version that they review, or the one that counts. */
  async read(person: CurrentUser, exchangeId: string, draftId: string): Promise<DraftReadingView> {
    const context = await this.access.exchange(person, exchangeId);
    const manager = this.database.read;
    const access = await this.#readable(manager, context, draftId);
    const { draft } = access;
    const version = await versionFor(manager, access);
    if (version === null) throw refusal('unknown');
    const labels = await PersonLabels.ofExchange(manager, context);
    const told = canSee(context, { kind: 'versions', ...draftRelation(access), ofOwnDraft: false });
    const all = told ? await manager.find(DraftVersion, { where: { draftId }, order: { number: 'ASC' } }) : [];
    const metas = await versionMetas(manager, context, draft, all);
    // Also somebody who reviews the own draft reads it here as a reviewer does.
    const reader = readerOf(context.viewer, { ofOwnDraft: false });
    return {
      ...(await this.readings.of(manager, context, draft, version, reader)),
      author: labels.authorOf(draft),
      handedInAt: iso(version.handedInAt),
      late: metas.find(({ number }) => number === version.number)?.late ?? null,
      versions: metas,
    };
  }

  /** @throws ProblemError unless the one who asks may read this draft as a reviewer or as staff */
  async #readable(manager: EntityManager, context: ExchangeContext, draftId: string): Promise<DraftAccess> {
    const draft = await manager.findOneBy(Draft, { id: draftId, exchangeId: context.exchange.id });
    if (draft === null) throw refusal('unknown');
    const access = await draftAccess(manager, context, draft);
    assertCanSee(context, { kind: 'draft', ...draftRelation(access) });
    return access;
  }

  /** Where somebody stands to a draft of which a picture is asked for: as an author, as staff, or as a reviewer. */
  async reading(person: CurrentUser, exchangeId: string, draftId: string): Promise<DraftAccess> {
    const context = await this.access.exchange(person, exchangeId);
    const manager = this.database.read;
    const mine = await this.access.ownDraft(context);
    if (mine === null || mine.id !== draftId) return this.#readable(manager, context, draftId);
    assertCanSee(context, { kind: 'own-draft' });
    return draftAccess(manager, context, mine);
  }

  /** A part whose file is asked for. @throws ProblemError for parts that are not for the one who asks */
  async part(
    person: CurrentUser,
    exchangeId: string,
    draftId: string,
    partId: string,
  ): Promise<{ readonly access: DraftAccess; readonly part: DraftPart }> {
    const access = await this.reading(person, exchangeId, draftId);
    const manager = this.database.read;
    const part = await manager.findOneBy(DraftPart, { id: partId, draftId: access.draft.id });
    if (part === null) throw refusal('unknown');
    const current =
      part.versionId !== null &&
      (part.versionId === (await versionFor(manager, access))?.id ||
        (canSee(access.context, { kind: 'revision', ...draftRelation(access) }) &&
          part.versionId === (await lastRevision(manager, draftId))?.id));
    assertCanSee(access.context, { kind: 'part', ...draftRelation(access), saved: part.versionId === null, current });
    return { access, part };
  }
}

/** The version that somebody reads: who reviews the draft, the one that the review is of; everybody else, the one that counts. */
function versionFor(manager: EntityManager, { draft, review }: DraftAccess): Promise<DraftVersion | null> {
  return review === null ? countingVersion(manager, draft.id) : reviewedVersion(manager, review);
}
