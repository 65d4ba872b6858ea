import { Injectable } from '@nestjs/common';
import type {
  LibraryAddRequest,
  LibraryCard,
  LibraryFormRequest,
  LibraryFormView,
  LibraryView,
  SavedView,
  ShorthandEntry,
  ShorthandRequest,
  ShorthandView,
} from '@salt-circle/contracts';
import { checkForm, EMPTY_FORM, formMaximum, usualShorthand } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import type { CurrentUser } from '../../auth/view-as.js';
import { Clock } from '../../platform/clock/clock.js';
import { Database, type EmitEvent } from '../../platform/database/database.js';
import { Access, assertCan, assertCanSee } from '../../permissions/access.js';
import { formOf } from '../../queries/review-form.js';
import { iso } from '../../platform/wire/instants.js';
import { settingsOf } from '../../queries/plan-settings.js';
import { formFrom } from '../../platform/wire/form-from.js';
import { Ids } from '../../platform/ids/ids.js';
import { conflict, formProblem, invalid, refusal } from '../../platform/problems/sentences.js';
import { LibraryItem, type LibraryContents, type LibraryKind } from '../../model/library.js';
import { say } from '../../words/library.js';

@Injectable()
export class LibraryService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly clock: Clock,
    private readonly ids: Ids,
  ) {}

  async list(person: CurrentUser, courseId: string): Promise<LibraryView> {
    await this.#assertMaySee(person, courseId);
    const items = await this.database.read.find(LibraryItem, { where: { courseId } });
    return { entries: items.map(card).sort((a, b) => a.title.localeCompare(b.title)) };
  }

  async form(person: CurrentUser, courseId: string, id: string): Promise<LibraryFormView> {
    await this.#assertMaySee(person, courseId);
    return formView(await itemOf(this.database.read, courseId, id, 'form'));
  }

  async shorthand(person: CurrentUser, courseId: string, id: string): Promise<ShorthandView> {
    await this.#assertMaySee(person, courseId);
    return shorthandView(await itemOf(this.database.read, courseId, id, 'shorthand'));
  }

  add(person: CurrentUser, courseId: string, request: LibraryAddRequest): Promise<{ id: string }> {
    return this.changing(person, courseId, async (manager) => {
      const content = await this.#contentFrom(manager, person, courseId, request);
      return this.insert(manager, courseId, request.kind, request.title, content);
    });
  }

  saveForm(person: CurrentUser, courseId: string, id: string, request: LibraryFormRequest): Promise<SavedView> {
    return this.changing(person, courseId, async (manager) => {
      const item = await itemOf(manager, courseId, id, 'form');
      const content = formFrom(request);
      return this.#save(manager, item, request, content, () => formView(item));
    });
  }

  saveShorthand(person: CurrentUser, courseId: string, id: string, request: ShorthandRequest): Promise<SavedView> {
    return this.changing(person, courseId, async (manager) => {
      const item = await itemOf(manager, courseId, id, 'shorthand');
      const keys = request.entries.map(({ key }) => key.toLowerCase());
      const twice = keys.findIndex((key, index) => keys.indexOf(key) !== index);
      if (twice !== -1) {
        const sentence = say('keyStandsForTwoLabels', { key: keys[twice] ?? '' });
        throw invalid([{ path: `entries.${twice}.key`, code: 'key-twice', sentence }]);
      }
      const entries = request.entries.map(({ key, label, meaning, group = '' }) => ({
        key: key.toLowerCase(),
        label: label.trim(),
        meaning: meaning.trim(),
        group: group.trim(),
      }));
      return this.#save(manager, item, request, { entries }, () => shorthandView(item));
    });
  }

  remove(person: CurrentUser, courseId: string, id: string): Promise<void> {
    return this.changing(person, courseId, async (manager) => {
      const { affected } = await manager.delete(LibraryItem, { id, courseId });
      if (affected === 0) throw refusal('unknown');
    });
  }

  /** To another course in which the same person is an instructor, or once more to this one. */
  copy(person: CurrentUser, courseId: string, id: string, targetId: string): Promise<{ id: string }> {
    return this.changing(person, courseId, async (manager) => {
      const context = await this.access.course(person, targetId);
      assertCan(context, { kind: 'manage-course' });
      const item = await manager.findOneBy(LibraryItem, { id, courseId });
      if (item === null) throw refusal('unknown');
      const title = targetId === courseId ? say('copy', { title: item.title }) : item.title;
      return this.insert(manager, targetId, item.kind, title, item.content);
    });
  }

  async insert(
    manager: EntityManager,
    courseId: string,
    kind: LibraryKind,
    title: string,
    content: LibraryContents[LibraryKind],
  ): Promise<{ id: string }> {
    const id = this.ids.uuid();
    const row = { id, courseId, kind, title: title.trim(), content, revision: 1, changedAt: this.clock.now() };
    await manager.createQueryBuilder().insert().into(LibraryItem).values(row).updateEntity(false).execute();
    return { id };
  }

  /** For what must be known before work that takes long; the change itself asks again. */
  async assertMayChange(person: CurrentUser, courseId: string): Promise<void> {
    assertCan(await this.access.course(person, courseId), { kind: 'manage-course' });
  }

  changing<T>(
    person: CurrentUser,
    courseId: string,
    work: (manager: EntityManager, emit: EmitEvent) => Promise<T>,
  ): Promise<T> {
    return this.database.write(async (manager, emit) => {
      const context = await this.access.course(person, courseId);
      assertCan(context, { kind: 'manage-course' });
      const result = await work(manager, emit);
      emit({ action: 'library-changed', actorId: person.id, courseId });
      return result;
    });
  }

  async #assertMaySee(person: CurrentUser, courseId: string): Promise<void> {
    const context = await this.access.course(person, courseId);
    assertCanSee(context, { kind: 'people' });
  }

  async #contentFrom(
    manager: EntityManager,
    person: CurrentUser,
    courseId: string,
    { kind, exchangeId = null }: LibraryAddRequest,
  ): Promise<LibraryContents[LibraryKind]> {
    if (kind === 'shorthand') return { entries: usualShorthand() };
    if (exchangeId === null && kind === 'form') return EMPTY_FORM;
    if (exchangeId === null) {
      const sentence = say('templateIsMadeFromExchange');
      throw invalid([{ path: 'exchangeId', code: 'exchange-missing', sentence }]);
    }
    const context = await this.access.exchange(person, exchangeId, manager);
    assertCanSee(context, { kind: 'workspace' });
    assertCan(context, { kind: 'plan' });
    if (context.course.id !== courseId) throw refusal('unknown');
    const form = await formOf(manager, context);
    if (kind === 'form') return form;
    return { settings: settingsOf(context.exchange), form };
  }

  async #save<Kind extends LibraryKind>(
    manager: EntityManager,
    item: LibraryItem<Kind>,
    request: { readonly revision: number; readonly title: string },
    content: LibraryContents[Kind],
    current: () => unknown,
  ): Promise<SavedView> {
    const title = request.title.trim();
    const savedAt = this.clock.now();
    const same = item.title === title && JSON.stringify(item.content) === JSON.stringify(content);
    if (same) return { revision: item.revision, savedAt: iso(item.changedAt) };
    if (item.revision !== request.revision) throw conflict(`“${item.title}”`, current());
    const revision = item.revision + 1;
    const values = { title, content, revision, changedAt: savedAt };
    await manager.createQueryBuilder().update(LibraryItem).set(values).where({ id: item.id }).execute();
    return { revision, savedAt: iso(savedAt) };
  }
}

