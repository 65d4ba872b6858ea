import { useState, type FormEvent } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { CourseView } from '@salt-circle/contracts';
import { Button, Dialog, Empty, Loading, TextField } from '../../kit/index.js';
import { api, useCourseQuery } from '../../app/api.js';
import { Page } from '../../app/frame/Page.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { CourseCalendar } from './CourseCalendar.js';
import { ExchangeList } from './ExchangeList.js';

const { useCreateExchangeMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    createExchange: build.mutation<{ id: string }, { courseId: string; title: string }>({
      query: ({ courseId, title }) => ({ url: `/courses/${courseId}/exchanges`, method: 'POST', body: { title } }),
      invalidatesTags: ['Courses', 'Today'],
    }),
  }),
});

export function CoursePage() {
  const { courseId = '' } = useParams();
  const { data: course, error } = useCourseQuery(courseId, { refetchOnMountOrArgChange: true });
  if (error !== undefined) {
    return (
      <Page title="Course">
        <ProblemNotice error={error} />
      </Page>
    );
  }
  if (course === undefined)
    return (
      <Page title="Course">
        <Loading what="the course" />
      </Page>
    );
  const staff = course.role !== 'student';
  return (
    <Page title={course.title}>
      <div className="px-5 py-6">
        <div className="mb-4 flex flex-wrap items-center justify-between gap-3">
          <h2 className="text-xl font-semibold">Exchanges</h2>
          {course.role === 'instructor' && <NewExchange courseId={courseId} />}
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
            <CourseCalendar exchanges={course.exchanges} timeZone={course.timeZone} />
            <ExchangeList course={course} />
          </>
        )}
        {course.people !== null && <People people={course.people} />}
      </div>
    </Page>
  );
}

function NewExchange({ courseId }: { readonly courseId: string }) {
  const navigate = useNavigate();
  const [open, setOpen] = useState(false);
  const [title, setTitle] = useState('');
  const [create, { isLoading, error }] = useCreateExchangeMutation();
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const result = await create({ courseId, title });
    if (result.data !== undefined) void navigate(`/exchanges/${result.data.id}/plan`);
  };
  return (
    <>
      <Button look="primary" onClick={() => setOpen(true)}>
        New exchange…
      </Button>
      <Dialog
        open={open}
        onClose={() => setOpen(false)}
        title="New exchange"
        description="Nobody sees it before you publish it."
      >
        <form onSubmit={(event) => void submit(event)} className="space-y-4">
          <TextField
            label="Title"
            hint="What students will see, e.g. “Field report”."
            value={title}
            onChange={(event) => setTitle(event.target.value)}
          />
          {error !== undefined && <ProblemNotice error={error} />}
          <Button look="primary" type="submit" busy={isLoading}>
            Create and plan it
          </Button>
        </form>
      </Dialog>
    </>
  );
}

function People({ people }: { readonly people: NonNullable<CourseView['people']> }) {
  return (
    <section className="mt-10">
      <h2 className="mb-2 text-xl font-semibold">
        People{' '}
        <span className="text-base font-normal text-ink-soft">
          {people.filter(({ role }) => role === 'student').length} students
        </span>
      </h2>
      <ul className="grid grid-cols-1 gap-x-8 sm:grid-cols-2 xl:grid-cols-3">
        {people.map(({ name, email, role }) => (
          <li key={email} className="flex justify-between gap-3 border-b border-line py-1.5">
            <span>
              {name} {role !== 'student' && <span className="text-ink-soft">{role}</span>}
            </span>
            <Link to={`mailto:${email}`} className="truncate text-sm text-dusk">
              {email}
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
