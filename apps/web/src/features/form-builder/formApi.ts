import type { FormView, LibraryFormView, SavedView } from '@salt-circle/contracts';
import { api } from '../../app/api.js';

export const { useFormQuery, useLibraryFormQuery, useTakeFormMutation, useKeepFormMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    form: build.query<FormView, string>({ query: (id) => `/exchanges/${id}/form`, providesTags: ['Form'] }),
    libraryForm: build.query<LibraryFormView, { courseId: string; id: string }>({
      query: ({ courseId, id }) => `/courses/${courseId}/library/forms/${id}`,
      providesTags: ['Library'],
    }),
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
