import { Inbox } from 'lucide-react';
import { Link } from 'react-router';
import { useInboxQuery } from '../after/afterApi.js';
import { usePolling } from '../changes/useChanges.js';
import { say } from '../../words/app.js';

/** The way to what happened, with how much of it is unread. */
export function InboxLink() {
  const { data } = useInboxQuery(undefined, { pollingInterval: usePolling(60_000) });
  const unread = data?.unread ?? 0;
  const words = unread === 0 ? say('inbox') : say('inboxUnread', { unread });
  return (
    <Link
      to="/inbox"
      aria-label={words}
      title={words}
      className="relative flex min-h-6 min-w-6 items-center gap-1 text-sm text-ink-soft no-underline"
    >
      <Inbox size={18} aria-hidden="true" />
      {unread > 0 && (
        <span aria-hidden="true" className="font-semibold text-iodine tabular-nums">
          {unread > 99 ? '99+' : unread}
        </span>
      )}
    </Link>
  );
}
