import type { DeskView, SubmitView } from '@salt-circle/contracts';
import { api } from '../../app/api.js';

export const { useDeskQuery, useSubmitReviewMutation, useReopenReviewMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    desk: build.query<DeskView, string>({ query: (id) => `/reviews/${id}`, providesTags: ['Review'] }),
    submitReview: build.mutation<SubmitView, string>({
      query: (id) => ({ url: `/reviews/${id}/submit`, method: 'POST' }),
      invalidatesTags: ['Review', 'Exchange', 'Today', 'Progress'],
    }),
    reopenReview: build.mutation<null, string>({
      query: (id) => ({ url: `/reviews/${id}/reopen`, method: 'POST' }),
      invalidatesTags: ['Review', 'Exchange', 'Today', 'Progress'],
    }),
  }),
});
