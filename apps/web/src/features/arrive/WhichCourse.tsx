import { useState, type FormEvent } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { belongsNowhere, fieldProblem } from '../../app/session/fieldProblem.js';
import { zoneChoices } from '../../app/time/zones.js';
import { Button, Select, TextField } from '../../kit/index.js';
import type { StepProps } from './step.js';

const NEW = '';

/** The instructor says which course the campus's is: a new one, or one of the own. */
export function WhichCourse({ view, busy, error, tell }: StepProps) {
  const [courseId, setCourseId] = useState(view.mayMake ? NEW : (view.courses[0]?.id ?? NEW));
  const [title, setTitle] = useState(view.course);
  const [timeZone, setTimeZone] = useState(Intl.DateTimeFormat().resolvedOptions().timeZone);
  const zones = zoneChoices(timeZone);
  const options = [
    ...(view.mayMake ? [[NEW, 'a new course'] as const] : []),
    ...view.courses.map(({ id, title: one }) => [id, one] as const),
  ];
  const submit = (event: FormEvent) => {
    event.preventDefault();
    tell('course', { courseId: courseId === NEW ? null : courseId, title, timeZone });
  };
  if (options.length === 0)
    return <p>You are no instructor of a course here, and {view.campus} may not make new ones. Ask whoever runs it.</p>;
  return (
    <form onSubmit={submit} className="space-y-4">
      <p>
        From now on, everybody who comes from “{view.course}” of {view.campus} comes into this course. People and grades
        go between the two when you say so.
      </p>
      <Select label="Course" value={courseId} options={options} onChange={setCourseId} />
      {courseId === NEW && (
        <>
          <TextField
            label="Title"
            value={title}
            maxLength={200}
            problem={fieldProblem(error, 'title')}
            onChange={({ target }) => setTitle(target.value)}
          />
          <Select
            label="Time zone"
            value={zones.value}
            options={zones.options}
            hint="All dates are given in it."
            problem={fieldProblem(error, 'timeZone')}
            onChange={setTimeZone}
          />
        </>
      )}
      {error !== undefined && belongsNowhere(error) && <ProblemNotice error={error} />}
      <Button type="submit" look="primary" busy={busy}>
        {courseId === NEW ? 'Make the course' : 'Link this course'}
      </Button>
    </form>
  );
}
