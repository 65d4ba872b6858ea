import type { MailView, OutboxView } from '@salt-circle/contracts';
import { useState } from 'react';
import { api } from '../../app/api.js';
import { usePolling } from '../../app/changes/useChanges.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useCourse } from '../../app/useCourse.js';
import { Loading } from '../../kit/index.js';
import { Mails } from './Mails.js';
import { say } from '../../words/outbox.js';

const { useOutboxQuery, useMailQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    outbox: build.query<OutboxView, string>({ query: (id) => `/courses/${id}/outbox`, providesTags: ['Outbox'] }),
    mail: build.query<MailView, { courseId: string; id: string }>({
      query: ({ courseId, id }) => `/courses/${courseId}/outbox/${id}`,
      providesTags: ['Outbox'],
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
