import { seededRandom, shuffled } from '../random/random.js';
import { MisuseError } from '../problem.js';

export interface Division {
  /** By a number of groups, or by the size that groups should have. */
  readonly by: 'count' | 'size';
  /** 1 or more. */
  readonly number: number;
  readonly seed: number;
}

/**
 * Divides people into groups at random, by the seed. Sizes differ by at most one; by size, groups have that size or,
 * where it does not come out even, one fewer or more, never a small rest: as many groups as come nearest to the
 * size wanted. Mixed by a trait (a section, say), every value of the trait is spread over the groups as evenly as
 * can be: no two groups differ by more than one in how many they have of it.
 *
 * @param traitOf null for people of unknown trait, who are spread like any other value
 * @returns ids by group; no group is empty as long as there are people for all of them
 * @throws MisuseError when the number is not a whole number of 1 or more
 */
export function divide<T extends { readonly id: string }>(
  people: readonly T[],
  { by, number, seed }: Division,
  traitOf: (person: T) => string | null = () => null,
): string[][] {
  if (!Number.isInteger(number) || number < 1) {
    throw new MisuseError('division-number', `${number} is not a whole number of 1 or more.`, { number });
  }
  if (people.length === 0) return [];
  const wanted = by === 'count' ? number : Math.max(1, Math.round(people.length / number));
  const groups: string[][] = Array.from({ length: Math.min(wanted, people.length) }, () => []);
  const byTrait = new Map<string | null, T[]>();
  for (const person of shuffled(people, seededRandom(seed))) {
    const trait = traitOf(person);
    const list = byTrait.get(trait);
    if (list === undefined) byTrait.set(trait, [person]);
    else list.push(person);
  }
  // Dealt round and round without a break between traits: that keeps sizes and every trait even at once.
  let next = 0;
  for (const list of byTrait.values()) {
    for (const { id } of list) {
      (groups[next % groups.length] as string[]).push(id);
      next += 1;
    }
  }
  return groups;
}
