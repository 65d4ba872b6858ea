import { useState } from 'react';
import { useExchange } from '../../app/useExchange.js';
import { buttonClass, Checkbox, Dialog, Select } from '../../kit/index.js';
import { say } from '../../words/plan.js';

const peopleChoices = () =>
  [
    ['names', say('withNamesToKeepIt')],
    ['aliases', say('underAliasesOnlyForResearch')],
  ] as const;

/** The whole exchange as one file. */
export function ArchiveDialog({ onClose }: { readonly onClose: () => void }) {
  const exchange = useExchange();
  const [people, setPeople] = useState<string>('names');
  const [drafts, setDrafts] = useState(true);
  const query = new URLSearchParams({ people, drafts: drafts ? 'yes' : 'no' });
  return (
    <Dialog open onClose={onClose} title={say('takeAlongAsArchive')} description={say('oneZipWithEverythingPlan')}>
      <div className="space-y-4">
        <Select label={say('people')} value={people} options={peopleChoices()} onChange={setPeople} />
        {people === 'aliases' && <p className="text-sm text-ink-soft">{say('noNamesAddressesOrCampus')}</p>}
        <div>
          <Checkbox label={say('withDrafts')} checked={drafts} onChange={({ target }) => setDrafts(target.checked)} />
          {!drafts && <p className="text-sm text-ink-soft">{say('withoutTextsFilesAndWords')}</p>}
        </div>
        <a
          className={buttonClass('primary')}
          href={`/api/exchanges/${exchange.id}/archive.zip?${query.toString()}`}
          download
          onClick={onClose}
        >
          {say('makeArchive')}
        </a>
      </div>
    </Dialog>
  );
}
