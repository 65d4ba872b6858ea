import type {
  FormView,
  HandInCheck,
  LinkRequest,
  MyDraftView,
  PartView,
  VersionMeta,
  VersionView,
} from '@salt-circle/contracts';
import { api } from '../../app/api.js';
import { changedHere } from '../../app/changes/freshness.js';

const CHANGED = ['Draft', 'Exchange', 'Today', 'Progress'] as const;

export const {
  useMyDraftQuery,
  useLazyCheckQuery,
  useHandInMutation,
  useHideFindMutation,
  useShowAgainMutation,
  useWithdrawMutation,
  useVersionQuery,
  useAskedFormQuery,
  useRemovePartMutation,
  useOrderPartsMutation,
  useAddLinkMutation,
  useChangeLinkMutation,
  useCopyAgainMutation,
} = api.injectEndpoints({
  endpoints: (build) => ({
    myDraft: build.query<MyDraftView, string>({
      query: (id) => `/exchanges/${id}/draft`,
      providesTags: changedHere(['Draft'], 'own-draft'),
    }),
    version: build.query<VersionView, { exchangeId: string; number: number }>({
      query: ({ exchangeId, number }) => `/exchanges/${exchangeId}/draft/versions/${number}`,
    }),
    askedForm: build.query<FormView, string>({ query: (id) => `/exchanges/${id}/form`, providesTags: ['Form'] }),
    check: build.query<HandInCheck, string>({ query: (id) => `/exchanges/${id}/draft/check` }),
    hideFind: build.mutation<HandInCheck, { exchangeId: string; fingerprint: string; key: string }>({
      query: ({ exchangeId, ...body }) => ({ url: `/exchanges/${exchangeId}/draft/hide`, method: 'POST', body }),
      invalidatesTags: ['Draft'],
    }),
    showAgain: build.mutation<null, { exchangeId: string; partId: string; start: number; end: number }>({
      query: ({ exchangeId, partId, start, end }) => ({
        url: `/exchanges/${exchangeId}/draft/parts/${partId}/hidden`,
        method: 'PUT',
        body: { start, end, hide: false },
      }),
      invalidatesTags: ['Draft'],
    }),
    handIn: build.mutation<
      VersionMeta,
      { exchangeId: string; fingerprint: string; namesSeen: boolean; changes?: string }
    >({
      query: ({ exchangeId, ...body }) => ({ url: `/exchanges/${exchangeId}/draft/hand-in`, method: 'POST', body }),
      invalidatesTags: CHANGED,
    }),
    withdraw: build.mutation<null, string>({
      query: (id) => ({ url: `/exchanges/${id}/draft/withdraw`, method: 'POST' }),
      invalidatesTags: CHANGED,
    }),
    removePart: build.mutation<null, { exchangeId: string; partId: string }>({
      query: ({ exchangeId, partId }) => ({ url: `/exchanges/${exchangeId}/draft/parts/${partId}`, method: 'DELETE' }),
      invalidatesTags: ['Draft', 'Exchange'],
    }),
    orderParts: build.mutation<null, { exchangeId: string; deliverableId: string; partIds: readonly string[] }>({
      query: ({ exchangeId, deliverableId, partIds }) => ({
        url: `/exchanges/${exchangeId}/draft/order/${deliverableId}`,
        method: 'PUT',
        body: { partIds },
      }),
      invalidatesTags: ['Draft'],
    }),
    addLink: build.mutation<PartView, { exchangeId: string; deliverableId: string; link: LinkRequest }>({
      query: ({ exchangeId, deliverableId, link }) => ({
        url: `/exchanges/${exchangeId}/draft/links/${deliverableId}`,
        method: 'POST',
        body: link,
      }),
      invalidatesTags: ['Draft', 'Exchange'],
    }),
    changeLink: build.mutation<PartView, { exchangeId: string; partId: string; link: LinkRequest }>({
      query: ({ exchangeId, partId, link }) => ({
        url: `/exchanges/${exchangeId}/draft/parts/${partId}`,
        method: 'PUT',
        body: link,
      }),
      invalidatesTags: ['Draft'],
    }),
    copyAgain: build.mutation<null, { exchangeId: string; draftId: string; partId: string }>({
      query: ({ exchangeId, draftId, partId }) => ({
        url: `/exchanges/${exchangeId}/drafts/${draftId}/parts/${partId}/copy-again`,
        method: 'POST',
      }),
      invalidatesTags: ['Draft'],
    }),
  }),
});
