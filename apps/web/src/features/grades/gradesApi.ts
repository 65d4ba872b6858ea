import type {
  LtiScoreState,
  GradebookDecisionRequest,
  GradebookRequest,
  GradebookView,
  GradeMoveView,
  GradeOverrideRequest,
  GradeRuleRequest,
  GraderRequest,
  GradingCompanyView,
  GradingShareRequest,
  MarkingFormsRequest,
  GradesReleaseRequest,
  GradesView,
  OwnGradeView,
} from '@salt-circle/contracts';
import { api } from '../../app/api.js';
import { changedHere } from '../../app/changes/freshness.js';

interface OfExchange {
  readonly exchangeId: string;
}

export const {
  useGradesQuery,
  useOwnGradeQuery,
  usePreviewRuleMutation,
  useSaveGradeRuleMutation,
  useOverrideGradeMutation,
  useReleaseGradesMutation,
  useReadGradeMutation,
  useShareOutMutation,
  useAssignGraderMutation,
  useChooseMarkingFormsMutation,
  usePresentMutation,
  useGradebookQuery,
  useSetGradebookMutation,
  useSendScoresMutation,
  useDecideScoresMutation,
} = api.injectEndpoints({
  endpoints: (build) => ({
    grades: build.query<GradesView, string>({
      query: (id) => `/exchanges/${id}/grades`,
      providesTags: changedHere(['Grades'], 'grades', 'reviews', 'drafts', 'people'),
    }),
    ownGrade: build.query<OwnGradeView, string>({
      query: (id) => `/exchanges/${id}/grade`,
      providesTags: changedHere(['Grades'], 'plan'),
    }),
    previewRule: build.mutation<GradeMoveView[], OfExchange & GradeRuleRequest>({
      query: ({ exchangeId, ...body }) => ({ url: `/exchanges/${exchangeId}/grades/preview`, method: 'POST', body }),
    }),
    saveGradeRule: build.mutation<null, OfExchange & GradeRuleRequest>({
      query: ({ exchangeId, ...body }) => ({ url: `/exchanges/${exchangeId}/grades/rule`, method: 'PUT', body }),
      invalidatesTags: ['Grades', 'Plan', 'Exchange'],
    }),
    overrideGrade: build.mutation<null, OfExchange & { participantId: string } & GradeOverrideRequest>({
      query: ({ exchangeId, participantId, ...body }) => ({
        url: `/exchanges/${exchangeId}/grades/${participantId}/override`,
        method: 'PUT',
        body,
      }),
      invalidatesTags: ['Grades'],
    }),
    readGrade: build.mutation<null, string>({
      query: (id) => ({ url: `/exchanges/${id}/grade/read`, method: 'POST' }),
    }),
    shareOut: build.mutation<null, OfExchange & GradingShareRequest>({
      query: ({ exchangeId, ...body }) => ({ url: `/exchanges/${exchangeId}/grades/graders`, method: 'POST', body }),
      invalidatesTags: ['Grades'],
    }),
    assignGrader: build.mutation<null, OfExchange & { participantId: string } & GraderRequest>({
      query: ({ exchangeId, participantId, ...body }) => ({
        url: `/exchanges/${exchangeId}/grades/${participantId}/grader`,
        method: 'PUT',
        body,
      }),
      invalidatesTags: ['Grades'],
    }),
    chooseMarkingForms: build.mutation<null, OfExchange & MarkingFormsRequest>({
      query: ({ exchangeId, ...body }) => ({ url: `/exchanges/${exchangeId}/grades/forms`, method: 'PUT', body }),
      invalidatesTags: ['Grades'],
    }),
    gradebook: build.query<GradebookView, { exchangeId: string; state: LtiScoreState | null }>({
      query: ({ exchangeId, state }) => `/exchanges/${exchangeId}/gradebook${state === null ? '' : `?state=${state}`}`,
      providesTags: changedHere(['Grades'], 'grades'),
    }),
    setGradebook: build.mutation<null, OfExchange & GradebookRequest>({
      query: ({ exchangeId, ...body }) => ({ url: `/exchanges/${exchangeId}/gradebook`, method: 'PUT', body }),
      invalidatesTags: ['Grades'],
    }),
    sendScores: build.mutation<null, string>({
      query: (id) => ({ url: `/exchanges/${id}/gradebook/send`, method: 'POST' }),
      invalidatesTags: ['Grades'],
    }),
    decideScores: build.mutation<null, OfExchange & GradebookDecisionRequest>({
      query: ({ exchangeId, ...body }) => ({
        url: `/exchanges/${exchangeId}/gradebook/decisions`,
        method: 'POST',
        body,
      }),
      invalidatesTags: ['Grades'],
    }),
    present: build.mutation<GradingCompanyView, OfExchange & { participantId: string }>({
      query: ({ exchangeId, participantId }) => ({
        url: `/exchanges/${exchangeId}/grades/${participantId}/present`,
        method: 'POST',
      }),
    }),
    releaseGrades: build.mutation<null, OfExchange & GradesReleaseRequest>({
      query: ({ exchangeId, ...body }) => ({ url: `/exchanges/${exchangeId}/grades/release`, method: 'POST', body }),
      invalidatesTags: ['Grades', 'Exchange'],
    }),
  }),
});
