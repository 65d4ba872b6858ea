import { buttonClass, Dialog } from '../../kit/index.js';
import { useExchange } from '../../app/useExchange.js';

/** All hand-ins in one ZIP, with names or without. */
export function ArchiveDialog({ onClose }: { readonly onClose: () => void }) {
  const exchange = useExchange();
  const address = `/api/exchanges/${exchange.id}/archive`;
  return (
    <Dialog
      open
      onClose={onClose}
      title="Download all drafts"
      description="One ZIP with a folder for each author and a table (index.csv) of what is in it."
    >
      <div className="flex flex-wrap gap-3">
        <a href={`${address}?names=name`} download className={buttonClass('primary')} onClick={onClose}>
          By name, files as handed in
        </a>
        {exchange.names !== 'open' && (
          <a href={`${address}?names=alias`} download className={buttonClass('plain')} onClick={onClose}>
            By alias, copies that reviewers read
          </a>
        )}
      </div>
    </Dialog>
  );
}
