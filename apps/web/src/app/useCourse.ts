import type { CourseView } from '@salt-circle/contracts';
import { useOutletContext } from 'react-router';

/** The course whose page this is. Only below the course's page. */
export function useCourse(): CourseView {
  return useOutletContext<CourseView>();
}
