import type { FormImportView, ShorthandView } from '@salt-circle/contracts';
import { api } from '../../app/api.js';
import { changedHere } from '../../app/changes/freshness.js';

const at = (courseId: string, path = '') => `/courses/${courseId}/library${path}`;

export const {
  useAddEntryMutation,
  useRemoveEntryMutation,
  useCopyEntryMutation,
  useReadFormFileMutation,
  useShorthandQuery,
} = api.injectEndpoints({
  endpoints: (build) => ({
    addEntry: build.mutation<{ id: string }, { courseId: string; kind: 'form' | 'shorthand'; title: string }>({
      query: ({ courseId, ...body }) => ({ url: at(courseId), method: 'POST', body: { ...body, exchangeId: null } }),
      invalidatesTags: ['Library', 'Plan'],
    }),
    removeEntry: build.mutation<null, { courseId: string; id: string }>({
      query: ({ courseId, id }) => ({ url: at(courseId, `/${id}`), method: 'DELETE' }),
      invalidatesTags: ['Library', 'Plan'],
    }),
    copyEntry: build.mutation<{ id: string }, { courseId: string; id: string; target: string }>({
      query: ({ courseId, id, target }) => ({
        url: at(courseId, `/${id}/copies`),
        method: 'POST',
        body: { courseId: target },
      }),
      invalidatesTags: ['Library', 'Plan'],
    }),
    readFormFile: build.mutation<
      FormImportView,
      { courseId: string; name: string; text: string | null; base64: string | null; index: number; add: boolean }
    >({
      query: ({ courseId, ...body }) => ({ url: at(courseId, '/form-files'), method: 'POST', body }),
      invalidatesTags: (result) => (result?.addedId == null ? [] : ['Library']),
    }),
    shorthand: build.query<ShorthandView, { courseId: string; id: string }>({
      query: ({ courseId, id }) => at(courseId, `/shorthand/${id}`),
      providesTags: changedHere(['Library'], 'people'),
    }),
  }),
});
