import { Plus, Trash2 } from 'lucide-react';
import { useState, type FormEvent } from 'react';
import { problemOf } from '../../app/api.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { zoneChoices } from '../../app/time/zones.js';
import { useCourse } from '../../app/useCourse.js';
import { Button, Checkbox, Select, TextField } from '../../kit/index.js';
import { useSaveCourseMutation } from './coursesApi.js';
import { say } from '../../words/courses.js';

/** Title, time zone and holidays of a course. */
export function SettingsPage() {
  const course = useCourse();
  const [title, setTitle] = useState(course.title);
  const [timeZone, setTimeZone] = useState(course.timeZone);
  const [holidays, setHolidays] = useState(course.holidays);
  const [measuresTime, setMeasuresTime] = useState(course.measuresTime);
  const [save, { isLoading, error, isSuccess }] = useSaveCourseMutation();
  const wrong = error === undefined ? [] : problemOf(error).fields;
  const zones = zoneChoices(timeZone);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void save({ courseId: course.id, body: { title, timeZone, holidays, measuresTime } });
  };
  const set = (index: number, part: Partial<(typeof holidays)[number]>) =>
    setHolidays(holidays.map((one, at) => (at === index ? { ...one, ...part } : one)));
  const at = (path: string) => wrong.find((one) => one.path === path)?.sentence;
  return (
    <form onSubmit={submit} className="max-w-2xl space-y-5 px-5 py-6">
      <h2 className="text-xl font-semibold">{say('settingsOfCourse')}</h2>
      <TextField
        label={say('title')}
        value={title}
        maxLength={200}
        problem={at('title')}
        onChange={({ target }) => setTitle(target.value)}
      />
      <Select
        label={say('timeZone')}
        value={zones.value}
        options={zones.options}
        hint={say('allDatesAreGivenIn')}
        problem={at('timeZone')}
        onChange={setTimeZone}
      />
      <Checkbox
        label={say('measureHowLongReviewersAre')}
        checked={measuresTime}
        onChange={({ target }) => setMeasuresTime(target.checked)}
      />
      <section>
        <h3 className="font-semibold">{say('holidays')}</h3>
        <p className="mb-2 text-sm text-ink-soft">{say('datesOfExchangeThatFall')}</p>
        <ul className="space-y-2">
          {holidays.map((holiday, index) => (
            <li key={index} className="grid items-end gap-2 sm:grid-cols-[1fr_auto_auto_auto]">
              <TextField
                label={say('name')}
                labelHidden={index > 0}
                value={holiday.title}
                problem={at(`holidays.${index}.title`)}
                onChange={({ target }) => set(index, { title: target.value })}
              />
              <TextField
                label={say('firstDay')}
                labelHidden={index > 0}
                type="date"
                value={holiday.from}
                problem={at(`holidays.${index}.from`)}
                onChange={({ target }) => set(index, { from: target.value })}
              />
              <TextField
                label={say('lastDay')}
                labelHidden={index > 0}
                type="date"
                value={holiday.to}
                problem={at(`holidays.${index}.to`)}
                onChange={({ target }) => set(index, { to: target.value })}
              />
              <button
                type="button"
                aria-label={say('remove', { title: holiday.title === '' ? say('thisHoliday') : holiday.title })}
                onClick={() => setHolidays(holidays.filter((_, place) => place !== index))}
                className="rounded p-2 text-ink-soft hover:bg-crust"
              >
                <Trash2 size={17} aria-hidden="true" />
              </button>
            </li>
          ))}
        </ul>
        <Button small className="mt-2" onClick={() => setHolidays([...holidays, { title: '', from: '', to: '' }])}>
          <Plus size={15} aria-hidden="true" /> {say('addHoliday')}
        </Button>
      </section>
      {error !== undefined && <ProblemNotice error={error} />}
      <div className="flex items-center gap-3">
        <Button look="primary" type="submit" busy={isLoading}>
          {say('save')}
        </Button>
        {isSuccess && !isLoading && <span role="status">{say('saved')}</span>}
      </div>
    </form>
  );
}
