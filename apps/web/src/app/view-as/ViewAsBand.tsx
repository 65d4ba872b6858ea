import { exactly } from '@salt-circle/core';
import { Eye } from 'lucide-react';
import { Button } from '../../kit/index.js';
import { useExchangeQuery, useSessionQuery } from '../api.js';
import { useNow } from '../time/useNow.js';
import { endViewAs } from './viewAs.js';
import { say } from '../../words/app.js';

/** Says with whose eyes one looks, and leads back. */
export function ViewAsBand() {
  const { data } = useSessionQuery();
  const viewAs = data?.viewAs ?? null;
  const { data: exchange } = useExchangeQuery(viewAs?.exchangeId ?? '', { skip: viewAs === null });
  const now = useNow();
  if (viewAs === null) return null;
  const zone = exchange?.course.timeZone;
  return (
    <div
      role="status"
      className="no-print flex flex-wrap items-center justify-between gap-x-4 gap-y-1 border-b-2 border-iodine bg-crust px-5 py-1.5"
    >
      <p className="flex items-center gap-2">
        <Eye size={17} aria-hidden="true" className="shrink-0 text-iodine" />
        <span>
          {viewAs.example && zone !== undefined
            ? say('youSeeThisExchangeAs', {
                person: <strong>{say('exampleStudent')}</strong>,
                when: exactly(now, zone, now),
              })
            : say('youSeeThisExchangeAsWould', {
                person: <strong>{viewAs.example ? say('exampleStudent') : viewAs.as}</strong>,
              })}
        </span>
      </p>
      <Button small onClick={() => endViewAs(`/exchanges/${viewAs.exchangeId}${viewAs.example ? '/plan' : ''}`)}>
        {say('backToYourOwnView')}
      </Button>
    </div>
  );
}
