import type { OpenPlace, TodayView } from '@salt-circle/contracts';
import { api } from '../../app/api.js';

export const { useTodayQuery, useOpenPlacesQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    today: build.query<TodayView, void>({ query: () => '/today', providesTags: ['Today'] }),
    openPlaces: build.query<OpenPlace[], void>({ query: () => '/account/places', providesTags: ['Account'] }),
  }),
});
