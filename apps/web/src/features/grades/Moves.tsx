import type { GradeMoveView } from '@salt-circle/contracts';
import { counted } from '@salt-circle/core';
import { labelWords } from '../../app/People.js';
import { points } from './gradeWords.js';

/** So many are named; of the others their number. */
const NAMED = 12;

/** Whose grade moves by how much. */
export function Moves({ moves }: { readonly moves: readonly GradeMoveView[] }) {
  const moved = moves.filter(({ before, after }) => before !== after);
  if (moved.length === 0) return <p role="status">Nobody’s grade moves.</p>;
  return (
    <div role="status">
      <p className="font-medium">{counted(moved.length, 'One grade moves.', '# grades move.')}</p>
      <ul className="columns-2 text-sm">
        {moved.slice(0, NAMED).map(({ id, person, before, after, by }) => (
          <li key={id}>
            {labelWords(person)}: {before ?? 'none'} → {after ?? 'none'}
            {by !== null && ` (${by > 0 ? '+' : '−'}${points(Math.abs(by))})`}
          </li>
        ))}
      </ul>
      {moved.length > NAMED && <p className="text-sm text-ink-soft">and {moved.length - NAMED} more</p>}
    </div>
  );
}
