import type { ImportedPair } from '@salt-circle/contracts';
import { labelWords } from '../../app/People.js';
import { RowsDialog } from '../../app/RowsDialog.js';
import { useExchange } from '../../app/useExchange.js';
import { useReadAllocationFileMutation } from './allocationApi.js';
import { counted } from '@salt-circle/core';

/** An allocation from a file or pasted rows. */
export function FileDialog({ onClose }: { readonly onClose: () => void }) {
  const exchange = useExchange();
  const [read, { data, error, isLoading }] = useReadAllocationFileMutation();
  return (
    <RowsDialog
      title="An allocation from a file"
      description="Pairs that are not in the file are taken away, unless they have begun. You can undo it until a review has begun."
      hint="A row per review with the columns reviewer and draft (email or campus id; a group by its name) and, if you like, fixed (yes or no)."
      header="reviewer, draft, fixed"
      look="See what it would do"
      read={async (source, apply) => (await read({ id: exchange.id, ...source, apply })).data}
      data={data}
      error={error}
      busy={isLoading}
      onClose={onClose}
    >
      {({ problems, same, added, removed, kept }) =>
        problems.length > 0 ? null : (
          <div className="space-y-1">
            <p>{counted(same, '1 pair stays', '# pairs stay')} as it is.</p>
            <Pairs title="Come" pairs={added} />
            <Pairs title="Go" pairs={removed} />
            <Pairs title="Stay, because they have begun" pairs={kept} />
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
      <summary className="font-medium">
        {title}: {counted(pairs.length, '1 pair', '# pairs')}
      </summary>
      <ul className="max-h-40 overflow-y-auto pl-4 text-sm">
        {pairs.map(({ reviewer, author }) => (
          <li key={`${labelWords(reviewer)} ${labelWords(author)}`}>
            {labelWords(reviewer)} reviews {labelWords(author)}
          </li>
        ))}
      </ul>
    </details>
  );
}
