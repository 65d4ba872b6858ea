import { NOTE_KINDS, type UptakeView } from '@salt-circle/contracts';
import { decisionKey } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { Draft } from '../../model/draft.js';
import { AdoptionRow, DecisionRow } from '../../model/revision.js';
import type { ReviewInGrade } from './reviews-in-grades.js';

/** What authors made of the remarks of their peers, by kind; what is to be kept asks nothing of anybody. */
export async function uptakeOf(
  manager: EntityManager,
  exchangeId: string,
  peers: readonly ReviewInGrade[],
): Promise<UptakeView[]> {
  const ofExchange = <Row extends DecisionRow | AdoptionRow>(target: new () => Row) =>
    manager
      .createQueryBuilder(target, 'row')
      .innerJoin(Draft, 'draft', 'draft.id = row.draftId')
      .where('draft.exchangeId = :exchangeId', { exchangeId })
      .getMany();
  const decided = new Map((await ofExchange(DecisionRow)).map((one) => [one.key, one]));
  const adopted = new Set((await ofExchange(AdoptionRow)).map(({ noteId }) => noteId));
  const remarks = peers.flatMap(
    ({ review, places, answers }): Array<{ kind: UptakeView['kind']; key: string; adopted: boolean }> => [
      ...places
        .filter(({ kind }) => kind !== 'keep')
        .map(({ id, kind }) => ({ kind, key: decisionKey({ kind: 'note', noteId: id }), adopted: adopted.has(id) })),
      ...Object.entries(answers)
        .filter(([, answer]) => (answer?.next ?? '') !== '')
        .map(([itemId]) => ({
          ...{ kind: 'next' as const, adopted: false },
          key: decisionKey({ kind: 'next', reviewId: review.id, itemId }),
        })),
    ],
  );
  return [...NOTE_KINDS.filter((kind) => kind !== 'keep'), 'next' as const].flatMap((kind): UptakeView[] => {
    const own = remarks.filter((one) => one.kind === kind);
    if (own.length === 0) return [];
    const fates = own.map(({ key, adopted: there }) => {
      const known = decided.get(key);
      if (there || known?.doneAt != null || known?.decision === 'there') return 'done';
      if (known?.decision === 'will-change') return 'toDo';
      return known?.decision === 'will-not' ? 'wont' : 'undecided';
    });
    const count = (fate: string) => fates.filter((one) => one === fate).length;
    const counts = { done: count('done'), toDo: count('toDo'), wont: count('wont'), undecided: count('undecided') };
    return [{ kind, remarks: own.length, ...counts }];
  });
}
