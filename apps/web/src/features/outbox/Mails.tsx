import type { MailRow, MailView, OutboxView } from '@salt-circle/contracts';
import type { ReactNode } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { When } from '../../app/time/When.js';
import { Empty, Loading } from '../../kit/index.js';
import { say } from '../../words/outbox.js';

const statesOfMail = (): Readonly<Record<MailRow['state'], readonly [words: string, colour: string]>> => ({
  kept: [say('keptHere'), 'text-ink-soft'],
  waiting: [say('waitsToBeSent'), 'text-copper'],
  sent: [say('sent'), 'text-kelp'],
  failed: [say('notSent'), 'text-madder'],
  ended: [say('notSentOverBefore'), 'text-ink-soft'],
});

/** So few that one act sent are shown at once. */
const FEW = 3;

export interface MailsProps {
  readonly title: string;
  readonly outbox: OutboxView;
  readonly timeZone: string;
  readonly about: ReactNode;
  /** What can be done, above the list. */
  readonly acts?: ReactNode;
  readonly none: string;
  readonly openId: string | null;
  readonly onOpen: (id: string) => void;
  /** The mail that is open. */
  readonly open: { readonly data?: MailView | undefined; readonly error?: unknown };
}

/** Mail as a list, and beside it the one that is open. */
export function Mails({ title, outbox, timeZone, about, acts, none, openId, onOpen, open }: MailsProps) {
  const { mails, total } = outbox;
  const shared = { timeZone, openId, onOpen };
  return (
    <div className="grid flex-1 grid-cols-1 lg:grid-cols-[1fr_28rem]">
      <div className="min-w-0 px-5 py-6">
        <h2 className="text-xl font-semibold">
          {title} <span className="text-base font-normal text-ink-soft">{say('mails', { total })}</span>
        </h2>
        <p className="mb-4 text-ink-soft">{about}</p>
        {acts}
        {mails.length === 0 && (
          <Empty title={say('noMailYet')}>
            <p>{none}</p>
          </Empty>
        )}
        <ul>
          {grouped(mails).map(([first, ...more]) =>
            more.length === 0 ? (
              <li key={first.id} className="border-b border-line first:border-t">
                <Row mail={first} {...shared} />
              </li>
            ) : (
              <li key={first.id} className="border-b border-line first:border-t">
                <details open={more.length < FEW || [first, ...more].some(({ id }) => id === openId)}>
                  <summary className="cursor-pointer px-2 py-2">
                    <span className="font-semibold">{first.subject}</span>{' '}
                    <span className="text-sm text-ink-soft">
                      {say('toPeople', {
                        more: more.length + 1,
                        statesOf: statesOf([first, ...more]),
                        when: <When at={first.at} timeZone={timeZone} />,
                      })}
                    </span>
                  </summary>
                  <ul className="pl-5">
                    {[first, ...more].map((mail) => (
                      <li key={mail.id} className="border-t border-line">
                        <Row mail={mail} {...shared} inGroup />
                      </li>
                    ))}
                  </ul>
                </details>
              </li>
            ),
          )}
        </ul>
        {total > mails.length && (
          <p className="mt-2 text-ink-soft">{say('newestOf', { mails: mails.length, total })}</p>
        )}
      </div>
      <aside aria-label={say('mailLabel')} className="border-l border-line bg-crust px-5 py-6">
        {openId === null ? <p className="text-ink-soft">{say('chooseMailToReadIt')}</p> : <Mail {...open} />}
      </aside>
    </div>
  );
}

/** What one act sent stands together: the same words at the same moment. */
function grouped(mails: readonly MailRow[]): Array<[MailRow, ...MailRow[]]> {
  const groups = new Map<string, [MailRow, ...MailRow[]]>();
  for (const mail of mails) {
    const key = `${mail.at} ${mail.subject}`;
    const group = groups.get(key);
    if (group === undefined) groups.set(key, [mail]);
    else group.push(mail);
  }
  return [...groups.values()];
}

/** "22 sent, 2 not sent", in the order of the states. */
function statesOf(mails: readonly MailRow[]): string {
  return (Object.keys(statesOfMail()) as Array<MailRow['state']>)
    .map((state) => [mails.filter((mail) => mail.state === state).length, statesOfMail()[state][0]] as const)
    .filter(([count]) => count > 0)
    .map(([count, words]) => `${count} ${words}`)
    .join(', ');
}

interface RowProps extends Pick<MailsProps, 'timeZone' | 'openId' | 'onOpen'> {
  readonly mail: MailRow;
  /** Subject and time stand above already. */
  readonly inGroup?: boolean;
}

function Row({ mail, timeZone, openId, onOpen, inGroup = false }: RowProps) {
  const [words, colour] = statesOfMail()[mail.state];
  const state = <span className={colour}>{words}</span>;
  return (
    <button
      type="button"
      aria-pressed={mail.id === openId}
      onClick={() => onOpen(mail.id)}
      className={`grid w-full gap-x-4 px-2 py-2 text-left aria-pressed:bg-crust ${inGroup ? '' : 'sm:grid-cols-[3fr_2fr]'}`}
    >
      <span className={inGroup ? 'sr-only' : 'font-semibold'}>{mail.subject}</span>
      <span className="min-w-0">
        <span className="block truncate">{mail.to}</span>
        <span className="block text-sm text-ink-soft">
          {inGroup ? state : say('stateAndTime', { state, when: <When at={mail.at} timeZone={timeZone} /> })}
        </span>
      </span>
    </button>
  );
}

/** What is a link in a mail is one here. */
const ADDRESS = /(https?:\/\/\S+)/;

function Mail({ data, error }: MailsProps['open']) {
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what={say('mail')} />;
  return (
    <article>
      <h3 className="font-semibold">{data.subject}</h3>
      <p className="text-sm text-ink-soft">{say('to', { to: data.to })}</p>
      {data.error !== null && data.state !== 'sent' && (
        <p className="text-sm text-madder">{say('mailServerAnswered', { error: data.error })}</p>
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
