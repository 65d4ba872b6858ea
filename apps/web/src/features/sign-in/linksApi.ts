import type { AddressLinkView, PasswordLinkView } from '@salt-circle/contracts';
import { api } from '../../app/api.js';

export const {
  useForgottenMutation,
  usePasswordLinkQuery,
  useChoosePasswordMutation,
  useAddressLinkQuery,
  useConfirmAddressMutation,
} = api.injectEndpoints({
  endpoints: (build) => ({
    forgotten: build.mutation<null, string>({
      query: (email) => ({ url: '/forgotten', method: 'POST', body: { email } }),
    }),
    passwordLink: build.query<PasswordLinkView, string>({ query: (token) => `/password-links/${token}` }),
    choosePassword: build.mutation<null, { token: string; password: string }>({
      query: ({ token, password }) => ({ url: `/password-links/${token}`, method: 'POST', body: { password } }),
    }),
    addressLink: build.query<AddressLinkView, string>({ query: (token) => `/address-links/${token}` }),
    confirmAddress: build.mutation<{ made: boolean }, string>({
      query: (token) => ({ url: `/address-links/${token}`, method: 'POST' }),
    }),
  }),
});
