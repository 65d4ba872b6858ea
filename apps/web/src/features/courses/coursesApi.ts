import type { CopyPreview, CourseView } from '@salt-circle/contracts';
import { api } from '../../app/api.js';

export interface CopyBody {
  readonly from: 'exchange' | 'template';
  readonly sourceId: string;
  readonly title: string;
  readonly shift: 'days' | 'first' | 'none';
  readonly days: number;
  readonly firstAt: string | null;
  readonly keepWeekdays: boolean;
}

type Settings = Pick<CourseView, 'title' | 'timeZone' | 'holidays' | 'measuresTime'>;

export const { useCreateExchangeMutation, useCopyExchangeMutation, useCopyPreviewQuery, useSaveCourseMutation } =
  api.injectEndpoints({
    endpoints: (build) => ({
      createExchange: build.mutation<{ id: string }, { courseId: string; title: string; form: 'usual' | 'none' }>({
        query: ({ courseId, ...body }) => ({ url: `/courses/${courseId}/exchanges`, method: 'POST', body }),
        invalidatesTags: ['Courses', 'Today'],
      }),
      copyExchange: build.mutation<{ id: string }, { courseId: string; body: CopyBody }>({
        query: ({ courseId, body }) => ({ url: `/courses/${courseId}/exchanges/copies`, method: 'POST', body }),
        invalidatesTags: ['Courses', 'Today'],
      }),
      copyPreview: build.query<CopyPreview, { courseId: string; body: CopyBody }>({
        // The title has no bearing on dates, and may be empty while it is being typed.
        query: ({ courseId, body }) => ({
          url: `/courses/${courseId}/exchanges/copies/preview`,
          method: 'POST',
          body: { ...body, title: '…' },
        }),
      }),
      saveCourse: build.mutation<CourseView, { courseId: string; body: Settings }>({
        query: ({ courseId, body }) => ({ url: `/courses/${courseId}`, method: 'PUT', body }),
        invalidatesTags: ['Courses', 'Exchange', 'Plan'],
      }),
    }),
  });
