import type {
  CheckView,
  DraftFeedbackView,
  QueueView,
  ReleasePeopleRequest,
  ReleaseView,
  Withholdable,
  LookRequestView,
} from '@salt-circle/contracts';
import type { FlaggingRules } from '@salt-circle/core';
import { api } from '../api.js';
import { changedAnywhere, changedHere } from '../changes/freshness.js';

interface Target {
  readonly reviewId: string;
  readonly kind: Withholdable;
  readonly targetId: string;
}

export interface WithholdBody extends Target {
  readonly reason: string;
  readonly told: boolean;
  readonly counts: boolean;
}

export const {
  useQueueQuery,
  useSaveBoundsMutation,
  useReviewCheckQuery,
  useSaveCheckMutation,
  useWithholdMutation,
  useGiveBackMutation,
  useDraftFeedbackQuery,
  useBeginOwnReviewMutation,
  useLookRequestsQuery,
  useAskToLookMutation,
  useAnswerLookMutation,
  useReleaseMutation,
  useReleaseViewQuery,
  useReleasePeopleMutation,
} = api.injectEndpoints({
  endpoints: (build) => ({
    queue: build.query<QueueView, string>({
      query: (exchangeId) => `/exchanges/${exchangeId}/queue`,
      providesTags: changedHere(['Queue'], 'reviews', 'people'),
    }),
    saveBounds: build.mutation<null, { exchangeId: string; bounds: FlaggingRules }>({
      query: ({ exchangeId, bounds }) => ({
        url: `/exchanges/${exchangeId}/queue/bounds`,
        method: 'PUT',
        body: { bounds },
      }),
      invalidatesTags: ['Queue'],
    }),
    reviewCheck: build.query<CheckView, string>({
      query: (id) => `/reviews/${id}/check`,
      providesTags: changedAnywhere(['Queue'], 'reviews', 'people'),
    }),
    saveCheck: build.mutation<CheckView, { reviewId: string; looked: boolean; dismissed: readonly string[] }>({
      query: ({ reviewId, ...body }) => ({ url: `/reviews/${reviewId}/check`, method: 'PUT', body }),
      invalidatesTags: ['Queue'],
    }),
    beginOwnReview: build.mutation<{ id: string }, { exchangeId: string; draftId: string }>({
      query: ({ exchangeId, draftId }) => ({
        url: `/exchanges/${exchangeId}/drafts/${draftId}/reviews`,
        method: 'POST',
      }),
      invalidatesTags: ['Queue'],
    }),
    withhold: build.mutation<null, WithholdBody>({
      query: ({ reviewId, ...body }) => ({ url: `/reviews/${reviewId}/withheld`, method: 'PUT', body }),
      invalidatesTags: ['Queue', 'Review', 'Exchange'],
    }),
    draftFeedback: build.query<DraftFeedbackView, { exchangeId: string; draftId: string }>({
      query: ({ exchangeId, draftId }) => `/exchanges/${exchangeId}/drafts/${draftId}/feedback`,
      providesTags: changedHere(['Feedback', 'Queue', 'Review'], 'plan', 'reviews'),
    }),
    lookRequests: build.query<LookRequestView[], string>({
      query: (reviewId) => `/reviews/${reviewId}/look-requests`,
      providesTags: changedAnywhere(['Looks'], 'reviews'),
    }),
    askToLook: build.mutation<LookRequestView[], { reviewId: string; noteId: string | null; words: string }>({
      query: ({ reviewId, ...body }) => ({ url: `/reviews/${reviewId}/look-requests`, method: 'POST', body }),
      invalidatesTags: ['Looks'],
    }),
    answerLook: build.mutation<LookRequestView[], { reviewId: string; requestId: string; answer: string }>({
      query: ({ reviewId, requestId, answer }) => ({
        url: `/reviews/${reviewId}/look-requests/${requestId}`,
        method: 'PUT',
        body: { answer },
      }),
      invalidatesTags: ['Looks', 'Queue', 'Outbox'],
    }),
    releaseView: build.query<ReleaseView, string>({
      query: (exchangeId) => `/exchanges/${exchangeId}/release`,
      providesTags: changedHere(['Queue'], 'plan', 'reviews'),
    }),
    /** At an instant in ISO 8601, or now. */
    release: build.mutation<{ release: string }, { id: string; at: string | null }>({
      query: ({ id, at }) => ({ url: `/exchanges/${id}/release`, method: 'POST', body: { at } }),
      invalidatesTags: ['Exchange', 'Plan', 'Courses', 'Today', 'Feedback', 'Queue'],
    }),
    releasePeople: build.mutation<null, { exchangeId: string; people: ReleasePeopleRequest }>({
      query: ({ exchangeId, people }) => ({
        url: `/exchanges/${exchangeId}/release/people`,
        method: 'PUT',
        body: people,
      }),
      invalidatesTags: ['Queue', 'Outbox'],
    }),
    giveBack: build.mutation<null, Target>({
      query: ({ reviewId, ...body }) => ({ url: `/reviews/${reviewId}/given-back`, method: 'POST', body }),
      invalidatesTags: ['Queue', 'Review', 'Exchange'],
    }),
  }),
});
