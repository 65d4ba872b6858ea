import type { CalendarLinkView } from '@salt-circle/contracts';
import { useState } from 'react';
import { Button, Dialog, Loading } from '../../kit/index.js';
import { api } from '../api.js';
import { ProblemNotice } from '../ProblemNotice.js';
import { useNow } from '../time/useNow.js';
import { relatively } from '../time/words.js';
import { say } from '../../words/app.js';

const { useCalendarLinkQuery, useMakeCalendarLinkMutation, useRevokeCalendarLinkMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    calendarLink: build.query<CalendarLinkView, void>({ query: () => '/calendar-link', providesTags: ['Calendar'] }),
    makeCalendarLink: build.mutation<{ url: string }, void>({
      query: () => ({ url: '/calendar-link', method: 'POST' }),
      invalidatesTags: ['Calendar'],
    }),
    revokeCalendarLink: build.mutation<null, void>({
      query: () => ({ url: '/calendar-link', method: 'DELETE' }),
      invalidatesTags: ['Calendar'],
    }),
  }),
});

/** The private address at which a calendar program finds one's due times. */
export function CalendarDialog({ open, onClose }: { readonly open: boolean; readonly onClose: () => void }) {
  return (
    <Dialog
      open={open}
      onClose={onClose}
      title={say('dueTimesInYourCalendar')}
      description={say('calendarProgramThatSubscribesTo')}
    >
      {open && <CalendarLink />}
    </Dialog>
  );
}

function CalendarLink() {
  const now = useNow();
  const { data } = useCalendarLinkQuery();
  const [make, making] = useMakeCalendarLinkMutation();
  const [revoke, revoking] = useRevokeCalendarLinkMutation();
  const [copied, setCopied] = useState(false);
  if (data === undefined) return <Loading what={say('yourCalendarAddress')} />;
  const url = data.madeAt === null ? undefined : making.data?.url;
  const error = making.error ?? revoking.error;
  return (
    <div className="space-y-3">
      {url !== undefined ? (
        <>
          <label className="block font-medium">
            {say('yourAddress')}
            <input
              readOnly
              value={url}
              onFocus={({ target }) => target.select()}
              className="mt-1 w-full rounded border border-edge bg-paper px-2.5 py-1.5 text-sm"
            />
          </label>
          <p className="text-sm text-ink-soft">{say('copyItNowItIs')}</p>
          <Button
            small
            onClick={() => {
              void navigator.clipboard.writeText(url).then(() => setCopied(true));
            }}
          >
            {copied ? say('copied') : say('copy')}
          </Button>
        </>
      ) : (
        <p>
          {data.madeAt === null
            ? say('youHaveNoAddressYet')
            : say('youMadeOneNewOne', { when: relatively(Date.parse(data.madeAt), now) })}
        </p>
      )}
      {error !== undefined && <ProblemNotice error={error} />}
      <div className="flex gap-2">
        <Button look={url === undefined ? 'primary' : 'plain'} busy={making.isLoading} onClick={() => void make()}>
          {data.madeAt === null ? say('makeAddress') : say('makeNewOne')}
        </Button>
        {data.madeAt !== null && (
          <Button busy={revoking.isLoading} onClick={() => void revoke()}>
            {say('calendarRemoveAddress')}
          </Button>
        )}
      </div>
    </div>
  );
}
