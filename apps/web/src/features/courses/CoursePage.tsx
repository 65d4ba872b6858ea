import { NavLink, Outlet, useParams } from 'react-router';
import type { CourseView } from '@salt-circle/contracts';
import { Loading } from '../../kit/index.js';
import { useCourseQuery } from '../../app/api.js';
import { Page } from '../../app/frame/Page.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { say } from '../../words/courses.js';

const staffPages = (): ReadonlyArray<readonly [to: string, words: string]> => [
  ['.', say('exchanges')],
  ['people', say('people')],
  ['groups', say('groups')],
  ['library', say('library')],
  ['insights', say('insights')],
];
const instructorPages = (): ReturnType<typeof staffPages> => [
  ['outbox', say('outbox')],
  ['settings', say('settings')],
];

/** A course: its exchanges, and for staff its people, groups, library and mail. */
export function CoursePage() {
  const { courseId = '' } = useParams();
  const { data: course, error } = useCourseQuery(courseId, { refetchOnMountOrArgChange: true });
  if (course === undefined) {
    return (
      <Page title={say('course')}>
        {error === undefined ? <Loading what={say('courseWord')} /> : <ProblemNotice error={error} />}
      </Page>
    );
  }
  return (
    <Page title={course.title}>
      {course.role !== 'student' && <CourseNav course={course} />}
      <Outlet key={course.id} context={course} />
    </Page>
  );
}

function CourseNav({ course }: { readonly course: CourseView }) {
  const pages = course.role === 'instructor' ? [...staffPages(), ...instructorPages()] : staffPages();
  return (
    <nav
      aria-label={say('pagesOfCourse')}
      className="no-print flex flex-wrap gap-x-6 border-b border-line bg-crust px-5"
    >
      {pages.map(([to, words]) => (
        <NavLink
          key={to}
          to={to}
          end={to === '.'}
          className="-mb-px border-b-2 border-transparent py-2 text-ink-soft no-underline aria-[current=page]:border-iodine aria-[current=page]:font-semibold aria-[current=page]:text-ink"
        >
          {words}
        </NavLink>
      ))}
    </nav>
  );
}