/** @throws ProblemError `not-found` when there is no such entry of this kind in the course */
export async function itemOf<Kind extends LibraryKind>(
  manager: EntityManager,
  courseId: string,
  id: string,
  kind: Kind,
): Promise<LibraryItem<Kind>> {
  const item = await manager.findOneBy(LibraryItem, { id, courseId, kind });
  if (item === null) throw refusal('unknown');
  return item as LibraryItem<Kind>;
}

function formView({ id, title, content, revision }: LibraryItem<'form'>): LibraryFormView {
  return { ...content, id, title, revision, frozen: null, problems: checkForm(content).map(formProblem) };
}

/** What was stored before there were groups has none. */
function grouped({
  group = '',
  ...entry
}: Omit<ShorthandEntry, 'group'> & { readonly group?: string }): ShorthandEntry {
  return { ...entry, group };
}

function shorthandView({ id, title, content, revision }: LibraryItem<'shorthand'>): ShorthandView {
  return { id, title, entries: content.entries.map(grouped), revision };
}

function card(item: LibraryItem): LibraryCard {
  const { id, kind, title, changedAt } = item;
  return { id, kind, title, about: about(item), changedAt: iso(changedAt) };
}

function about({ kind, content }: LibraryItem): string {
  if (kind === 'form') {
    const form = content as LibraryContents['form'];
    const points = formMaximum(form);
    return points === null
      ? say('itemsNoPoints', { items: form.items.length })
      : say('itemsPoints', { items: form.items.length, points });
  }
  if (kind === 'shorthand') {
    const { entries } = content as LibraryContents['shorthand'];
    return say('labels', { entries: entries.length });
  }
  const { settings, form } = content as LibraryContents['template'];
  const deliverables = say('deliverables', { deliverables: settings.deliverables.length });
  return say('formOfItems', { deliverables, items: form.items.length });
}
