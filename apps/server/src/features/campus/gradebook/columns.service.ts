import { Injectable } from '@nestjs/common';
import { COLUMN_MAXIMUM, MEDIA, SCOPE } from '@salt-circle/core';
import { IsNull, Not } from 'typeorm';
import { CampusColumn, CampusLink } from '../../../model/campus.js';
import { Clock } from '../../../platform/clock/clock.js';
import { Database } from '../../../platform/database/database.js';
import { CampusClient } from '../platforms/campus-client.service.js';
import { CampusFault } from '../platforms/campus-fault.js';
import { labelOf, tagOf, type Booked } from './gradebook-parts.js';
import { say } from '../../../words/campus.js';

type Fields = Readonly<Record<string, unknown>>;

/** Milliseconds until a column that could not be made is tried again. */
const PAUSES: readonly number[] = [30_000, 120_000, 600_000, 3_600_000, 6 * 3_600_000];

/** Milliseconds; later than any clock. */
const NEVER = Number.MAX_SAFE_INTEGER;

/** Whether columns can be made at the campus, or only that of a link be used. */
export function canMake({ link }: Pick<Booked, 'link'>): boolean {
  return link.services.columnsUrl !== null && link.services.scopes.includes(SCOPE.columns);
}

/** Columns of gradebooks: made where there is none yet, called as the exchange is, removed only when asked. */
@Injectable()
export class Columns {
  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly client: CampusClient,
  ) {}

  /** @returns its address, or null while there is none; a fault is noted with it */
  async ensure(booked: Booked, column: CampusColumn): Promise<string | null> {
    const label = labelOf(booked.exchange, column.part);
    if (column.url !== null && column.label === label) return column.url;
    if (column.nextTryAt > this.clock.real()) return column.url;
    try {
      const url = column.url ?? (await this.#found(booked, column)) ?? (await this.#make(booked, column, label));
      if (column.label !== label && canMake(booked)) await this.#rename(booked, url, label);
      await this.#note(column, { url, label, fault: null, tries: 0, nextTryAt: 0 });
      return url;
    } catch (error) {
      if (!(error instanceof CampusFault)) throw error;
      const pause = PAUSES[Math.min(column.tries, PAUSES.length - 1)] ?? 0;
      const nextTryAt = this.clock.real() + pause;
      await this.#note(column, { fault: error.sentence, tries: column.tries + 1, nextTryAt });
      return column.url;
    }
  }

  /** Whether it is not there any more: that is noted, and it is not made anew by itself, since somebody has removed it there. */
  async isGone({ campus }: Booked, column: Pick<CampusColumn, 'exchangeId' | 'part'>, url: string): Promise<boolean> {
    try {
      await this.client.ask(campus, { scopes: [SCOPE.columns], url, headers: { accept: MEDIA.column } });
      return false;
    } catch (error) {
      if (!(error instanceof CampusFault)) throw error;
      if (!error.missing) return false;
      const fault = say('somebodyHasRemovedColumnAt', { name: campus.name });
      await this.#note(column, { url: null, label: null, fault, nextTryAt: NEVER });
      return true;
    }
  }

  /** With all that is in it. One that is not there any more is as good as removed. @throws CampusFault */
  async remove({ campus }: Booked, url: string): Promise<void> {
    try {
      await this.client.ask(campus, { scopes: [SCOPE.columns], url, method: 'DELETE' });
    } catch (error) {
      if (!(error instanceof CampusFault && error.missing)) throw error;
    }
  }

  /** One that was made before and not heard of, or that the campus made with a link. */
  async #found(booked: Booked, { part }: CampusColumn): Promise<string | null> {
    const { exchange, link, campus } = booked;
    const ofLink = await this.database.read.findOneBy(CampusLink, {
      exchangeId: exchange.id,
      columnUrl: Not(IsNull()),
    });
    if (part === '' && ofLink !== null) return ofLink.columnUrl;
    if (!canMake(booked)) return null;
    const asked = new URL(link.services.columnsUrl ?? '');
    asked.searchParams.set('resource_id', exchange.id);
    asked.searchParams.set('tag', tagOf(part));
    for await (const page of this.client.pages(campus, [SCOPE.columns], asked.href, MEDIA.columns)) {
      if (!Array.isArray(page))
        throw new CampusFault('odd', say('answeredWithSomethingThatIsNoList', { name: campus.name }));
      // Some campuses leave the question aside and list all.
      const mine = (page as Fields[]).find(({ resourceId, tag }) => resourceId === exchange.id && tag === tagOf(part));
      if (mine !== undefined) return addressOf(mine, campus.name);
    }
    return null;
  }

  async #make(booked: Booked, { exchangeId, part }: CampusColumn, label: string): Promise<string> {
    const { campus, link } = booked;
    if (!canMake(booked)) {
      throw new CampusFault('no', say('doesNotLetSaltCircle', { name: campus.name }));
    }
    const made = (await this.client.json(campus, {
      ...{ scopes: [SCOPE.columns], url: link.services.columnsUrl ?? '', method: 'POST' },
      headers: { 'content-type': MEDIA.column, accept: MEDIA.column },
      body: JSON.stringify({ label, scoreMaximum: COLUMN_MAXIMUM, resourceId: exchangeId, tag: tagOf(part) }),
    })) as Fields;
    return addressOf(made, campus.name);
  }

  async #rename({ campus }: Booked, url: string, label: string): Promise<void> {
    const headers = { accept: MEDIA.column };
    const there = (await this.client.json(campus, { scopes: [SCOPE.columns], url, headers })) as Fields;
    if (there['label'] === label) return;
    await this.client.ask(campus, {
      ...{ scopes: [SCOPE.columns], url, method: 'PUT' },
      headers: { 'content-type': MEDIA.column, accept: MEDIA.column },
      body: JSON.stringify({ ...there, label }),
    });
  }

  #note(
    { exchangeId, part }: Pick<CampusColumn, 'exchangeId' | 'part'>,
    change: Partial<CampusColumn>,
  ): Promise<unknown> {
    return this.database.write((manager) => manager.update(CampusColumn, { exchangeId, part }, change));
  }
}

/** @throws CampusFault where a column does not say where it is */
function addressOf({ id }: Fields, campus: string): string {
  if (typeof id === 'string' && URL.canParse(id)) return id;
  throw new CampusFault('odd', say('hasColumnButDoesNot', { campus }));
}
