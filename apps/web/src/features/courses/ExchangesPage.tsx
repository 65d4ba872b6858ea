import { Link } from 'react-router';
import { Empty } from '../../kit/index.js';
import { useCourse } from '../../app/useCourse.js';
import { CourseCalendar } from './CourseCalendar.js';
import { ExchangeList } from './ExchangeList.js';
import { NewExchange } from './NewExchange.js';
import { say } from '../../words/courses.js';

/** The exchanges of a course on one calendar, and as a list. */
export function ExchangesPage() {
  const course = useCourse();
  const staff = course.role !== 'student';
  return (
    <div className="px-5 py-6">
      <div className="mb-4 flex flex-wrap items-center justify-between gap-3">
        <h2 className="text-xl font-semibold">{say('exchanges')}</h2>
        {course.role === 'instructor' && <NewExchange course={course} />}
      </div>
      {course.exchanges.length === 0 ? (
        <Empty title={say('noExchangesYet')}>
          <p>{staff ? say('exchangeIsOneRoundOf') : say('whenYourInstructorPublishesExchange')}</p>
        </Empty>
      ) : (
        <>
          <CourseCalendar exchanges={course.exchanges} holidays={course.holidays} timeZone={course.timeZone} />
          <ExchangeList course={course} />
        </>
      )}
      {course.students === 0 && (
        <p className="mt-6 text-copper">
          {say('courseHasNoStudentsYet', {
            link: (words) => (
              <Link to="people" className="text-dusk underline">
                {words}
              </Link>
            ),
          })}
        </p>
      )}
    </div>
  );
}
