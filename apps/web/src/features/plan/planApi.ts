import type { FormView, PlanView } from '@salt-circle/contracts';
import { api } from '../../app/api.js';

export const { usePlanQuery, usePlanFormQuery, usePublishMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    plan: build.query<PlanView, string>({ query: (id) => `/exchanges/${id}/plan`, providesTags: ['Plan'] }),
    planForm: build.query<FormView, string>({ query: (id) => `/exchanges/${id}/form`, providesTags: ['Form'] }),
    publish: build.mutation<PlanView, string>({
      query: (id) => ({ url: `/exchanges/${id}/publish`, method: 'POST' }),
      invalidatesTags: ['Plan', 'Exchange', 'Courses', 'Today'],
    }),
  }),
});
