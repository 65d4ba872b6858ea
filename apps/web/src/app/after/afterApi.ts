import type {
  AdoptResult,
  AfterRow,
  DecisionRequest,
  DecisionsView,
  DecisionView,
  FeedbackView,
  InboxView,
  RatingRequest,
  ReflectionRead,
  ReplyRequest,
  RoundCard,
  SecondRoundRequest,
  RevisionView,
  ThreadsView,
} from '@salt-circle/contracts';
import { api } from '../api.js';
import { changedAnywhere, changedHere } from '../changes/freshness.js';

interface OfReview {
  readonly reviewId: string;
}
interface OfExchange {
  readonly exchangeId: string;
}

export const {
  useFeedbackQuery,
  useReadFeedbackMutation,
  useOthersQuery,
  useThreadsQuery,
  useReplyMutation,
  useRateMutation,
  useDecisionsQuery,
  useDecideMutation,
  useAdoptMutation,
  useUndoAdoptionMutation,
  useRevisionQuery,
  useAfterQuery,
  useReflectionsQuery,
  useInboxQuery,
  useReadNewsMutation,
  useMailWishMutation,
  useRoundsQuery,
  useMakeRoundMutation,
} = api.injectEndpoints({
  endpoints: (build) => ({
    feedback: build.query<FeedbackView, string>({
      query: (id) => `/exchanges/${id}/feedback`,
      providesTags: changedHere(['Feedback'], 'plan', 'own-draft'),
    }),
    readFeedback: build.mutation<null, string>({
      query: (id) => ({ url: `/exchanges/${id}/feedback/read`, method: 'POST' }),
      invalidatesTags: ['Today'],
    }),
    others: build.query<FeedbackView, string>({
      query: (reviewId) => `/reviews/${reviewId}/others`,
      providesTags: changedAnywhere(['Feedback'], 'plan'),
    }),
    threads: build.query<ThreadsView, string>({
      query: (reviewId) => `/reviews/${reviewId}/replies`,
      providesTags: changedAnywhere(['Threads'], 'reviews', 'own-draft', 'own-review'),
    }),
    reply: build.mutation<ThreadsView, OfReview & ReplyRequest>({
      query: ({ reviewId, ...body }) => ({ url: `/reviews/${reviewId}/replies`, method: 'POST', body }),
      invalidatesTags: ['Threads'],
    }),
    rate: build.mutation<ThreadsView, OfReview & RatingRequest>({
      query: ({ reviewId, ...body }) => ({ url: `/reviews/${reviewId}/rating`, method: 'PUT', body }),
      invalidatesTags: ['Threads'],
    }),
    decisions: build.query<DecisionsView, string>({
      query: (exchangeId) => `/exchanges/${exchangeId}/decisions`,
      providesTags: changedHere(['Decisions'], 'own-draft'),
    }),
    decide: build.mutation<DecisionView, OfExchange & { key: string } & DecisionRequest>({
      query: ({ exchangeId, key, ...body }) => ({
        url: `/exchanges/${exchangeId}/decisions/${key}`,
        method: 'PUT',
        body,
      }),
      invalidatesTags: ['Decisions'],
    }),
    adopt: build.mutation<AdoptResult, OfExchange & { noteIds: readonly string[] }>({
      query: ({ exchangeId, ...body }) => ({ url: `/exchanges/${exchangeId}/adoptions`, method: 'POST', body }),
      invalidatesTags: ['Decisions', 'Draft'],
    }),
    undoAdoption: build.mutation<DecisionsView, OfExchange & { id: string }>({
      query: ({ exchangeId, id }) => ({ url: `/exchanges/${exchangeId}/adoptions/${id}`, method: 'DELETE' }),
      invalidatesTags: ['Decisions', 'Draft'],
    }),
    revision: build.query<RevisionView, OfExchange & { draftId: string }>({
      query: ({ exchangeId, draftId }) => `/exchanges/${exchangeId}/drafts/${draftId}/revision`,
      providesTags: changedHere(['Decisions', 'Draft'], 'drafts', 'own-draft'),
    }),
    after: build.query<AfterRow[], string>({
      query: (exchangeId) => `/exchanges/${exchangeId}/after`,
      providesTags: changedHere(['Progress'], 'plan', 'drafts', 'reviews'),
    }),
    reflections: build.query<ReflectionRead[], string>({
      query: (exchangeId) => `/exchanges/${exchangeId}/reflections`,
      providesTags: changedHere(['Progress'], 'drafts', 'reviews'),
    }),
    // What follows an exchange is another one, of which the news are.
    rounds: build.query<RoundCard[], string>({
      query: (id) => `/exchanges/${id}/rounds`,
      providesTags: changedAnywhere(['Exchange'], 'plan'),
    }),
    makeRound: build.mutation<RoundCard, OfExchange & SecondRoundRequest>({
      query: ({ exchangeId, ...body }) => ({ url: `/exchanges/${exchangeId}/rounds`, method: 'POST', body }),
      invalidatesTags: ['Exchange', 'Courses', 'Today'],
    }),
    inbox: build.query<InboxView, void>({
      query: () => '/inbox',
      providesTags: changedAnywhere(['Inbox'], 'plan', 'reviews', 'own-draft', 'own-review'),
    }),
    readNews: build.mutation<InboxView, readonly string[]>({
      query: (ids) => ({ url: '/inbox/read', method: 'POST', body: { ids } }),
      invalidatesTags: ['Inbox'],
    }),
    mailWish: build.mutation<InboxView, InboxView['mailWish']>({
      query: (mailWish) => ({ url: '/inbox/mail', method: 'PUT', body: { mailWish } }),
      invalidatesTags: ['Inbox'],
    }),
  }),
});
