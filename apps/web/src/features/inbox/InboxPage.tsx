import type { InboxView, NewsView } from '@salt-circle/contracts';
import { Link } from 'react-router';
import { useInboxQuery, useMailWishMutation, useReadNewsMutation } from '../../app/after/afterApi.js';
import { usePolling } from '../../app/changes/useChanges.js';
import { Page } from '../../app/frame/Page.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { When } from '../../app/time/When.js';
import { Button, Empty, Loading, Select, StateMark } from '../../kit/index.js';
import { say } from '../../words/inbox.js';

/** What happened that concerns whoever is signed in. */
export function InboxPage() {
  const { data, error } = useInboxQuery(undefined, {
    refetchOnMountOrArgChange: true,
    pollingInterval: usePolling(60_000),
  });
  return (
    <Page title={say('inbox')}>
      {error !== undefined ? (
        <ProblemNotice error={error} />
      ) : data === undefined ? (
        <Loading what={say('yourInbox')} />
      ) : (
        <Inbox inbox={data} />
      )}
    </Page>
  );
}

const mailWishes = () =>
  [
    ['at-once', say('eachTime')],
    ['daily', say('onceDayWhatIHave')],
    ['off', say('notReceiptsAndSignIn')],
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
          {say('whatHappenedUnread', {
            unread,
            span: (words) => <span className="text-base font-normal text-ink-soft">{words}</span>,
          })}
        </h2>
        {ids.length > 0 && (
          <Button busy={isLoading} onClick={() => void read(ids)}>
            {say('markAllAsRead')}
          </Button>
        )}
      </div>
      {news.length === 0 ? (
        <Empty title={say('nothingHasHappenedYet')}>
          <p>{say('reviewsToWriteFeedbackAnswers')}</p>
        </Empty>
      ) : (
        <ul className="divide-y divide-line border-y border-line">
          {news.map((one) => (
            <News key={one.id} news={one} onOpen={() => void (one.read || read([one.id]))} />
          ))}
        </ul>
      )}
      <Select
        label={say('mailTellsMeOfThese')}
        value={mailWish}
        options={mailWishes()}
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
      <StateMark state={read ? 'done' : 'not-begun'} word={read ? say('read') : say('notRead')} />
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
