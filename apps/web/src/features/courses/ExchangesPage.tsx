import { Link } from 'react-router';
import { Empty } from '../../kit/index.js';
import { useCourse } from '../../app/useCourse.js';
import { CourseCalendar } from './CourseCalendar.js';
import { ExchangeList } from './ExchangeList.js';
import { NewExchange } from './NewExchange.js';

/** The exchanges of a course on one calendar, and as a list. */
export function ExchangesPage() {
  const course = useCourse();
  const staff = course.role !== 'student';
  return (
    <div className="px-5 py-6">
      <div className="mb-4 flex flex-wrap items-center justify-between gap-3">
        <h2 className="text-xl font-semibold">Exchanges</h2>
        {course.role === 'instructor' && <NewExchange course={course} />}
      </div>
      {course.exchanges.length === 0 ? (
        <Empty title="No exchanges yet.">
          <p>
            {staff
              ? 'An exchange is one round of peer review: what is written, when, who reviews whom, with which form. Begin with “New exchange”.'
              : 'When your instructor publishes an exchange, it will be listed here and in Today.'}
          </p>
        </Empty>
      ) : (
        <>
          <CourseCalendar exchanges={course.exchanges} holidays={course.holidays} timeZone={course.timeZone} />
          <ExchangeList course={course} />
        </>
      )}
      {course.students === 0 && (
        <p className="mt-6 text-copper">
          The course has no students yet.{' '}
          <Link to="people" className="text-dusk underline">
            Add people
          </Link>
        </p>
      )}
    </div>
  );
}
