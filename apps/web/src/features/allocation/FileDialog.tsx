import type { ImportedPair } from '@salt-circle/contracts';
import { labelWords } from '../../app/People.js';
import { RowsDialog } from '../../app/RowsDialog.js';
import { useExchange } from '../../app/useExchange.js';
import { useReadAllocationFileMutation } from './allocationApi.js';
import { say } from '../../words/allocation.js';

/** An allocation from a file or pasted rows. */
export function FileDialog({ onClose }: { readonly onClose: () => void }) {
  const exchange = useExchange();
  const [read, { data, error, isLoading }] = useReadAllocationFileMutation();
  return (
    <RowsDialog
      title={say('allocationFromFile')}
      description={say('pairsThatAreNotIn')}
      hint={say('rowPerReviewWithColumns')}
      header="reviewer, draft, fixed"
      lookLabel={say('seeWhatItWouldDo')}
      read={async (source, apply) => (await read({ id: exchange.id, ...source, apply })).data}
      data={data}
      error={error}
      busy={isLoading}
      onClose={onClose}
    >
      {({ problems, same, added, removed, kept }) =>
        problems.length > 0 ? null : (
          <div className="space-y-1">
            <p>{say('pairsStayAsItIs', { same })}</p>
            <Pairs title={say('come')} pairs={added} />
            <Pairs title={say('go')} pairs={removed} />
            <Pairs title={say('stayBecauseTheyHaveBegun')} pairs={kept} />
          </div>
        )
      }
    </RowsDialog>
  );
}

function Pairs({ title, pairs }: { readonly title: string; readonly pairs: readonly ImportedPair[] }) {
  if (pairs.length === 0) return null;
  return (
    <details open={pairs.length <= 12}>
      <summary className="font-medium">{say('seeAlso', { title, pairs: pairs.length })}</summary>
      <ul className="max-h-40 overflow-y-auto pl-4 text-sm">
        {pairs.map(({ reviewer, author }) => (
          <li key={`${labelWords(reviewer)} ${labelWords(author)}`}>
            {say('reviews', { labelWords: labelWords(reviewer), labelWords2: labelWords(author) })}
          </li>
        ))}
      </ul>
    </details>
  );
}
