import type { LibraryFormView, LibraryView } from '@salt-circle/contracts';
import { api } from './api.js';
import { changedHere } from './changes/freshness.js';

export const { useLibraryQuery, useLibraryFormQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    library: build.query<LibraryView, string>({
      query: (courseId) => `/courses/${courseId}/library`,
      providesTags: changedHere(['Library'], 'people'),
    }),
    libraryForm: build.query<LibraryFormView, { courseId: string; id: string }>({
      query: ({ courseId, id }) => `/courses/${courseId}/library/forms/${id}`,
      providesTags: changedHere(['Library'], 'people'),
    }),
  }),
});
