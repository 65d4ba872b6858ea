import { Injectable } from '@nestjs/common';
import { COLUMN_MAXIMUM, MEDIA, SCOPE } from '@salt-circle/core';
import { IsNull, Not } from 'typeorm';
import { LtiLineItem, LtiLink } from '../../../model/lti.js';
import { Clock } from '../../../platform/clock/clock.js';
import { Database } from '../../../platform/database/database.js';
import { LtiClient } from '../platforms/lti-client.service.js';
import { LtiFault } from '../platforms/lti-fault.js';
import { labelOf, tagOf, type Booked } from './gradebook-parts.js';
import { say } from '../../../words/lti.js';

type Fields = Readonly<Record<string, unknown>>;

/** Milliseconds until a column that could not be made is tried again. */
const PAUSES: readonly number[] = [30_000, 120_000, 600_000, 3_600_000, 6 * 3_600_000];

/** Milliseconds; later than any clock. */
const NEVER = Number.MAX_SAFE_INTEGER;

/** Whether columns can be made at the platform, or only that of a link be used. */
export function canMake({ link }: Pick<Booked, 'link'>): boolean {
  return link.services.columnsUrl !== null && link.services.scopes.includes(SCOPE.columns);
}

/** Columns of gradebooks: made where there is none yet, called as the exchange is, removed only when asked. */
@Injectable()
export class Columns {
  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly client: LtiClient,
  ) {}

  /** @returns its address, or null while there is none; a fault is noted with it */
  async ensure(booked: Booked, column: LtiLineItem): Promise<string | null> {
    const label = labelOf(booked.exchange, column.part);
    if (column.url !== null && column.label === label) return column.url;
    if (column.nextTryAt > this.clock.real()) return column.url;
    try {
      const url = column.url ?? (await this.#found(booked, column)) ?? (await this.#make(booked, column, label));
      if (column.label !== label && canMake(booked)) await this.#rename(booked, url, label);
      await this.#note(column, { url, label, fault: null, tries: 0, nextTryAt: 0 });
      return url;
    } catch (error) {
      if (!(error instanceof LtiFault)) throw error;
      const pause = PAUSES[Math.min(column.tries, PAUSES.length - 1)] ?? 0;
      const nextTryAt = this.clock.real() + pause;
      await this.#note(column, { fault: error.sentence, tries: column.tries + 1, nextTryAt });
      return column.url;
    }
  }

  /** Whether it is not there any more: that is noted, and it is not made anew by itself, since somebody has removed it there. */
  async isGone({ platform }: Booked, column: Pick<LtiLineItem, 'exchangeId' | 'part'>, url: string): Promise<boolean> {
    try {
      await this.client.ask(platform, { scopes: [SCOPE.columns], url, headers: { accept: MEDIA.column } });
      return false;
    } catch (error) {
      if (!(error instanceof LtiFault)) throw error;
      if (!error.missing) return false;
      const fault = say('somebodyHasRemovedColumnAt', { name: platform.name });
      await this.#note(column, { url: null, label: null, fault, nextTryAt: NEVER });
      return true;
    }
  }

  /** With all that is in it. One that is not there any more is as good as removed. @throws LtiFault */
  async remove({ platform }: Booked, url: string): Promise<void> {
    try {
      await this.client.ask(platform, { scopes: [SCOPE.columns], url, method: 'DELETE' });
    } catch (error) {
      if (!(error instanceof LtiFault && error.missing)) throw error;
    }
  }

  /** One that was made before and not heard of, or that the platform made with a link. */
  async #found(booked: Booked, { part }: LtiLineItem): Promise<string | null> {
    const { exchange, link, platform } = booked;
    const ofLink = await this.database.read.findOneBy(LtiLink, {
      exchangeId: exchange.id,
      columnUrl: Not(IsNull()),
    });
    if (part === '' && ofLink !== null) return ofLink.columnUrl;
    if (!canMake(booked)) return null;
    const asked = new URL(link.services.columnsUrl ?? '');
    asked.searchParams.set('resource_id', exchange.id);
    asked.searchParams.set('tag', tagOf(part));
    for await (const page of this.client.pages(platform, [SCOPE.columns], asked.href, MEDIA.columns)) {
      if (!Array.isArray(page))
        throw new LtiFault('odd', say('answeredWithSomethingThatIsNoList', { name: platform.name }));
      // Some platforms leave the question aside and list all.
      const mine = (page as Fields[]).find(({ resourceId, tag }) => resourceId === exchange.id && tag === tagOf(part));
      if (mine !== undefined) return addressOf(mine, platform.name);
    }
    return null;
  }

  async #make(booked: Booked, { exchangeId, part }: LtiLineItem, label: string): Promise<string> {
    const { platform, link } = booked;
    if (!canMake(booked)) {
      throw new LtiFault('no', say('doesNotLetSaltCircle', { name: platform.name }));
    }
    const made = (await this.client.json(platform, {
      ...{ scopes: [SCOPE.columns], url: link.services.columnsUrl ?? '', method: 'POST' },
      headers: { 'content-type': MEDIA.column, accept: MEDIA.column },
      body: JSON.stringify({ label, scoreMaximum: COLUMN_MAXIMUM, resourceId: exchangeId, tag: tagOf(part) }),
    })) as Fields;
    return addressOf(made, platform.name);
  }

  async #rename({ platform }: Booked, url: string, label: string): Promise<void> {
    const headers = { accept: MEDIA.column };
    const there = (await this.client.json(platform, { scopes: [SCOPE.columns], url, headers })) as Fields;
    if (there['label'] === label) return;
    await this.client.ask(platform, {
      ...{ scopes: [SCOPE.columns], url, method: 'PUT' },
      headers: { 'content-type': MEDIA.column, accept: MEDIA.column },
      body: JSON.stringify({ ...there, label }),
    });
  }

  #note(
    { exchangeId, part }: Pick<LtiLineItem, 'exchangeId' | 'part'>,
    change: Partial<LtiLineItem>,
  ): Promise<unknown> {
    return this.database.write((manager) => manager.update(LtiLineItem, { exchangeId, part }, change));
  }
}

/** @throws LtiFault where a column does not say where it is */
function addressOf({ id }: Fields, platform: string): string {
  if (typeof id === 'string' && URL.canParse(id)) return id;
  throw new LtiFault('odd', say('hasColumnButDoesNot', { platform }));
}
