import type { InsightsView } from '@salt-circle/contracts';
import { Link } from 'react-router';
import { labelWords } from '../../app/People.js';
import { Dialog } from '../../kit/index.js';
import { say } from '../../words/insights.js';

export interface Behind {
  readonly title: string;
  readonly reviews: InsightsView['reviews'];
}

/** The reviews behind a part of a picture, each to be opened. */
export function ReviewsBehind({ behind, onClose }: { readonly behind: Behind | null; readonly onClose: () => void }) {
  return (
    <Dialog open={behind !== null} onClose={onClose} title={behind?.title ?? ''}>
      <ul className="max-h-[60vh] space-y-1 overflow-y-auto">
        {behind?.reviews.map(({ id, person, author, words }) => (
          <li key={id}>
            <Link to={`/reviews/${id}`} className="text-dusk underline">
              {say('on', { labelWords: labelWords(person), labelWords2: labelWords(author) })}
            </Link>{' '}
            <span className="text-ink-soft">{say('words', { words })}</span>
          </li>
        ))}
      </ul>
    </Dialog>
  );
}
