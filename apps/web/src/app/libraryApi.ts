import type { LibraryView } from '@salt-circle/contracts';
import { api } from './api.js';

export const { useLibraryQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    library: build.query<LibraryView, string>({
      query: (courseId) => `/courses/${courseId}/library`,
      providesTags: ['Library'],
    }),
  }),
});
