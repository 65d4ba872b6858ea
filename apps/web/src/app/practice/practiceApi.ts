import type { PracticeDraftRequest, PracticeResultView, PracticeView } from '@salt-circle/contracts';
import { api } from '../api.js';
import { changedHere } from '../changes/freshness.js';

export const {
  usePracticeQuery,
  useAddPracticeMutation,
  useRemovePracticeMutation,
  useBeginPracticeMutation,
  usePracticeResultQuery,
} = api.injectEndpoints({
  endpoints: (build) => ({
    practice: build.query<PracticeView, string>({
      query: (exchangeId) => `/exchanges/${exchangeId}/practice`,
      providesTags: changedHere(['Practice'], 'plan'),
    }),
    addPractice: build.mutation<PracticeView, { exchangeId: string; request: PracticeDraftRequest }>({
      query: ({ exchangeId, request }) => ({ url: `/exchanges/${exchangeId}/practice`, method: 'POST', body: request }),
      invalidatesTags: ['Practice', 'Plan', 'Uploads'],
    }),
    removePractice: build.mutation<null, string>({
      query: (id) => ({ url: `/practice/${id}`, method: 'DELETE' }),
      invalidatesTags: ['Practice', 'Plan', 'Progress'],
    }),
    beginPractice: build.mutation<{ reviewId: string }, { id: string; again: boolean }>({
      query: ({ id, again }) => ({ url: `/practice/${id}/begin`, method: 'POST', body: { again } }),
      invalidatesTags: ['Practice', 'Review', 'Exchange'],
    }),
    practiceResult: build.query<PracticeResultView, string>({
      query: (id) => `/practice/${id}/result`,
      providesTags: ['Practice'],
    }),
  }),
});
