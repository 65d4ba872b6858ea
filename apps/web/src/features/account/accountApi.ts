import type { AccountView } from '@salt-circle/contracts';
import { api } from '../../app/api.js';

export const {
  useAccountQuery,
  useRenameMutation,
  useChangePasswordMutation,
  useChangeAddressMutation,
  useKeepAddressMutation,
  useEndSessionMutation,
} = api.injectEndpoints({
  endpoints: (build) => ({
    account: build.query<AccountView, void>({ query: () => '/account', providesTags: ['Account'] }),
    rename: build.mutation<null, string>({
      query: (name) => ({ url: '/account/name', method: 'PUT', body: { name } }),
      invalidatesTags: ['Account', 'Session'],
    }),
    changePassword: build.mutation<null, { old: string; password: string }>({
      query: (body) => ({ url: '/account/password', method: 'PUT', body }),
      invalidatesTags: ['Account'],
    }),
    changeAddress: build.mutation<null, { email: string; password: string }>({
      query: (body) => ({ url: '/account/address', method: 'PUT', body }),
      invalidatesTags: ['Account'],
    }),
    keepAddress: build.mutation<null, void>({
      query: () => ({ url: '/account/address', method: 'DELETE' }),
      invalidatesTags: ['Account'],
    }),
    /** One by its id, or all others. */
    endSession: build.mutation<null, string | null>({
      query: (id) => ({ url: id === null ? '/account/sessions' : `/account/sessions/${id}`, method: 'DELETE' }),
      invalidatesTags: ['Account'],
    }),
  }),
});
