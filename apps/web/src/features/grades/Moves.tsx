import type { GradeMoveView } from '@salt-circle/contracts';
import { labelWords } from '../../app/People.js';
import { points } from './gradeWords.js';
import { say } from '../../words/grades.js';

/** So many are named; of the others their number. */
const NAMED = 12;

/** Whose grade moves by how much. */
export function Moves({ moves }: { readonly moves: readonly GradeMoveView[] }) {
  const moved = moves.filter(({ before, after }) => before !== after);
  if (moved.length === 0) return <p role="status">{say('nobodysGradeMoves')}</p>;
  return (
    <div role="status">
      <p className="font-medium">{say('gradesMove', { moved: moved.length })}</p>
      <ul className="columns-2 text-sm">
        {moved.slice(0, NAMED).map(({ id, person, before, after, by }) => (
          <li key={id}>
            {say('moves', {
              person: labelWords(person),
              before: before ?? say('none'),
              after: after ?? say('none'),
              by: by === null ? 'none' : `${by > 0 ? '+' : '−'}${points(Math.abs(by))}`,
            })}
          </li>
        ))}
      </ul>
      {moved.length > NAMED && (
        <p className="text-sm text-ink-soft">{say('andMoreOf', { moved: moved.length - NAMED })}</p>
      )}
    </div>
  );
}
