import { useState } from 'react';
import { useExchange } from '../../app/useExchange.js';
import { buttonClass, Checkbox, Dialog, Select } from '../../kit/index.js';

const PEOPLE = [
  ['names', 'with names, to keep it or to move it'],
  ['aliases', 'under aliases only, for research'],
] as const;

/** The whole exchange as one file. */
export function ArchiveDialog({ onClose }: { readonly onClose: () => void }) {
  const exchange = useExchange();
  const [people, setPeople] = useState<string>('names');
  const [drafts, setDrafts] = useState(true);
  const query = new URLSearchParams({ people, drafts: drafts ? 'yes' : 'no' });
  return (
    <Dialog
      open
      onClose={onClose}
      title="Take along as an archive"
      description="One ZIP with everything: plan, form, people, drafts, reviews, grades and record. It can be read back here or in another installation."
    >
      <div className="space-y-4">
        <Select label="People" value={people} options={PEOPLE} onChange={setPeople} />
        {people === 'aliases' && (
          <p className="text-sm text-ink-soft">
            No names, addresses or campus ids; all dates are moved by the same number of weeks; files as reviewers read
            them. Names that are found in texts are covered, and listed in finds.csv with those that may be somebody
            else: look through it before you give the archive away.
          </p>
        )}
        <div>
          <Checkbox label="With the drafts" checked={drafts} onChange={({ target }) => setDrafts(target.checked)} />
          {!drafts && (
            <p className="text-sm text-ink-soft">
              Without texts, files, and the words that notes stand on. What people wrote in reviews is there.
            </p>
          )}
        </div>
        <a
          className={buttonClass('primary')}
          href={`/api/exchanges/${exchange.id}/archive.zip?${query.toString()}`}
          download
          onClick={onClose}
        >
          Make the archive
        </a>
      </div>
    </Dialog>
  );
}
