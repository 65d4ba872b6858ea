import type { MailView, OutboxView } from '@salt-circle/contracts';
import { useState } from 'react';
import { api } from '../../app/api.js';
import { Page } from '../../app/frame/Page.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { Loading } from '../../kit/index.js';
import { Mails } from './Mails.js';
import { say } from '../../words/outbox.js';
import { changedAnywhere } from '../../app/changes/freshness.js';

const { useDemoMailsQuery, useDemoMailQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    demoMails: build.query<OutboxView, void>({
      query: () => '/demo/mail',
      providesTags: changedAnywhere(['Outbox'], 'mail'),
    }),
    demoMail: build.query<MailView, string>({
      query: (id) => `/demo/mail/${id}`,
      providesTags: changedAnywhere(['Outbox'], 'mail'),
    }),
  }),
});

/** The mailboxes of everybody in the demo, in one: nothing leaves it. */
export function DemoMailPage() {
  const { data, error } = useDemoMailsQuery(undefined, { refetchOnMountOrArgChange: true, pollingInterval: 5_000 });
  const [openId, setOpenId] = useState<string | null>(null);
  const open = useDemoMailQuery(openId ?? '', { skip: openId === null });
  return (
    <Page title={say('mailOfDemo')}>
      {error !== undefined && <ProblemNotice error={error} />}
      {data === undefined && error === undefined && <Loading what={say('mail')} />}
      {data !== undefined && (
        <Mails
          title={say('everybodysMail')}
          outbox={data}
          timeZone={Intl.DateTimeFormat().resolvedOptions().timeZone}
          about={say('whatWouldBeInMailboxes')}
          none={say('invitationsReceiptsAndLinksFor')}
          openId={openId}
          onOpen={setOpenId}
          open={{ data: open.currentData, error: open.error }}
        />
      )}
    </Page>
  );
}
