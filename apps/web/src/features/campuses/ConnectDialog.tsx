import { useState, type FormEvent } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { fieldProblem } from '../../app/session/fieldProblem.js';
import { Button, Dialog, Notice, TextField } from '../../kit/index.js';
import { useRegistrationLinkMutation } from './campusesApi.js';

/** A link by which whoever runs the campus registers us there. */
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
      title="Connect a campus"
      description="Whoever runs the learning platform pastes one address there; all else is agreed between the two (LTI Dynamic Registration)."
    >
      {data === undefined ? (
        <form onSubmit={submit} className="space-y-4">
          <TextField
            label="What the campus is called here"
            value={name}
            maxLength={200}
            problem={fieldProblem(error, 'name')}
            onChange={({ target }) => setName(target.value)}
          />
          {error !== undefined && <ProblemNotice error={error} />}
          <Button type="submit" look="primary" busy={isLoading} disabled={name.trim() === ''}>
            Make the link
          </Button>
        </form>
      ) : (
        <Notice title="Give this address to whoever runs the campus. It works once, for a day.">
          <code className="my-2 block rounded border border-line bg-paper p-2 break-all select-all">{data.url}</code>
          <p className="text-sm">There it is called the address of registration of a tool.</p>
        </Notice>
      )}
    </Dialog>
  );
}
