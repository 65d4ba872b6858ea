import type { MailRow, MailView, OutboxView } from '@salt-circle/contracts';
import { useState } from 'react';
import { api } from '../../app/api.js';
import { usePolling } from '../../app/changes/useChanges.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useNow } from '../../app/time/useNow.js';
import { exactly } from '../../app/time/words.js';
import { useCourse } from '../../app/useCourse.js';
import { Empty, Loading } from '../../kit/index.js';

const { useOutboxQuery, useMailQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    outbox: build.query<OutboxView, string>({ query: (id) => `/courses/${id}/outbox`, providesTags: ['Outbox'] }),
    mail: build.query<MailView, { courseId: string; id: string }>({
      query: ({ courseId, id }) => `/courses/${courseId}/outbox/${id}`,
      providesTags: ['Outbox'],
    }),
  }),
});

const STATES: Readonly<Record<MailRow['state'], readonly [words: string, colour: string]>> = {
  kept: ['kept here', 'text-ink-soft'],
  waiting: ['waits to be sent', 'text-copper'],
  sent: ['sent', 'text-kelp'],
  failed: ['not sent', 'text-madder'],
};

/** All mail that the course has sent, or would have sent. */
export function OutboxPage() {
  const course = useCourse();
  const now = useNow();
  const { data, error } = useOutboxQuery(course.id, {
    refetchOnMountOrArgChange: true,
    pollingInterval: usePolling(20_000),
  });
  const [openId, setOpenId] = useState<string | null>(null);
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what="the outbox" />;
  return (
    <div className="grid flex-1 grid-cols-1 lg:grid-cols-[1fr_28rem]">
      <div className="min-w-0 px-5 py-6">
        <h2 className="text-xl font-semibold">
          Outbox{' '}
          <span className="text-base font-normal text-ink-soft">
            {data.total === 1 ? '1 mail' : `${data.total} mails`}
          </span>
        </h2>
        <p className="mb-4 text-ink-soft">
          {data.sends
            ? 'Mail goes out by the mail server that is set, and a copy stays here.'
            : 'No mail server is set, so mail is kept here and goes nowhere. Whoever runs the server can set one.'}
        </p>
        {data.mails.length === 0 ? (
          <Empty title="No mail yet.">
            <p>Invitations, receipts and notices of moved dates will be here.</p>
          </Empty>
        ) : (
          <ul>
            {data.mails.map((mail) => (
              <li
                key={mail.id}
                className={`border-b border-line first:border-t ${mail.id === openId ? 'bg-crust' : ''}`}
              >
                <button
                  type="button"
                  aria-pressed={mail.id === openId}
                  onClick={() => setOpenId(mail.id)}
                  className="grid w-full gap-x-4 px-2 py-2 text-left sm:grid-cols-[1fr_1fr_auto]"
                >
                  <span className="truncate font-semibold">{mail.subject}</span>
                  <span className="truncate">{mail.to}</span>
                  <span className="text-sm whitespace-nowrap text-ink-soft">
                    <span className={STATES[mail.state][1]}>{STATES[mail.state][0]}</span>,{' '}
                    {exactly(Date.parse(mail.at), course.timeZone, now)}
                  </span>
                </button>
              </li>
            ))}
          </ul>
        )}
        {data.total > data.mails.length && (
          <p className="mt-2 text-ink-soft">
            The newest {data.mails.length} of {data.total}.
          </p>
        )}
      </div>
      <aside aria-label="Mail" className="border-l border-line bg-crust px-5 py-6">
        {openId === null ? <p className="text-ink-soft">Choose a mail to read it.</p> : <Mail id={openId} />}
      </aside>
    </div>
  );
}

function Mail({ id }: { readonly id: string }) {
  const course = useCourse();
  const { data, error } = useMailQuery({ courseId: course.id, id });
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what="the mail" />;
  return (
    <article>
      <h3 className="font-semibold">{data.subject}</h3>
      <p className="text-sm text-ink-soft">to {data.to}</p>
      {data.error !== null && data.state !== 'sent' && (
        <p className="text-sm text-madder">The mail server answered: {data.error}</p>
      )}
      <p className="mt-3 break-words whitespace-pre-wrap">{data.text}</p>
    </article>
  );
}
