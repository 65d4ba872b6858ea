import { useState, type FormEvent } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { belongsNowhere, fieldProblem } from '../../app/session/fieldProblem.js';
import { zoneChoices } from '../../app/time/zones.js';
import { Button, Select, TextField } from '../../kit/index.js';
import type { StepProps } from './step.js';
import { say } from '../../words/arrive.js';

const NEW = '';

/** The instructor says which course the platform's is: a new one, or one of the own. */
export function WhichCourse({ view, busy, error, tell }: StepProps) {
  const [courseId, setCourseId] = useState(view.mayMake ? NEW : (view.courses[0]?.id ?? NEW));
  const [title, setTitle] = useState(view.course);
  const [timeZone, setTimeZone] = useState(Intl.DateTimeFormat().resolvedOptions().timeZone);
  const zones = zoneChoices(timeZone);
  const options = [
    ...(view.mayMake ? [[NEW, say('newCourse')] as const] : []),
    ...view.courses.map(({ id, title: one }) => [id, one] as const),
  ];
  const submit = (event: FormEvent) => {
    event.preventDefault();
    tell('course', { courseId: courseId === NEW ? null : courseId, title, timeZone });
  };
  if (options.length === 0) return <p>{say('youAreNoInstructorOf', { platform: view.platform })}</p>;
  return (
    <form onSubmit={submit} className="space-y-4">
      <p>{say('fromNowOnEverybodyWho', { course: view.course, platform: view.platform })}</p>
      <Select label={say('course')} value={courseId} options={options} onChange={setCourseId} />
      {courseId === NEW && (
        <>
          <TextField
            label={say('title')}
            value={title}
            maxLength={200}
            problem={fieldProblem(error, 'title')}
            onChange={({ target }) => setTitle(target.value)}
          />
          <Select
            label={say('timeZone')}
            value={zones.value}
            options={zones.options}
            hint={say('allDatesAreGivenIn')}
            problem={fieldProblem(error, 'timeZone')}
            onChange={setTimeZone}
          />
        </>
      )}
      {error !== undefined && belongsNowhere(error) && <ProblemNotice error={error} />}
      <Button type="submit" look="primary" busy={busy}>
        {courseId === NEW ? say('makeCourse') : say('linkThisCourse')}
      </Button>
    </form>
  );
}
