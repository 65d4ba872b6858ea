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
import { IsNull, type EntityManager } from 'typeorm';
import type { CurrentUser } from '../../auth/view-as.js';
import { Clock } from '../../platform/clock/clock.js';
import { Database } from '../../platform/database/database.js';
import { Access, assertCan, assertCanSee, type ExchangeContext } from '../../permissions/access.js';
import { Participant } from '../../model/exchange.js';
import { courseNames } from '../../queries/course-identities.js';
import { iso, isoOrNull } from '../../platform/wire/instants.js';
import { cleanHtml } from '../../platform/html/clean-html.js';
import { Ids } from '../../platform/ids/ids.js';
import { conflict, invalid, refusal } from '../../platform/problems/sentences.js';
import { Authors } from '../../queries/authors.js';
import { Draft, DraftPart, DraftPicture, DraftVersion } from '../../model/draft.js';
import { OwnDrafts } from './own-draft.service.js';
import { picturesIn, withAddresses, withoutAddresses } from '../../platform/html/pictures-in-text.js';
import { Readings } from '../reading/readings.service.js';
import { versionMetas } from '../../queries/version-metas.js';
import { changedSinceHandIn, partsOf } from '../../queries/versions.js';
import { say } from '../../words/drafts.js';

@Injectable()
export class DraftsService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly clock: Clock,
    private readonly ids: Ids,
    private readonly readings: Readings,
    private readonly drafts: OwnDrafts,
  ) {}

  async mine(person: CurrentUser, exchangeId: string): Promise<MyDraftView> {
    const context = await this.access.exchange(person, exchangeId);
    assertCanSee(context, { kind: 'own-draft' });
    return this.#view(this.database.read, context);
  }

  save(person: CurrentUser, exchangeId: string, request: DraftSaveRequest): Promise<SavedView> {
    const { title, context: note } = request;
    return this.#saving(person, exchangeId, async (manager, context, draft) => {
      const same = draft.title === title && draft.context === note;
      if (!same && draft.revision !== request.revision) {
        throw conflict(say('yourDraft'), await this.#view(manager, context), draft.groupId !== null);
      }
      if (same && draft.savedAt !== null) return { revision: draft.revision, savedAt: iso(draft.savedAt) };
      const revision = draft.revision + 1;
      const savedAt = this.clock.now();
      await manager.update(Draft, { id: draft.id }, { title, context: note, revision, savedAt });
      return { revision, savedAt: iso(savedAt) };
    });
  }

  saveText(
    person: CurrentUser,
    exchangeId: string,
    deliverableId: string,
    request: TextSaveRequest,
  ): Promise<SavedView> {
    const given = cleanHtml(withoutAddresses(request.html), { pictures: true });
    return this.#saving(person, exchangeId, async (manager, context, draft) => {
      const { title } = this.drafts.deliverable(context, deliverableId, ['text']);
      const html = await withOwnPictures(manager, draft, given);
      const current = await manager.findOneBy(DraftPart, { draftId: draft.id, versionId: IsNull(), deliverableId });
      const same = current?.html === html;
      if (same && current.savedAt !== null) return { revision: current.revision, savedAt: iso(current.savedAt) };
      if (!same && (current?.revision ?? 0) !== request.revision) {
        throw conflict(
          `“${title}”`,
          current === null ? null : textView(current, context, draft),
          draft.groupId !== null,
        );
      }
      const revision = request.revision + 1;
      const savedAt = this.clock.now();
      const id = current?.id ?? this.ids.uuid();
      const row = { id, draftId: draft.id, versionId: null, deliverableId, position: 0, kind: 'text' as const };
      await manager.save(DraftPart, { ...row, html, revision, savedAt });
      return { revision, savedAt: iso(savedAt) };
    });
  }

  addLink(person: CurrentUser, exchangeId: string, deliverableId: string, link: LinkRequest): Promise<PartView> {
    return this.#saving(person, exchangeId, async (manager, context, draft) => {
      this.drafts.deliverable(context, deliverableId, ['link']);
      const part = await this.drafts.newPart(manager, draft, deliverableId, {
        kind: 'link',
        ...trimmed(link),
        savedAt: this.clock.now(),
      });
      return this.#partView(manager, context, draft, part);
    });
  }

  changeLink(person: CurrentUser, exchangeId: string, partId: string, link: LinkRequest): Promise<PartView> {
    return this.#saving(person, exchangeId, async (manager, context, draft) => {
      const part = await this.drafts.part(manager, draft, partId);
      if (part.kind !== 'link') throw refusal('unknown');
      const next = { ...part, ...trimmed(link), savedAt: this.clock.now() };
      await manager.save(DraftPart, next);
      return this.#partView(manager, context, draft, next);
    });
  }

  /** Taking away what is gone already is no problem. */
  removePart(person: CurrentUser, exchangeId: string, partId: string): Promise<void> {
    return this.#saving(person, exchangeId, async (manager, _, draft) => {
      await manager.delete(DraftPart, { id: partId, draftId: draft.id, versionId: IsNull() });
    });
  }

  order(person: CurrentUser, exchangeId: string, deliverableId: string, partIds: readonly string[]): Promise<void> {
    return this.#saving(person, exchangeId, async (manager, _, draft) => {
      const rows = await manager.findBy(DraftPart, { draftId: draft.id, versionId: IsNull(), deliverableId });
      if (rows.length !== partIds.length || rows.some(({ id }) => !partIds.includes(id))) {
        throw conflict(say('orderOfFiles'), null, draft.groupId !== null);
      }
      for (const row of rows) await manager.update(DraftPart, { id: row.id }, { position: partIds.indexOf(row.id) });
    });
  }

  /** Hides a passage of a document's reading copy from reviewers, or shows it again. */
  hide(person: CurrentUser, exchangeId: string, partId: string, { start, end, hide }: HideRequest): Promise<void> {
    if (end <= start) {
      throw invalid([{ path: 'end', code: 'empty-passage', sentence: say('choosePassageToHide') }]);
    }
    return this.#saving(person, exchangeId, async (manager, _, draft) => {
      const part = await this.drafts.part(manager, draft, partId);
      const others = part.hidden.filter((one) => one.start !== start || one.end !== end);
      const hidden = (hide ? [...others, { start, end }] : others).sort((a, b) => a.start - b.start).slice(0, 500);
      await manager.update(DraftPart, { id: partId }, { hidden });
    });
  }

  #saving<T>(
    person: CurrentUser,
    exchangeId: string,
    work: (manager: EntityManager, context: ExchangeContext, draft: Draft) => Promise<T>,
  ): Promise<T> {
    return this.database.write(async (manager, emit) => {
      const context = await this.access.exchange(person, exchangeId, manager);
      assertCan(context, { kind: 'save-draft' });
      const draft = await this.drafts.ensure(manager, context);
      await this.drafts.tell(manager, emit, context, draft);
      return work(manager, context, draft);
    });
  }

  async #partView(manager: EntityManager, context: ExchangeContext, draft: Draft, part: DraftPart): Promise<PartView> {
    const [view] = await this.readings.parts(manager, context, draft, [part], 'author');
    return view as PartView;
  }

  async #view(manager: EntityManager, context: ExchangeContext): Promise<MyDraftView> {
    const { exchange } = context;
    const draft = await this.access.ownDraft(context, manager);
    const group = await groupView(manager, context);
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
      texts: Object.fromEntries(texts.map((row) => [row.deliverableId, textView(row, context, draft)])),
      parts: await this.readings.parts(
        manager,
        context,
        draft,
        rows.filter(({ kind }) => kind !== 'text'),
        'author',
      ),
      versions: await versionMetas(manager, context, draft, versions),
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

function trimmed({ url, title, about }: LinkRequest): Pick<DraftPart, 'url' | 'title' | 'about'> {
  return { url: url.trim(), title: title.trim(), about: about.trim() };
}

function textView({ html, revision, savedAt }: DraftPart, { exchange }: ExchangeContext, draft: Draft): TextView {
  return {
    html: withAddresses(html, `exchanges/${exchange.id}/drafts/${draft.id}`),
    revision,
    savedAt: isoOrNull(savedAt),
  };
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

async function groupView(manager: EntityManager, context: ExchangeContext): Promise<MyDraftView['group']> {
  if (context.groupId === null || context.participant === null) return null;
  const authors = await Authors.load(manager, context.exchange);
  const members = authors.of({ participantId: context.participant.id, groupId: context.groupId });
  const people = await manager.findBy(Participant, { exchangeId: context.exchange.id });
  const names = await courseNames(
    manager,
    context.course.id,
    people.filter(({ id }) => members.includes(id)).map(({ personId }) => personId),
  );
  return {
    title: authors.titleOf(context.groupId) ?? '',
    members: [...names.values()].sort((a, b) => a.localeCompare(b)),
  };
}
