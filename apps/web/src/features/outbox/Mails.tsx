import type { MailRow, MailView, OutboxView } from '@salt-circle/contracts';
import type { ReactNode } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useNow } from '../../app/time/useNow.js';
import { exactly } from '../../app/time/words.js';
import { Empty, Loading } from '../../kit/index.js';

const STATES: Readonly<Record<MailRow['state'], readonly [words: string, colour: string]>> = {
  kept: ['kept here', 'text-ink-soft'],
  waiting: ['waits to be sent', 'text-copper'],
  sent: ['sent', 'text-kelp'],
  failed: ['not sent', 'text-madder'],
  ended: ['not sent: over before', 'text-ink-soft'],
};

export interface MailsProps {
  readonly title: string;
  readonly outbox: OutboxView;
  readonly timeZone: string;
  readonly about: ReactNode;
  readonly none: string;
  readonly openId: string | null;
  readonly onOpen: (id: string) => void;
  /** The mail that is open. */
  readonly open: { readonly data?: MailView | undefined; readonly error?: unknown };
}

/** Mail as a list, and beside it the one that is open. */
export function Mails({ title, outbox, timeZone, about, none, openId, onOpen, open }: MailsProps) {
  const now = useNow();
  const { mails, total } = outbox;
  return (
    <div className="grid flex-1 grid-cols-1 lg:grid-cols-[1fr_28rem]">
      <div className="min-w-0 px-5 py-6">
        <h2 className="text-xl font-semibold">
          {title}{' '}
          <span className="text-base font-normal text-ink-soft">{total === 1 ? '1 mail' : `${total} mails`}</span>
        </h2>
        <p className="mb-4 text-ink-soft">{about}</p>
        {mails.length === 0 && (
          <Empty title="No mail yet.">
            <p>{none}</p>
          </Empty>
        )}
        <ul>
          {mails.map((mail) => (
            <li key={mail.id} className={`border-b border-line first:border-t ${mail.id === openId ? 'bg-crust' : ''}`}>
              <button
                type="button"
                aria-pressed={mail.id === openId}
                onClick={() => onOpen(mail.id)}
                className="grid w-full gap-x-4 px-2 py-2 text-left sm:grid-cols-[1fr_1fr_auto]"
              >
                <span className="truncate font-semibold">{mail.subject}</span>
                <span className="truncate">{mail.to}</span>
                <span className="text-sm whitespace-nowrap text-ink-soft">
                  <span className={STATES[mail.state][1]}>{STATES[mail.state][0]}</span>,{' '}
                  {exactly(Date.parse(mail.at), timeZone, now)}
                </span>
              </button>
            </li>
          ))}
        </ul>
        {total > mails.length && (
          <p className="mt-2 text-ink-soft">
            The newest {mails.length} of {total}.
          </p>
        )}
      </div>
      <aside aria-label="Mail" className="border-l border-line bg-crust px-5 py-6">
        {openId === null ? <p className="text-ink-soft">Choose a mail to read it.</p> : <Mail {...open} />}
      </aside>
    </div>
  );
}

/** What is a link in a mail is one here. */
const ADDRESS = /(https?:\/\/\S+)/;

function Mail({ data, error }: MailsProps['open']) {
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what="the mail" />;
  return (
    <article>
      <h3 className="font-semibold">{data.subject}</h3>
      <p className="text-sm text-ink-soft">to {data.to}</p>
      {data.error !== null && data.state !== 'sent' && (
        <p className="text-sm text-madder">The mail server answered: {data.error}</p>
      )}
      <p className="mt-3 break-words whitespace-pre-wrap">
        {data.text.split(ADDRESS).map((part, index) =>
          ADDRESS.test(part) ? (
            <a key={index} href={part} className="text-dusk underline">
              {part}
            </a>
          ) : (
            part
          ),
        )}
      </p>
    </article>
  );
}
