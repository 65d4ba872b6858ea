import type { ArrivalView, LtiProofView } from '@salt-circle/contracts';
import { api } from '../../app/api.js';

/** What is said of an arrival, and the body of it. */
export interface Saying {
  readonly token: string;
  readonly what: 'begin' | 'account' | 'course' | 'role' | 'choice';
  readonly body?: object;
}

const at = (token: string, what = '') => `/lti/arrivals/${token}${what}`;

export const {
  useArrivalQuery,
  useSayMutation,
  useSendProofMutation,
  useFaultQuery,
  useProofQuery,
  useConfirmProofMutation,
} = api.injectEndpoints({
  endpoints: (build) => ({
    arrival: build.query<ArrivalView, string>({ query: (token) => at(token) }),
    say: build.mutation<ArrivalView, Saying>({
      query: ({ token, what, body }) => ({ url: at(token, `/${what}`), method: 'POST', ...(body && { body }) }),
    }),
    sendProof: build.mutation<null, { token: string; email: string | null }>({
      query: ({ token, email }) => ({ url: at(token, '/mail'), method: 'POST', body: { email } }),
    }),
    fault: build.query<{ sentence: string; whatToDo: string }, string>({ query: (code) => `/lti/faults/${code}` }),
    proof: build.query<LtiProofView, string>({ query: (token) => `/lti/proofs/${token}` }),
    confirmProof: build.mutation<null, string>({
      query: (token) => ({ url: `/lti/proofs/${token}`, method: 'POST' }),
    }),
  }),
});
