import type { InvitationLinkRow, MailView, OutboxView } from '@salt-circle/contracts';
import { useState } from 'react';
import { api } from '../../app/api.js';
import { usePolling } from '../../app/changes/useChanges.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useCourse } from '../../app/useCourse.js';
import { Button, Dialog, Loading, Notice } from '../../kit/index.js';
import { Mails } from './Mails.js';
import { say } from '../../words/outbox.js';
import { changedHere } from '../../app/changes/freshness.js';

const { useOutboxQuery, useMailQuery, useSendAgainMutation, useInvitationLinksQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    outbox: build.query<OutboxView, string>({
      query: (id) => `/courses/${id}/outbox`,
      providesTags: changedHere(['Outbox'], 'mail'),
    }),
    sendAgain: build.mutation<{ letters: number }, { courseId: string; id: string | null }>({
      query: ({ courseId, id }) => ({
        url: `/courses/${courseId}/outbox/${id === null ? '' : `${id}/`}again`,
        method: 'POST',
        body: {},
      }),
      invalidatesTags: ['Outbox'],
    }),
    invitationLinks: build.query<InvitationLinkRow[], string>({
      query: (courseId) => `/courses/${courseId}/people/invitations`,
      providesTags: changedHere(['Outbox', 'People'], 'mail', 'people'),
    }),
    mail: build.query<MailView, { courseId: string; id: string }>({
      query: ({ courseId, id }) => `/courses/${courseId}/outbox/${id}`,
      providesTags: changedHere(['Outbox'], 'mail'),
    }),
  }),
});

/** All mail that the course has sent, or would have sent. */
export function OutboxPage() {
  const course = useCourse();
  const { data, error } = useOutboxQuery(course.id, {
    refetchOnMountOrArgChange: true,
    pollingInterval: usePolling(20_000),
  });
  const [openId, setOpenId] = useState<string | null>(null);
  const open = useMailQuery({ courseId: course.id, id: openId ?? '' }, { skip: openId === null });
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what={say('outbox')} />;
  return (
    <Mails
      acts={<OutboxActs courseId={course.id} outbox={data} open={open.currentData ?? null} />}
      title={say('outboxLabel')}
      outbox={data}
      timeZone={course.timeZone}
      about={data.sends ? say('mailGoesOutByMail') : say('noMailServerIsSet')}
      none={say('invitationsReceiptsAndNoticesOf')}
      openId={openId}
      onOpen={setOpenId}
      open={{ data: open.currentData, error: open.error }}
    />
  );
}

interface OutboxActsProps {
  readonly courseId: string;
  readonly outbox: OutboxView;
  readonly open: MailView | null;
}

/** What can be done about mail that did not leave. */
function OutboxActs({ courseId, outbox: { failed, held, sends }, open }: OutboxActsProps) {
  const [sendAgain, { isLoading, error }] = useSendAgainMutation();
  const [showsLinks, setShowsLinks] = useState(false);
  return (
    <div className="mb-4 space-y-3">
      {held && <Notice title={say('heldTitle')}>{say('heldDescription')}</Notice>}
      {error !== undefined && <ProblemNotice error={error} />}
      <div className="flex flex-wrap gap-2">
        {open?.state === 'failed' && (
          <Button busy={isLoading} onClick={() => void sendAgain({ courseId, id: open.id })}>
            {say('sendAgainOne', { address: open.to })}
          </Button>
        )}
        {failed > 0 && (
          <Button busy={isLoading} onClick={() => void sendAgain({ courseId, id: null })}>
            {say('sendAgainAll', { failed })}
          </Button>
        )}
        {!sends && <Button onClick={() => setShowsLinks(true)}>{say('invitationLinks')}</Button>}
      </div>
      {showsLinks && <InvitationLinks courseId={courseId} onClose={() => setShowsLinks(false)} />}
    </div>
  );
}

/** Without a mail server, whoever runs the course passes the links on: as a list to copy, and as a file for a mail merge. */
function InvitationLinks({ courseId, onClose }: { readonly courseId: string; readonly onClose: () => void }) {
  const { data, error } = useInvitationLinksQuery(courseId, { refetchOnMountOrArgChange: true });
  const [copied, setCopied] = useState(false);
  const links = (data ?? []).filter(({ link }) => link !== null);
  const hidden = (data ?? []).length - links.length;
  const text = links.map(({ name, email, link }) => `${name} <${email}>\t${link ?? ''}`).join('\n');
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={say('invitationLinksTitle')}
      description={say('invitationLinksDescription')}
    >
      {error !== undefined && <ProblemNotice error={error} />}
      {data === undefined && error === undefined && <Loading what={say('invitationLinksLoading')} />}
      {data !== undefined && (
        <div className="space-y-3">
          <p>{say('invitationLinksCount', { links: links.length })}</p>
          {hidden > 0 && <p className="text-ink-soft">{say('invitationLinksHidden', { hidden })}</p>}
          {links.length > 0 && (
            <>
              <textarea
                readOnly
                aria-label={say('invitationLinksTitle')}
                rows={Math.min(12, links.length + 1)}
                value={text}
                onFocus={({ target }) => target.select()}
                className="w-full rounded border border-line bg-paper p-2 font-mono text-sm whitespace-pre"
              />
              <div className="flex flex-wrap items-center gap-3">
                <Button
                  look="primary"
                  onClick={() => void navigator.clipboard.writeText(text).then(() => setCopied(true))}
                >
                  {say('invitationLinksCopy')}
                </Button>
                <a className="text-dusk underline" href={`/api/courses/${courseId}/people/invitations.csv`} download>
                  {say('invitationLinksCsv')}
                </a>
                {copied && (
                  <span role="status" className="text-kelp">
                    {say('invitationLinksCopied')}
                  </span>
                )}
              </div>
            </>
          )}
        </div>
      )}
    </Dialog>
  );
}
