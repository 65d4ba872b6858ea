import { zoneChoices } from '../../app/time/zones.js';
import { useState, type FormEvent } from 'react';
import { useNavigate } from 'react-router';
import { Button, Dialog, Select, TextField } from '../../kit/index.js';
import { api } from '../../app/api.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { say } from '../../words/today.js';

const { useCreateCourseMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    createCourse: build.mutation<{ id: string }, { title: string; timeZone: string }>({
      query: (body) => ({ url: '/courses', method: 'POST', body }),
      invalidatesTags: ['Courses'],
    }),
  }),
});

export function NewCourse() {
  const navigate = useNavigate();
  const [open, setOpen] = useState(false);
  const [title, setTitle] = useState('');
  const [timeZone, setTimeZone] = useState(Intl.DateTimeFormat().resolvedOptions().timeZone);
  const zones = zoneChoices(timeZone);
  const [create, { isLoading, error }] = useCreateCourseMutation();
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const result = await create({ title, timeZone });
    if (result.data !== undefined) void navigate(`/courses/${result.data.id}`);
  };
  return (
    <>
      <Button look="quiet" onClick={() => setOpen(true)}>
        {say('newCourse')}
      </Button>
      <Dialog open={open} onClose={() => setOpen(false)} title={say('newCourseLabel')}>
        <form onSubmit={(event) => void submit(event)} className="space-y-4">
          <TextField label={say('title')} value={title} onChange={(event) => setTitle(event.target.value)} />
          <Select
            label={say('timeZone')}
            hint={say('allDatesOfCourseAre')}
            value={zones.value}
            options={zones.options}
            onChange={setTimeZone}
          />
          {error !== undefined && <ProblemNotice error={error} />}
          <Button look="primary" type="submit" busy={isLoading}>
            {say('createCourse')}
          </Button>
        </form>
      </Dialog>
    </>
  );
}
