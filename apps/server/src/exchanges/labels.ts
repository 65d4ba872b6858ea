import type { PersonLabel } from '@salt-circle/contracts';
import { nameShown } from '@salt-circle/core';
import { In, type EntityManager } from 'typeorm';
import { Person } from '../accounts/entities.js';
import { Participant } from './entities.js';
import type { Place } from './access.js';

/**
 * The one mapper from participants to what the one who asks may call them. A hidden name is not even
 * loaded: it cannot leave by mistake.
 */
export class Labels {
  private constructor(private readonly labels: ReadonlyMap<string, PersonLabel>) {}

  static async load(manager: EntityManager, place: Place, participants: readonly Participant[]): Promise<Labels> {
    const shown = new Map(
      participants.map((one) => [one.id, nameShown(place.viewer, place.facts, one.personId === place.person.id)]),
    );
    const named = participants.filter(({ id }) => shown.get(id) === 'name' || shown.get(id) === 'both');
    const names = await namesOf(
      manager,
      named.map(({ personId }) => personId),
    );
    return new Labels(
      new Map(
        participants.map((one): [string, PersonLabel] => {
          const name = names.get(one.personId) ?? '';
          switch (shown.get(one.id)) {
            case 'self':
              return [one.id, { you: true, alias: one.alias }];
            case 'name':
              return [one.id, { name }];
            case 'both':
              return [one.id, { name, alias: one.alias }];
            default:
              return [one.id, { alias: one.alias }];
          }
        }),
      ),
    );
  }

  /** All participants of the exchange. */
  static async ofExchange(manager: EntityManager, place: Place): Promise<Labels> {
    return Labels.load(manager, place, await manager.findBy(Participant, { exchangeId: place.exchange.id }));
  }

  of(participantId: string): PersonLabel {
    const label = this.labels.get(participantId);
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
