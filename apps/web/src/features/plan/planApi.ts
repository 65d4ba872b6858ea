import type {
  AllocationPlanRequest,
  DatesView,
  FormView,
  PersonalDatesView,
  PlanView,
  SavedView,
} from '@salt-circle/contracts';
import type { DateName, GradePart, LateRule } from '@salt-circle/core';
import { api } from '../../app/api.js';
import { say } from '../../words/plan.js';

const MOVED = ['Plan', 'Exchange', 'Courses', 'Today', 'Feedback'] as const;

export type ScheduleBody = Pick<AllocationPlanRequest, 'revision' | 'schedule' | 'at' | 'party' | 'patience'>;

/** What students are told of and what does not move any date; what is left out stays. */
export interface RulesPart {
  readonly late?: LateRule | null;
  readonly gradeParts?: readonly GradePart[];
}

export const tellWords = (students: number) => say('tellByMail', { students });

export type PersonalDatesBody = Omit<PersonalDatesView, 'id' | 'name'>;

export const {
  usePlanQuery,
  useLazyPlanQuery,
  usePlanFormQuery,
  usePublishMutation,
  useMoveDatesMutation,
  useDateNowMutation,
  useSetRulesMutation,
  useSetScheduleMutation,
  useSetPersonalDatesMutation,
  useRemovePersonalDatesMutation,
  useKeepTemplateMutation,
} = api.injectEndpoints({
  endpoints: (build) => ({
    plan: build.query<PlanView, string>({ query: (id) => `/exchanges/${id}/plan`, providesTags: ['Plan'] }),
    planForm: build.query<FormView, string>({ query: (id) => `/exchanges/${id}/form`, providesTags: ['Form'] }),
    publish: build.mutation<PlanView, string>({
      query: (id) => ({ url: `/exchanges/${id}/publish`, method: 'POST' }),
      invalidatesTags: ['Plan', 'Exchange', 'Courses', 'Today', 'Outbox'],
    }),
    moveDates: build.mutation<SavedView, { exchangeId: string; dates: DatesView; tell: boolean }>({
      query: ({ exchangeId, ...body }) => ({ url: `/exchanges/${exchangeId}/dates`, method: 'PUT', body }),
      invalidatesTags: [...MOVED, 'Outbox'],
    }),
    setSchedule: build.mutation<SavedView, { exchangeId: string } & ScheduleBody>({
      query: ({ exchangeId, ...body }) => ({
        url: `/exchanges/${exchangeId}/allocation/schedule`,
        method: 'PUT',
        body,
      }),
      invalidatesTags: [...MOVED, 'Allocation'],
    }),
    setRules: build.mutation<SavedView, { exchangeId: string; tell: boolean } & RulesPart>({
      query: ({ exchangeId, ...body }) => ({ url: `/exchanges/${exchangeId}/rules`, method: 'PUT', body }),
      invalidatesTags: [...MOVED, 'Outbox'],
    }),
    /** Answers with the dates as they are then. */
    dateNow: build.mutation<DatesView, { exchangeId: string; date: DateName; tell: boolean }>({
      queryFn: async ({ exchangeId, ...body }, _, __, fetch) => {
        const done = await fetch({ url: `/exchanges/${exchangeId}/dates/now`, method: 'POST', body });
        if (done.error !== undefined) return { error: done.error };
        const plan = await fetch(`/exchanges/${exchangeId}/plan`);
        return plan.error === undefined ? { data: (plan.data as PlanView).dates } : { error: plan.error };
      },
      invalidatesTags: [...MOVED, 'Outbox'],
    }),
    setPersonalDates: build.mutation<{ id: string }, { exchangeId: string; body: PersonalDatesBody }>({
      query: ({ exchangeId, body }) => ({ url: `/exchanges/${exchangeId}/personal-dates`, method: 'PUT', body }),
      invalidatesTags: ['Plan', 'Exchange', 'Progress'],
    }),
    removePersonalDates: build.mutation<null, { exchangeId: string; id: string }>({
      query: ({ exchangeId, id }) => ({ url: `/exchanges/${exchangeId}/personal-dates/${id}`, method: 'DELETE' }),
      invalidatesTags: ['Plan', 'Exchange', 'Progress'],
    }),
    keepTemplate: build.mutation<{ id: string }, { courseId: string; exchangeId: string; title: string }>({
      query: ({ courseId, ...body }) => ({
        url: `/courses/${courseId}/library`,
        method: 'POST',
        body: { kind: 'template', ...body },
      }),
      invalidatesTags: ['Library'],
    }),
  }),
});
