import { Injectable } from '@nestjs/common';
import type {
  DraftSaveRequest,
  HideRequest,
  LinkRequest,
  MyDraftView,
  PartView,
  SavedView,
  TextSaveRequest,
  TextView,
} from '@salt-circle/contracts';
import { MAX_FILES } from '@salt-circle/core';
import { IsNull, type EntityManager } from 'typeorm';
import { Person } from '../accounts/entities.js';
import { Clock } from '../clock/clock.js';
import { Database } from '../database/database.js';
import { Access, act, see, type Place } from '../exchanges/access.js';
import { Participant } from '../exchanges/entities.js';
import { namesOf } from '../exchanges/labels.js';
import { iso, isoOrNull } from '../exchanges/instants.js';
import { cleanHtml } from '../html/clean-html.js';
import { Ids } from '../ids/ids.js';
import { ProblemError } from '../problems/problem-error.js';
import { conflict, invalid, refusal } from '../problems/sentences.js';
import { Authors } from './authors.js';
import { Draft, DraftPart, DraftPicture, DraftVersion } from './entities.js';
import { deliverableOf, ensureDraft, ownPart } from './own-draft.js';
import { picturesIn, withAddresses, withoutAddresses } from './pictures.js';
import { Readings } from './readings.js';
import { versionMetas } from './version-metas.js';
import { changedSinceHandIn, partsOf } from './versions.js';

@Injectable()
export class DraftsService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly clock: Clock,
    private readonly ids: Ids,
    private readonly readings: Readings,
  ) {}

  async mine(person: Person, exchangeId: string): Promise<MyDraftView> {
    const place = await this.access.exchange(person, exchangeId);
    see(place, { kind: 'own-draft' });
    return this.#view(this.database.read, place);
  }

  save(person: Person, exchangeId: string, request: DraftSaveRequest): Promise<SavedView> {
    const { title, context } = request;
    return this.#saving(person, exchangeId, async (manager, place, draft) => {
      const same = draft.title === title && draft.context === context;
      if (!same && draft.revision !== request.revision) {
        throw conflict('Your draft', await this.#view(manager, place), alsoBy(draft));
      }
      if (same && draft.savedAt !== null) return { revision: draft.revision, savedAt: iso(draft.savedAt) };
      const revision = draft.revision + 1;
      const savedAt = this.clock.now();
      await manager.update(Draft, { id: draft.id }, { title, context, revision, savedAt });
      return { revision, savedAt: iso(savedAt) };
    });
  }

  saveText(person: Person, exchangeId: string, deliverableId: string, request: TextSaveRequest): Promise<SavedView> {
    const given = cleanHtml(withoutAddresses(request.html), { pictures: true });
    return this.#saving(person, exchangeId, async (manager, place, draft) => {
      const { title } = deliverableOf(place, deliverableId, ['text']);
      const html = await withOwnPictures(manager, draft, given);
      const current = await manager.findOneBy(DraftPart, { draftId: draft.id, versionId: IsNull(), deliverableId });
      const same = current?.html === html;
      if (same && current.savedAt !== null) return { revision: current.revision, savedAt: iso(current.savedAt) };
      if (!same && (current?.revision ?? 0) !== request.revision) {
        throw conflict(`“${title}”`, current === null ? null : textView(current, place, draft), alsoBy(draft));
      }
      const revision = request.revision + 1;
      const savedAt = this.clock.now();
      const id = current?.id ?? this.ids.uuid();
      const row = { id, draftId: draft.id, versionId: null, deliverableId, position: 0, kind: 'text' as const };
      await manager.save(DraftPart, { ...row, html, revision, savedAt });
      return { revision, savedAt: iso(savedAt) };
    });
  }

  addLink(person: Person, exchangeId: string, deliverableId: string, link: LinkRequest): Promise<PartView> {
    return this.#saving(person, exchangeId, async (manager, place, draft) => {
      deliverableOf(place, deliverableId, ['link']);
      const position = await nextPosition(manager, draft.id, deliverableId);
      const part = manager.create(DraftPart, {
        ...emptyPart(this.ids.uuid(), draft.id, deliverableId, position),
        kind: 'link',
        ...trimmed(link),
        savedAt: this.clock.now(),
      });
      await manager.insert(DraftPart, part);
      return this.#partView(manager, place, draft, part);
    });
  }

  changeLink(person: Person, exchangeId: string, partId: string, link: LinkRequest): Promise<PartView> {
    return this.#saving(person, exchangeId, async (manager, place, draft) => {
      const part = await ownPart(manager, draft, partId);
      if (part.kind !== 'link') throw refusal('unknown');
      const next = { ...part, ...trimmed(link), savedAt: this.clock.now() };
      await manager.save(DraftPart, next);
      return this.#partView(manager, place, draft, next);
    });
  }

  /** Taking away what is gone already is no problem. */
  removePart(person: Person, exchangeId: string, partId: string): Promise<void> {
    return this.#saving(person, exchangeId, async (manager, _, draft) => {
      await manager.delete(DraftPart, { id: partId, draftId: draft.id, versionId: IsNull() });
    });
  }

  order(person: Person, exchangeId: string, deliverableId: string, partIds: readonly string[]): Promise<void> {
    return this.#saving(person, exchangeId, async (manager, _, draft) => {
      const rows = await manager.findBy(DraftPart, { draftId: draft.id, versionId: IsNull(), deliverableId });
      if (rows.length !== partIds.length || rows.some(({ id }) => !partIds.includes(id))) {
        throw conflict('The order of the files', null, alsoBy(draft));
      }
      for (const row of rows) await manager.update(DraftPart, { id: row.id }, { position: partIds.indexOf(row.id) });
    });
  }

  /** Hides a passage of a document's reading copy from reviewers, or shows it again. */
  hide(person: Person, exchangeId: string, partId: string, { start, end, hide }: HideRequest): Promise<void> {
    if (end <= start) {
      throw invalid([{ path: 'end', code: 'empty-passage', sentence: 'Choose a passage to hide.' }]);
    }
    return this.#saving(person, exchangeId, async (manager, _, draft) => {
      const part = await ownPart(manager, draft, partId);
      const others = part.hidden.filter((one) => one.start !== start || one.end !== end);
      const hidden = (hide ? [...others, { start, end }] : others).sort((a, b) => a.start - b.start).slice(0, 500);
      await manager.update(DraftPart, { id: partId }, { hidden });
    });
  }

  #saving<T>(
    person: Person,
    exchangeId: string,
    work: (manager: EntityManager, place: Place, draft: Draft) => Promise<T>,
  ): Promise<T> {
    return this.database.write(async (manager) => {
      const place = await this.access.exchange(person, exchangeId, manager);
      act(place, { kind: 'save-draft' });
      return work(manager, place, await ensureDraft(manager, place, this.ids));
    });
  }

  async #partView(manager: EntityManager, place: Place, draft: Draft, part: DraftPart): Promise<PartView> {
    const [view] = await this.readings.parts(manager, place, draft, [part], 'author');
    return view as PartView;
  }

  async #view(manager: EntityManager, place: Place): Promise<MyDraftView> {
    const { exchange } = place;
    const draft = await this.access.ownDraft(place, manager);
    const group = await groupView(manager, place);
    if (draft === null) {
      const none = { texts: {}, parts: [], versions: [], changedSinceHandIn: false };
      return { id: null, revision: 0, title: '', context: '', savedAt: null, ...none, group };
    }
    const rows = await partsOf(manager, draft.id, null, exchange.deliverables);
    const texts = rows.filter(({ kind }) => kind === 'text');
    const versions = await manager.find(DraftVersion, { where: { draftId: draft.id }, order: { number: 'ASC' } });
    const saved = [draft.savedAt, ...rows.map(({ savedAt }) => savedAt)].filter((at) => at !== null);
    return {
      id: draft.id,
      revision: draft.revision,
      title: draft.title,
      context: draft.context,
      savedAt: isoOrNull(saved.length === 0 ? null : Math.max(...saved)),
      texts: Object.fromEntries(texts.map((row) => [row.deliverableId, textView(row, place, draft)])),
      parts: await this.readings.parts(
        manager,
        place,
        draft,
        rows.filter(({ kind }) => kind !== 'text'),
        'author',
      ),
      versions: await versionMetas(manager, place, draft, versions),
      changedSinceHandIn: await changedSinceHandIn(
        manager,
        draft,
        versions.findLast(({ withdrawnAt }) => withdrawnAt === null) ?? null,
        exchange.deliverables,
      ),
      group,
    };
  }
}

