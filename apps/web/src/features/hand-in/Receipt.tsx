import type { VersionMeta } from '@salt-circle/contracts';
import { Button, Dialog, StateMark } from '../../kit/index.js';
import { useSessionQuery } from '../../app/api.js';
import { When } from '../../app/time/When.js';
import { useExchange } from '../../app/useExchange.js';
import { lateInWords } from '@salt-circle/core';

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
    <Dialog open={receipt !== null} onClose={onClose} title="Handed in">
      {receipt !== null && (
        <div className="space-y-3">
          <p className="flex items-center gap-2">
            <StateMark state="done" size={18} /> “{receipt.title}” counts as handed in.
          </p>
          <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
            <dt className="text-ink-soft">Version</dt>
            <dd>{receipt.number}</dd>
            <dt className="text-ink-soft">Handed in</dt>
            <dd>
              <When at={receipt.handedInAt} timeZone={course.timeZone} />
              {receipt.late !== null && <span className="block text-madder">{lateInWords(receipt.late)}</span>}
            </dd>
            <dt className="text-ink-soft">Words</dt>
            <dd>{receipt.words}</dd>
            <dt className="text-ink-soft">Parts</dt>
            <dd>
              <ul>
                {receipt.parts.map(({ what, digest }, index) => (
                  <li key={index}>
                    {what} <span className="block text-sm break-all text-ink-soft">SHA-256 {digest}</span>
                  </li>
                ))}
              </ul>
            </dd>
            <dt className="text-ink-soft">All of it</dt>
            <dd className="text-sm break-all">SHA-256 {receipt.digest}</dd>
          </dl>
          <p className="text-ink-soft">
            {session?.mail === true
              ? 'The same is on its way to you by mail.'
              : 'This server sends no mail, so keep a copy of it if you want one.'}
            {due !== null && mayHandIn && (
              <>
                {' '}
                You can replace it until it is due, <When at={due} timeZone={course.timeZone} />.
              </>
            )}
          </p>
          <Button look="primary" onClick={onClose}>
            Close the receipt
          </Button>
        </div>
      )}
    </Dialog>
  );
}
