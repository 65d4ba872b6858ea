import type { GroupImportPreview, GroupsView } from '@salt-circle/contracts';
import { api } from '../../app/api.js';
import { changedHere } from '../../app/changes/freshness.js';

const CHANGED = ['Groups', 'Plan'] as const;
const at = (courseId: string, path = '') => `/courses/${courseId}/group-sets${path}`;

export interface DivisionBody {
  readonly by: 'count' | 'size';
  readonly number: number;
  readonly mixedBy: 'nothing' | 'section' | 'trait';
  readonly seed: number;
}

interface InSet {
  readonly courseId: string;
  readonly setId: string;
}

export const {
  useGroupsQuery,
  useAddSetMutation,
  useRenameSetMutation,
  useRemoveSetMutation,
  useDivideMutation,
  useImportGroupsMutation,
  useAddGroupMutation,
  useRenameGroupMutation,
  useRemoveGroupMutation,
  useMoveMemberMutation,
} = api.injectEndpoints({
  endpoints: (build) => ({
    groups: build.query<GroupsView, string>({ query: (id) => at(id), providesTags: changedHere(['Groups'], 'people') }),
    addSet: build.mutation<{ id: string }, { courseId: string; title: string }>({
      query: ({ courseId, title }) => ({ url: at(courseId), method: 'POST', body: { title } }),
      invalidatesTags: CHANGED,
    }),
    renameSet: build.mutation<null, InSet & { title: string }>({
      query: ({ courseId, setId, title }) => ({ url: at(courseId, `/${setId}`), method: 'PUT', body: { title } }),
      invalidatesTags: CHANGED,
    }),
    removeSet: build.mutation<null, InSet>({
      query: ({ courseId, setId }) => ({ url: at(courseId, `/${setId}`), method: 'DELETE' }),
      invalidatesTags: CHANGED,
    }),
    divide: build.mutation<null, InSet & { body: DivisionBody }>({
      query: ({ courseId, setId, body }) => ({ url: at(courseId, `/${setId}/division`), method: 'POST', body }),
      invalidatesTags: CHANGED,
    }),
    importGroups: build.mutation<
      GroupImportPreview,
      InSet & { text: string | null; base64: string | null; apply: boolean }
    >({
      query: ({ courseId, setId, ...body }) => ({ url: at(courseId, `/${setId}/import`), method: 'POST', body }),
      invalidatesTags: (result) => (result?.applied === true ? CHANGED : []),
    }),
    addGroup: build.mutation<{ id: string }, InSet & { title: string }>({
      query: ({ courseId, setId, title }) => ({
        url: at(courseId, `/${setId}/groups`),
        method: 'POST',
        body: { title },
      }),
      invalidatesTags: CHANGED,
    }),
    renameGroup: build.mutation<null, InSet & { groupId: string; title: string }>({
      query: ({ courseId, setId, groupId, title }) => ({
        url: at(courseId, `/${setId}/groups/${groupId}`),
        method: 'PUT',
        body: { title },
      }),
      invalidatesTags: CHANGED,
    }),
    removeGroup: build.mutation<null, InSet & { groupId: string }>({
      query: ({ courseId, setId, groupId }) => ({ url: at(courseId, `/${setId}/groups/${groupId}`), method: 'DELETE' }),
      invalidatesTags: CHANGED,
    }),
    moveMember: build.mutation<null, InSet & { memberId: string; groupId: string | null; confirmed: boolean }>({
      query: ({ courseId, setId, memberId, ...body }) => ({
        url: at(courseId, `/${setId}/members/${memberId}`),
        method: 'PUT',
        body,
      }),
      invalidatesTags: CHANGED,
    }),
  }),
});
