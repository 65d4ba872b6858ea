import type { FormView, SavedView } from '@salt-circle/contracts';
import { api } from '../../app/api.js';

export const { useFormQuery, useTakeFormMutation, useKeepFormMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    form: build.query<FormView, string>({ query: (id) => `/exchanges/${id}/form`, providesTags: ['Form'] }),
    takeForm: build.mutation<SavedView, { exchangeId: string; revision: number; libraryId: string }>({
      query: ({ exchangeId, ...body }) => ({ url: `/exchanges/${exchangeId}/form/from-library`, method: 'POST', body }),
      invalidatesTags: ['Form', 'Plan'],
    }),
    keepForm: build.mutation<{ id: string }, { courseId: string; exchangeId: string; title: string }>({
      query: ({ courseId, ...body }) => ({
        url: `/courses/${courseId}/library`,
        method: 'POST',
        body: { kind: 'form', ...body },
      }),
      invalidatesTags: ['Library'],
    }),
  }),
});
