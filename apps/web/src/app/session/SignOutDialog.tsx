import { Button, Dialog } from '../../kit/index.js';
import { saveAs } from '../saveAs.js';
import { say } from '../../words/app.js';

interface SignOutDialogProps {
  /** What the server does not have; null while nobody is asked. */
  readonly texts: readonly string[] | null;
  readonly onGo: () => void;
  readonly onStay: () => void;
}

/** Asked before text is removed that the server does not have. */
export function SignOutDialog({ texts, onGo, onStay }: SignOutDialogProps) {
  const whole = (texts ?? []).join('\n\n----\n\n');
  return (
    <Dialog
      open={texts !== null}
      onClose={onStay}
      title={say('signOutUnsentTitle')}
      description={say('signOutUnsentDescription')}
    >
      <div className="space-y-4">
        <div className="max-h-60 overflow-y-auto rounded border border-line bg-crust p-3 break-words whitespace-pre-wrap">
          {whole}
        </div>
        <div className="flex flex-wrap justify-end gap-2">
          <Button onClick={() => saveAs(say('signOutUnsentFile'), new Blob([whole], { type: 'text/plain' }))}>
            {say('signOutUnsentSave')}
          </Button>
          <Button onClick={onGo}>{say('signOutUnsentGo')}</Button>
          <Button look="primary" onClick={onStay}>
            {say('signOutUnsentStay')}
          </Button>
        </div>
      </div>
    </Dialog>
  );
}
