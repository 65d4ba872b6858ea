import type { TodayView } from '@salt-circle/contracts';
import { api } from '../../app/api.js';

export const { useTodayQuery } = api.injectEndpoints({
  endpoints: (build) => ({ today: build.query<TodayView, void>({ query: () => '/today', providesTags: ['Today'] }) }),
});
