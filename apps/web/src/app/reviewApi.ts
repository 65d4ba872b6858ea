import type { DeskView, SubmitView } from '@salt-circle/contracts';
import { api } from './api.js';
import { changedAnywhere } from './changes/freshness.js';

/** One review, as its desk has it. */
export const { useDeskQuery, useSubmitReviewMutation, useReopenReviewMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    desk: build.query<DeskView, string>({
      query: (id) => `/reviews/${id}`,
      providesTags: changedAnywhere(['Review'], 'own-review'),
    }),
    submitReview: build.mutation<SubmitView, string>({
      query: (id) => ({ url: `/reviews/${id}/submit`, method: 'POST' }),
      invalidatesTags: ['Review', 'Exchange', 'Today', 'Progress', 'OwnRemarks', 'Practice', 'Plan', 'Grades'],
    }),
    reopenReview: build.mutation<null, { readonly id: string; readonly reason?: string; readonly until?: string }>({
      query: ({ id, ...body }) => ({ url: `/reviews/${id}/reopen`, method: 'POST', body }),
      invalidatesTags: ['Review', 'Exchange', 'Today', 'Progress', 'Grades'],
    }),
  }),
});
