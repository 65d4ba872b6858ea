import type { DeskView, EarlierView, ReviewNamesView, SubmitView } from '@salt-circle/contracts';
import { api } from '../../app/api.js';

export const {
  useDeskQuery,
  useEarlierQuery,
  useNamesInReviewQuery,
  useSubmitReviewMutation,
  useReopenReviewMutation,
} = api.injectEndpoints({
  endpoints: (build) => ({
    desk: build.query<DeskView, string>({ query: (id) => `/reviews/${id}`, providesTags: ['Review'] }),
    earlier: build.query<EarlierView, string>({ query: (id) => `/reviews/${id}/earlier` }),
    namesInReview: build.query<ReviewNamesView, string>({ query: (id) => `/reviews/${id}/names` }),
    submitReview: build.mutation<SubmitView, string>({
      query: (id) => ({ url: `/reviews/${id}/submit`, method: 'POST' }),
      invalidatesTags: ['Review', 'Exchange', 'Today', 'Progress', 'OwnRemarks', 'Practice', 'Plan'],
    }),
    reopenReview: build.mutation<null, { readonly id: string; readonly reason?: string; readonly until?: string }>({
      query: ({ id, ...body }) => ({ url: `/reviews/${id}/reopen`, method: 'POST', body }),
      invalidatesTags: ['Review', 'Exchange', 'Today', 'Progress'],
    }),
  }),
});
