import type { PersonLabel } from '@salt-circle/contracts';
import { nameShown, type Part } from '@salt-circle/core';
import { In, type EntityManager } from 'typeorm';
import { Person } from '../accounts/entities.js';
import { Participant } from './entities.js';
import type { Place } from './access.js';

const PARTS: readonly Part[] = ['author', 'reviewer'];

/**
 * The one mapper from participants to what the one who asks may call them. A hidden name is not even
 * loaded: it cannot leave by mistake.
 */
export class Labels {
  private constructor(private readonly labels: Readonly<Record<Part, ReadonlyMap<string, PersonLabel>>>) {}

  static async load(manager: EntityManager, place: Place, participants: readonly Participant[]): Promise<Labels> {
    const shown = (one: Participant, part: Part) =>
      nameShown(place.viewer, place.facts, part, one.personId === place.person.id);
    const named = participants.filter((one) =>
      PARTS.some((part) => shown(one, part) === 'name' || shown(one, part) === 'both'),
    );
    const names = await namesOf(
      manager,
      named.map(({ personId }) => personId),
    );
    const label = (one: Participant, part: Part): PersonLabel => {
      const name = names.get(one.personId) ?? '';
      switch (shown(one, part)) {
        case 'self':
          return { you: true, alias: one.alias };
        case 'name':
          return { name };
        case 'both':
          return { name, alias: one.alias };
        case 'alias':
          return { alias: one.alias };
      }
    };
    const labels = (part: Part) => new Map(participants.map((one) => [one.id, label(one, part)] as const));
    return new Labels({ author: labels('author'), reviewer: labels('reviewer') });
  }

  /** All participants of the exchange. */
  static async ofExchange(manager: EntityManager, place: Place): Promise<Labels> {
    return Labels.load(manager, place, await manager.findBy(Participant, { exchangeId: place.exchange.id }));
  }

  author(participantId: string): PersonLabel {
    return this.#of(participantId, 'author');
  }

  reviewer(participantId: string): PersonLabel {
    return this.#of(participantId, 'reviewer');
  }

  #of(participantId: string, part: Part): PersonLabel {
    const label = this.labels[part].get(participantId);
    if (label === undefined) throw new Error('a participant outside of the loaded ones was asked for');
    return label;
  }
}

/** SQLite takes a bounded number of parameters in one query. */
const CHUNK = 500;

export async function namesOf(manager: EntityManager, personIds: readonly string[]): Promise<Map<string, string>> {
  const names = new Map<string, string>();
  for (let from = 0; from < personIds.length; from += CHUNK) {
    const people = await manager.find(Person, {
      select: { id: true, name: true },
      where: { id: In(personIds.slice(from, from + CHUNK)) },
    });
    for (const { id, name } of people) names.set(id, name);
  }
  return names;
}
