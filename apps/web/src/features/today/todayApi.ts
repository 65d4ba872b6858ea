import type { OpenPlace, TodayView } from '@salt-circle/contracts';
import { api } from '../../app/api.js';
import { changedAnywhere } from '../../app/changes/freshness.js';

export const { useTodayQuery, useOpenPlacesQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    today: build.query<TodayView, void>({
      query: () => '/today',
      providesTags: changedAnywhere(['Today'], 'plan', 'drafts', 'allocation', 'reviews', 'own-draft', 'own-review'),
    }),
    openPlaces: build.query<OpenPlace[], void>({
      query: () => '/account/places',
      providesTags: changedAnywhere(['Account'], 'people'),
    }),
  }),
});
