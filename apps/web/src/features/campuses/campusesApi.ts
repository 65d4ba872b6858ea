import type { CampusesView, CampusRequest } from '@salt-circle/contracts';
import { api } from '../../app/api.js';

export const {
  useCampusesQuery,
  useAddCampusMutation,
  useChangeCampusMutation,
  useRemoveCampusMutation,
  useMakeKeyMutation,
  useRegistrationLinkMutation,
} = api.injectEndpoints({
  endpoints: (build) => ({
    campuses: build.query<CampusesView, void>({ query: () => '/campuses', providesTags: ['Campuses'] }),
    addCampus: build.mutation<{ id: string }, CampusRequest>({
      query: (body) => ({ url: '/campuses', method: 'POST', body }),
      invalidatesTags: ['Campuses'],
    }),
    changeCampus: build.mutation<null, { id: string; body: CampusRequest }>({
      query: ({ id, body }) => ({ url: `/campuses/${id}`, method: 'PUT', body }),
      invalidatesTags: ['Campuses'],
    }),
    removeCampus: build.mutation<null, string>({
      query: (id) => ({ url: `/campuses/${id}`, method: 'DELETE' }),
      invalidatesTags: ['Campuses'],
    }),
    makeKey: build.mutation<null, void>({
      query: () => ({ url: '/campuses/keys', method: 'POST' }),
      invalidatesTags: ['Campuses'],
    }),
    registrationLink: build.mutation<{ url: string }, string>({
      query: (name) => ({ url: '/campuses/registration', method: 'POST', body: { name } }),
    }),
  }),
});
