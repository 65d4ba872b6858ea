import type { PlatformsView, PlatformRequest } from '@salt-circle/contracts';
import { api } from '../../app/api.js';

export const {
  usePlatformsQuery,
  useAddPlatformMutation,
  useChangePlatformMutation,
  useRemovePlatformMutation,
  useMakeKeyMutation,
  useRegistrationLinkMutation,
} = api.injectEndpoints({
  endpoints: (build) => ({
    platforms: build.query<PlatformsView, void>({ query: () => '/platforms', providesTags: ['Platforms'] }),
    addPlatform: build.mutation<{ id: string }, PlatformRequest>({
      query: (body) => ({ url: '/platforms', method: 'POST', body }),
      invalidatesTags: ['Platforms'],
    }),
    changePlatform: build.mutation<null, { id: string; body: PlatformRequest }>({
      query: ({ id, body }) => ({ url: `/platforms/${id}`, method: 'PUT', body }),
      invalidatesTags: ['Platforms'],
    }),
    removePlatform: build.mutation<null, string>({
      query: (id) => ({ url: `/platforms/${id}`, method: 'DELETE' }),
      invalidatesTags: ['Platforms'],
    }),
    makeKey: build.mutation<null, void>({
      query: () => ({ url: '/platforms/keys', method: 'POST' }),
      invalidatesTags: ['Platforms'],
    }),
    registrationLink: build.mutation<{ url: string }, string>({
      query: (name) => ({ url: '/platforms/registration', method: 'POST', body: { name } }),
    }),
  }),
});
