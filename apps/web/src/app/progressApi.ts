import type { ProgressView } from '@salt-circle/contracts';
import { api } from './api.js';
import { changedHere } from './changes/freshness.js';

/** Of all students in an exchange: several workspaces look at it. Asked again now and then, as students go on working. */
export const { useProgressQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    progress: build.query<ProgressView, string>({
      query: (id) => `/exchanges/${id}/progress`,
      providesTags: changedHere(['Progress'], 'plan', 'drafts', 'reviews'),
    }),
  }),
});
