import type { FormView, MyDraftView, VersionMeta, VersionView } from '@salt-circle/contracts';
import { api } from '../../app/api.js';

export const { useMyDraftQuery, useHandInMutation, useVersionQuery, useAskedFormQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    myDraft: build.query<MyDraftView, string>({ query: (id) => `/exchanges/${id}/draft`, providesTags: ['Draft'] }),
    version: build.query<VersionView, { exchangeId: string; number: number }>({
      query: ({ exchangeId, number }) => `/exchanges/${exchangeId}/draft/versions/${number}`,
    }),
    askedForm: build.query<FormView, string>({ query: (id) => `/exchanges/${id}/form`, providesTags: ['Form'] }),
    handIn: build.mutation<VersionMeta, { exchangeId: string; revision: number }>({
      query: ({ exchangeId, revision }) => ({
        url: `/exchanges/${exchangeId}/draft/hand-in`,
        method: 'POST',
        body: { revision },
      }),
      invalidatesTags: ['Draft', 'Exchange', 'Today', 'Progress'],
    }),
  }),
});