export function emptyPart(id: string, draftId: string, deliverableId: string, position: number) {
  return {
    id,
    draftId,
    deliverableId,
    position,
    versionId: null,
    html: '',
    revision: 0,
    digest: null,
    captions: null,
    hidden: [],
    uploadId: null,
  };
}

/** @throws ProblemError when the deliverable has as many as it can have */
export async function nextPosition(manager: EntityManager, draftId: string, deliverableId: string): Promise<number> {
  const rows = await manager.findBy(DraftPart, { draftId, versionId: IsNull(), deliverableId });
  if (rows.length >= MAX_FILES) {
    throw new ProblemError({
      code: 'too-many-files',
      sentence: `There are ${rows.length} already, and no more than ${MAX_FILES} can be handed in here.`,
      whatToDo: 'Take one away first.',
    });
  }
  return 1 + Math.max(-1, ...rows.map(({ position }) => position));
}

function trimmed({ url, title, about }: LinkRequest): Pick<DraftPart, 'url' | 'title' | 'about'> {
  return { url: url.trim(), title: title.trim(), about: about.trim() };
}

function textView({ html, revision, savedAt }: DraftPart, { exchange }: Place, draft: Draft): TextView {
  return { html: withAddresses(html, exchange.id, draft.id), revision, savedAt: isoOrNull(savedAt) };
}

/** Pictures that were not given to this draft are taken out: an address alone gives no right to a picture. */
async function withOwnPictures(manager: EntityManager, draft: Draft, html: string): Promise<string> {
  const named = picturesIn(html);
  if (named.length === 0) return html;
  const own = new Set((await manager.findBy(DraftPicture, { draftId: draft.id })).map(({ digest }) => digest));
  return named
    .filter((digest) => !own.has(digest))
    .reduce((text, digest) => text.replace(new RegExp(`<img[^>]*picture:${digest}[^>]*>`, 'g'), ''), html);
}

async function groupView(manager: EntityManager, place: Place): Promise<MyDraftView['group']> {
  if (place.groupId === null || place.participant === null) return null;
  const authors = await Authors.load(manager, place.exchange);
  const members = authors.of({ participantId: place.participant.id, groupId: place.groupId });
  const people = await manager.findBy(Participant, { exchangeId: place.exchange.id });
  const names = await namesOf(
    manager,
    people.filter(({ id }) => members.includes(id)).map(({ personId }) => personId),
  );
  return {
    title: authors.titleOf(place.groupId) ?? '',
    members: [...names.values()].sort((a, b) => a.localeCompare(b)),
  };
}

/** Who else may have changed it. */
function alsoBy({ groupId }: Draft): string {
  return groupId === null ? '' : ' or by somebody of your group';
}
