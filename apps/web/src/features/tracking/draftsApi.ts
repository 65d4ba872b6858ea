import type {
  DraftReadingView,
  ExtendRequest,
  HandInForRequest,
  ReminderView,
  RemindRequest,
  VersionMeta,
  VersionView,
} from '@salt-circle/contracts';
import { api } from '../../app/api.js';
import { changedHere } from '../../app/changes/freshness.js';

const CHANGED = ['Progress', 'Exchange', 'Plan', 'Draft', 'Today'] as const;

export const {
  useDraftReadingQuery,
  useStaffVersionQuery,
  usePreviewReminderMutation,
  useRemindMutation,
  useExtendMutation,
  useHandInForMutation,
  useStaffCopyAgainMutation,
} = api.injectEndpoints({
  endpoints: (build) => ({
    draftReading: build.query<DraftReadingView, { exchangeId: string; draftId: string }>({
      query: ({ exchangeId, draftId }) => `/exchanges/${exchangeId}/drafts/${draftId}`,
      providesTags: changedHere(['Draft', 'Reading'], 'drafts', 'own-draft'),
    }),
    staffVersion: build.query<VersionView, { exchangeId: string; draftId: string; number: number }>({
      query: ({ exchangeId, draftId, number }) => `/exchanges/${exchangeId}/drafts/${draftId}/versions/${number}`,
    }),
    previewReminder: build.mutation<ReminderView, RemindRequest & { exchangeId: string }>({
      query: ({ exchangeId, ...body }) => ({ url: `/exchanges/${exchangeId}/reminders/preview`, method: 'POST', body }),
    }),
    remind: build.mutation<ReminderView, RemindRequest & { exchangeId: string }>({
      query: ({ exchangeId, ...body }) => ({ url: `/exchanges/${exchangeId}/reminders`, method: 'POST', body }),
      invalidatesTags: ['Outbox', 'Plan'],
    }),
    extend: build.mutation<null, ExtendRequest & { exchangeId: string; participantId: string }>({
      query: ({ exchangeId, participantId, ...body }) => ({
        url: `/exchanges/${exchangeId}/participants/${participantId}/personal-dates`,
        method: 'PUT',
        body,
      }),
      invalidatesTags: CHANGED,
    }),
    handInFor: build.mutation<VersionMeta, HandInForRequest & { exchangeId: string; participantId: string }>({
      query: ({ exchangeId, participantId, ...body }) => ({
        url: `/exchanges/${exchangeId}/participants/${participantId}/hand-in`,
        method: 'POST',
        body,
      }),
      invalidatesTags: CHANGED,
    }),
    staffCopyAgain: build.mutation<null, { exchangeId: string; draftId: string; partId: string }>({
      query: ({ exchangeId, draftId, partId }) => ({
        url: `/exchanges/${exchangeId}/drafts/${draftId}/parts/${partId}/copy-again`,
        method: 'POST',
      }),
      invalidatesTags: ['Draft', 'Progress'],
    }),
  }),
});
