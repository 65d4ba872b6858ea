import type { InboxView, NewsView } from '@salt-circle/contracts';
import { counted } from '@salt-circle/core';
import { Link } from 'react-router';
import { useInboxQuery, useMailWishMutation, useReadNewsMutation } from '../../app/after/afterApi.js';
import { usePolling } from '../../app/changes/useChanges.js';
import { Page } from '../../app/frame/Page.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { When } from '../../app/time/When.js';
import { Button, Empty, Loading, Select, StateMark } from '../../kit/index.js';

/** What happened that concerns whoever is signed in. */
export function InboxPage() {
  const { data, error } = useInboxQuery(undefined, {
    refetchOnMountOrArgChange: true,
    pollingInterval: usePolling(60_000),
  });
  return (
    <Page title="Inbox">
      {error !== undefined ? (
        <ProblemNotice error={error} />
      ) : data === undefined ? (
        <Loading what="your inbox" />
      ) : (
        <Inbox inbox={data} />
      )}
    </Page>
  );
}

const WISHES = [
  ['at-once', 'each time'],
  ['daily', 'once a day, what I have not read'],
  ['off', 'not; receipts and sign-in links come all the same'],
] as const;

function Inbox({ inbox }: { readonly inbox: InboxView }) {
  const { news, unread, mailWish } = inbox;
  const [read, { isLoading }] = useReadNewsMutation();
  const [wish, wishing] = useMailWishMutation();
  const ids = news.flatMap((one) => (one.read ? [] : [one.id]));
  return (
    <div className="mx-auto w-full max-w-3xl space-y-4 px-5 py-6">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <h2 className="text-xl font-semibold">
          What happened{' '}
          <span className="text-base font-normal text-ink-soft">{counted(unread, '1 unread', '# unread')}</span>
        </h2>
        {ids.length > 0 && (
          <Button busy={isLoading} onClick={() => void read(ids)}>
            Mark all as read
          </Button>
        )}
      </div>
      {news.length === 0 ? (
        <Empty title="Nothing has happened yet.">
          <p>Reviews to write, feedback, answers and reminders come here.</p>
        </Empty>
      ) : (
        <ul className="divide-y divide-line border-y border-line">
          {news.map((one) => (
            <News key={one.id} news={one} onOpen={() => void (one.read || read([one.id]))} />
          ))}
        </ul>
      )}
      <Select
        label="Mail tells me of these"
        value={mailWish}
        options={WISHES}
        onChange={(value) => void wish(value as InboxView['mailWish'])}
      />
      {wishing.error !== undefined && <ProblemNotice error={wishing.error} />}
    </div>
  );
}

function News({ news: { at, words, path, read }, onOpen }: { readonly news: NewsView; readonly onOpen: () => void }) {
  const timeZone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  return (
    <li className="flex items-baseline gap-3 py-2.5">
      <StateMark state={read ? 'done' : 'not-begun'} word={read ? 'read' : 'not read'} />
      <Link
        to={path}
        className={`flex-1 text-ink no-underline hover:underline ${read ? '' : 'font-semibold'}`}
        onClick={onOpen}
      >
        {words}
      </Link>
      <span className="text-sm text-ink-soft">
        <When at={at} timeZone={timeZone} />
      </span>
    </li>
  );
}
