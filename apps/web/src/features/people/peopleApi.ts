import type { CoursePlatformView, PeopleView, RosterApplied, RosterPreview } from '@salt-circle/contracts';
import type { Role } from '@salt-circle/core';
import { api } from '../../app/api.js';
import { changedHere } from '../../app/changes/freshness.js';

export interface RosterSource {
  readonly text: string | null;
  readonly base64: string | null;
  readonly traitColumn: string | null;
  readonly classIds: readonly string[];
}

export interface PersonBody {
  readonly name: string;
  readonly email: string;
  readonly role: Role;
  readonly campusId: string | null;
  readonly section: string | null;
}

const CHANGED = ['People', 'Groups', 'Courses', 'Plan', 'Progress', 'Exchange'] as const;
const at = (courseId: string, path = '') => `/courses/${courseId}/people${path}`;

export const {
  usePeopleQuery,
  usePreviewRosterMutation,
  useApplyRosterMutation,
  useAddPersonMutation,
  useChangePersonMutation,
  useSetActiveMutation,
  useInviteMutation,
  useSendPasswordLinkMutation,
  useCoursePlatformQuery,
  usePreviewPlatformPeopleMutation,
  useApplyPlatformPeopleMutation,
  useSetNightlyMutation,
  useUnlinkPlatformMutation,
} = api.injectEndpoints({
  endpoints: (build) => ({
    people: build.query<PeopleView, string>({ query: (id) => at(id), providesTags: changedHere(['People'], 'people') }),
    coursePlatform: build.query<CoursePlatformView, string>({
      query: (id) => `/courses/${id}/platform`,
      providesTags: ['Platform'],
    }),
    previewPlatformPeople: build.mutation<RosterPreview, string>({
      query: (id) => ({ url: `/courses/${id}/platform/people/preview`, method: 'POST' }),
      // When it was asked last, and what went wrong, are other ones by then.
      invalidatesTags: ['Platform'],
    }),
    applyPlatformPeople: build.mutation<RosterApplied, { courseId: string; fingerprint: string; dropMissing: boolean }>(
      {
        query: ({ courseId, ...body }) => ({ url: `/courses/${courseId}/platform/people`, method: 'POST', body }),
        invalidatesTags: [...CHANGED, 'Platform'],
      },
    ),
    setNightly: build.mutation<null, { courseId: string; nightly: 'off' | 'add' }>({
      query: ({ courseId, nightly }) => ({ url: `/courses/${courseId}/platform`, method: 'PUT', body: { nightly } }),
      invalidatesTags: ['Platform'],
    }),
    unlinkPlatform: build.mutation<null, string>({
      query: (id) => ({ url: `/courses/${id}/platform`, method: 'DELETE' }),
      invalidatesTags: ['Platform', 'People', 'Grades'],
    }),
    previewRoster: build.mutation<RosterPreview, { courseId: string; source: RosterSource }>({
      query: ({ courseId, source }) => ({ url: at(courseId, '/roster/preview'), method: 'POST', body: source }),
    }),
    applyRoster: build.mutation<
      RosterApplied,
      { courseId: string; source: RosterSource; dropMissing: boolean; invite: boolean; fingerprint: string }
    >({
      query: ({ courseId, source, ...rest }) => ({
        url: at(courseId, '/roster'),
        method: 'POST',
        body: { ...source, ...rest },
      }),
      invalidatesTags: [...CHANGED, 'Outbox'],
    }),
    addPerson: build.mutation<{ id: string }, { courseId: string; body: PersonBody & { invite: boolean } }>({
      query: ({ courseId, body }) => ({ url: at(courseId), method: 'POST', body }),
      invalidatesTags: [...CHANGED, 'Outbox'],
    }),
    changePerson: build.mutation<null, { courseId: string; id: string; body: PersonBody }>({
      query: ({ courseId, id, body }) => ({ url: at(courseId, `/${id}`), method: 'PUT', body }),
      invalidatesTags: CHANGED,
    }),
    setActive: build.mutation<null, { courseId: string; id: string; active: boolean }>({
      query: ({ courseId, id, active }) =>
        active
          ? { url: at(courseId, `/${id}/return`), method: 'POST' }
          : { url: at(courseId, `/${id}`), method: 'DELETE' },
      invalidatesTags: CHANGED,
    }),
    invite: build.mutation<{ invited: number }, { courseId: string; enrolmentIds: readonly string[] }>({
      query: ({ courseId, enrolmentIds }) => ({
        url: at(courseId, '/invitations'),
        method: 'POST',
        body: { enrolmentIds },
      }),
      invalidatesTags: ['People', 'Outbox'],
    }),
    /** It goes to the account's own address, which the course does not know. */
    sendPasswordLink: build.mutation<null, { courseId: string; id: string }>({
      query: ({ courseId, id }) => ({ url: at(courseId, `/${id}/password-link`), method: 'POST' }),
    }),
  }),
});
