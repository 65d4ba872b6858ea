import { buttonClass, Dialog } from '../../kit/index.js';
import { useExchange } from '../../app/useExchange.js';
import { say } from '../../words/tracking.js';

/** All hand-ins in one ZIP, with names or without. */
export function ArchiveDialog({ onClose }: { readonly onClose: () => void }) {
  const exchange = useExchange();
  const address = `/api/exchanges/${exchange.id}/archive`;
  return (
    <Dialog open onClose={onClose} title={say('downloadAllDrafts')} description={say('oneZipWithFolderFor')}>
      <div className="flex flex-wrap gap-3">
        <a href={`${address}?names=name`} download className={buttonClass('primary')} onClick={onClose}>
          {say('byNameFilesAsHanded')}
        </a>
        {exchange.names !== 'open' && (
          <a href={`${address}?names=alias`} download className={buttonClass('plain')} onClick={onClose}>
            {say('byAliasCopiesThatReviewers')}
          </a>
        )}
      </div>
    </Dialog>
  );
}
