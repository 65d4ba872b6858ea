import type { VersionMeta } from '@salt-circle/contracts';
import { Button, Dialog, StateMark } from '../../kit/index.js';
import { useSessionQuery } from '../../app/api.js';
import { When } from '../../app/time/When.js';
import { useExchange } from '../../app/useExchange.js';
import { lateInWords } from '@salt-circle/core';
import { say } from '../../words/hand-in.js';

export interface ReceiptProps {
  readonly receipt: VersionMeta | null;
  readonly due: string | null;
  readonly onClose: () => void;
}

/** Says that it counts, and what was handed in when, so that it can be shown to somebody. */
export function Receipt({ receipt, due, onClose }: ReceiptProps) {
  const { course, mayHandIn } = useExchange();
  const { data: session } = useSessionQuery();
  return (
    <Dialog open={receipt !== null} onClose={onClose} title={say('handedInLabel')}>
      {receipt !== null && (
        <div className="space-y-3">
          <p className="flex items-center gap-2">
            <StateMark state="done" size={18} /> {say('countsAsHandedIn', { title: receipt.title })}
          </p>
          <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
            <dt className="text-ink-soft">{say('versionLabel')}</dt>
            <dd>{receipt.number}</dd>
            <dt className="text-ink-soft">{say('handedInLabel')}</dt>
            <dd>
              <When at={receipt.handedInAt} timeZone={course.timeZone} />
              {receipt.late !== null && <span className="block text-madder">{lateInWords(receipt.late)}</span>}
            </dd>
            <dt className="text-ink-soft">{say('wordsLabel')}</dt>
            <dd>{receipt.words}</dd>
            <dt className="text-ink-soft">{say('parts')}</dt>
            <dd>
              <ul>
                {receipt.parts.map(({ what, digest }, index) => (
                  <li key={index}>
                    {what} <span className="block text-sm break-all text-ink-soft">{say('sha256', { digest })}</span>
                  </li>
                ))}
              </ul>
            </dd>
            <dt className="text-ink-soft">{say('allOfIt')}</dt>
            <dd className="text-sm break-all">{say('sha256', { digest: receipt.digest })}</dd>
          </dl>
          <p className="text-ink-soft">
            {session?.mail === true ? say('sameIsOnItsWay') : say('thisServerSendsNoMail')}
            {due !== null && mayHandIn && (
              <> {say('youCanReplaceItUntil', { when: <When at={due} timeZone={course.timeZone} /> })}</>
            )}
          </p>
          <Button look="primary" onClick={onClose}>
            {say('closeReceipt')}
          </Button>
        </div>
      )}
    </Dialog>
  );
}
