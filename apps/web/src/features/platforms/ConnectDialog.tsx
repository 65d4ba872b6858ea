import { useState, type FormEvent } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { fieldProblem } from '../../app/session/fieldProblem.js';
import { Button, Dialog, Notice, TextField } from '../../kit/index.js';
import { useRegistrationLinkMutation } from './platformsApi.js';
import { say } from '../../words/platforms.js';

/** A link by which whoever runs the platform registers us there. */
export function ConnectDialog({ onClose }: { readonly onClose: () => void }) {
  const [name, setName] = useState('');
  const [make, { data, isLoading, error }] = useRegistrationLinkMutation();
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void make(name);
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={say('connectPlatformLabel')}
      description={say('whoeverRunsLearningPlatformPastes')}
    >
      {data === undefined ? (
        <form onSubmit={submit} className="space-y-4">
          <TextField
            label={say('whatPlatformIsCalledHere')}
            value={name}
            maxLength={200}
            problem={fieldProblem(error, 'name')}
            onChange={({ target }) => setName(target.value)}
          />
          {error !== undefined && <ProblemNotice error={error} />}
          <Button type="submit" look="primary" busy={isLoading} disabled={name.trim() === ''}>
            {say('makeLink')}
          </Button>
        </form>
      ) : (
        <Notice title={say('giveThisAddressToWhoever')}>
          <code className="my-2 block rounded border border-line bg-paper p-2 break-all select-all">{data.url}</code>
          <p className="text-sm">{say('thereItIsCalledAddress')}</p>
        </Notice>
      )}
    </Dialog>
  );
}
