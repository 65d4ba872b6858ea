import type { DecisionView } from '@salt-circle/contracts';
import type { DecisionRow } from '../../model/revision.js';

export function decisionView({ key, decision, why, doneAt, revision }: DecisionRow): DecisionView {
  return { key, decision, why, done: doneAt !== null, revision };
}
