import { createApi, type BaseQueryFn } from '@reduxjs/toolkit/query/react';
import type { CourseCard, CourseView, DemoPerson, ExchangeView, Problem, SessionView } from '@salt-circle/contracts';
import { TOPICS } from '@salt-circle/core';
import { ownFetch } from './ownFetch.js';
import { confirmPassword } from './session/confirmPassword.js';
import { say } from '../words/app.js';
import { changedAnywhere, changedHere, OWN_TAGS } from './changes/freshness.js';

interface Call {
  readonly url: string;
  readonly method?: string;
  readonly body?: unknown;
  readonly headers?: Readonly<Record<string, string>>;
}

const noConnection = (): Problem => ({
  code: 'unexpected',
  sentence: say('thereIsNoConnectionTo'),
  whatToDo: say('checkYourConnectionThenLoad'),
  fields: [],
});

/** Something between here and the server has answered: the sign-in page of a network, say. */
const unreadable = (): Problem => ({
  code: 'unexpected',
  sentence: say('answerUnreadable'),
  whatToDo: say('answerUnreadableWhatToDo'),
  fields: [],
});

const baseQuery: BaseQueryFn<string | Call, unknown, Problem> = async (given) => {
  const { url, method = 'GET', body, headers } = typeof given === 'string' ? ({ url: given } as Call) : given;
  const ask = async (): Promise<{ data: unknown } | { error: Problem }> => {
    const response = await ownFetch(`/api${url}`, method, body, headers);
    if (response.status === 204) return { data: null };
    const answer: unknown = await response.json().catch(() => undefined);
    if (answer === undefined) return { error: unreadable() };
    return response.ok ? { data: answer } : { error: answer as Problem };
  };
  try {
    const first = await ask();
    const needsPassword = 'error' in first && first.error.code === 'password-needed';
    return needsPassword && (await confirmPassword()) ? await ask() : first;
  } catch {
    return { error: noConnection() };
  }
};

/** Features add their endpoints to this one. Each mutation names the tags it changes. */
export const api = createApi({
  reducerPath: 'api',
  baseQuery,
  tagTypes: [...OWN_TAGS, ...TOPICS],
  endpoints: (build) => ({
    session: build.query<SessionView, void>({ query: () => '/session', providesTags: ['Session'] }),
    signIn: build.mutation<null, { email: string; password: string }>({
      query: (body) => ({ url: '/session', method: 'POST', body }),
    }),
    signOut: build.mutation<null, void>({ query: () => ({ url: '/session', method: 'DELETE' }) }),
    courses: build.query<CourseCard[], void>({
      query: () => '/courses',
      providesTags: changedAnywhere(['Courses'], 'plan', 'people'),
    }),
    course: build.query<CourseView, string>({
      query: (id) => `/courses/${id}`,
      providesTags: changedHere(['Courses'], 'plan', 'people'),
    }),
    exchange: build.query<ExchangeView, string>({
      query: (id) => `/exchanges/${id}`,
      providesTags: changedHere(['Exchange'], 'plan', 'drafts', 'allocation', 'reviews', 'own-draft'),
    }),
    demoPeople: build.query<DemoPerson[], void>({ query: () => '/demo/people' }),
    stepIn: build.mutation<null, string>({
      query: (personId) => ({ url: '/demo/step-in', method: 'POST', body: { personId } }),
    }),
    moveClock: build.mutation<{ now: string }, string | null>({
      query: (to) => ({ url: '/demo/clock', method: 'POST', body: { to } }),
      // Every stage, right and figure may be another one at another time.
      invalidatesTags: OWN_TAGS,
    }),
  }),
});

export const {
  useSessionQuery,
  useSignInMutation,
  useSignOutMutation,
  useCoursesQuery,
  useCourseQuery,
  useExchangeQuery,
  useDemoPeopleQuery,
  useStepInMutation,
  useMoveClockMutation,
} = api;

/** The problem in what a query or mutation failed with. */
export function problemOf(error: unknown): Problem {
  if (typeof error === 'object' && error !== null && 'sentence' in error) return error as Problem;
  return noConnection();
}
