import type { CourseView } from '@salt-circle/contracts';
import { useState, type FormEvent } from 'react';
import { useNavigate } from 'react-router';
import { useCourseQuery, useCoursesQuery } from '../../app/api.js';
import { useLibraryQuery } from '../../app/libraryApi.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { Button, Dialog, Select, TextField } from '../../kit/index.js';
import { CopyDates, NO_SHIFT, type Shift } from './CopyDates.js';
import { useCopyExchangeMutation, useCreateExchangeMutation, type CopyBody } from './coursesApi.js';

type Way = 'empty' | 'exchange' | 'template';

/** A new exchange: empty, from an earlier one of this or another course, or from a template. */
export function NewExchange({ course }: { readonly course: CourseView }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button look="primary" onClick={() => setOpen(true)}>
        New exchange…
      </Button>
      <Dialog
        open={open}
        onClose={() => setOpen(false)}
        wide
        title="New exchange"
        description="Nobody sees it before you publish it."
      >
        {open && <NewExchangeForm course={course} />}
      </Dialog>
    </>
  );
}

function NewExchangeForm({ course }: { readonly course: CourseView }) {
  const navigate = useNavigate();
  const [way, setWay] = useState<Way>('empty');
  const [title, setTitle] = useState('');
  const [sourceId, setSourceId] = useState('');
  const [form, setForm] = useState<'usual' | 'none'>('usual');
  const [shift, setShift] = useState<Shift>(NO_SHIFT);
  const [create, creating] = useCreateExchangeMutation();
  const [copy, copying] = useCopyExchangeMutation();
  const error = way === 'empty' ? creating.error : copying.error;
  const copyBody: CopyBody | null =
    way === 'empty' || sourceId === '' ? null : { from: way, sourceId, title, ...shift };
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const result =
      copyBody === null
        ? await create({ courseId: course.id, title, form })
        : await copy({ courseId: course.id, body: copyBody });
    if (result.data !== undefined) void navigate(`/exchanges/${result.data.id}/plan`);
  };
  return (
    <form onSubmit={(event) => void submit(event)} className="space-y-4">
      <Select
        label="Begin with"
        value={way}
        options={[
          ['empty', 'An empty plan'],
          ['exchange', 'A copy of an earlier exchange'],
          ['template', 'A template from the library'],
        ]}
        onChange={(next) => {
          setWay(next as Way);
          setSourceId('');
        }}
      />
      {way === 'exchange' && (
        <ExchangeChoice
          course={course}
          value={sourceId}
          onChange={(id, words) => {
            setSourceId(id);
            if (title === '') setTitle(words);
          }}
        />
      )}
      {way === 'template' && <TemplateChoice courseId={course.id} value={sourceId} onChange={setSourceId} />}
      <TextField
        label="Title"
        hint="What students will see, e.g. “Field report”."
        value={title}
        maxLength={200}
        onChange={(event) => setTitle(event.target.value)}
      />
      {way === 'empty' && (
        <Select
          label="Review form"
          value={form}
          options={[
            ['usual', 'A usual one, to be changed'],
            ['none', 'None yet'],
          ]}
          hint={
            form === 'usual'
              ? 'One criterion with three levels, and a pair of what works and next step.'
              : 'Build it, take one from the library, or ask for comments only.'
          }
          onChange={(next) => setForm(next as typeof form)}
        />
      )}
      {copyBody !== null && <CopyDates course={course} body={copyBody} shift={shift} onChange={setShift} />}
      {error !== undefined && <ProblemNotice error={error} />}
      <Button
        look="primary"
        type="submit"
        busy={creating.isLoading || copying.isLoading}
        disabled={way !== 'empty' && sourceId === ''}
      >
        Create and plan it
      </Button>
    </form>
  );
}

interface ExchangeChoiceProps {
  readonly course: CourseView;
  readonly value: string;
  readonly onChange: (id: string, title: string) => void;
}

function ExchangeChoice({ course, value, onChange }: ExchangeChoiceProps) {
  const [from, setFrom] = useState(course.id);
  const { data: courses } = useCoursesQuery();
  const { data: source } = useCourseQuery(from);
  const taught = courses?.filter(({ role }) => role === 'instructor') ?? [];
  const exchanges = source?.exchanges ?? [];
  return (
    <div className="grid gap-3 sm:grid-cols-2">
      <Select
        label="Course"
        value={from}
        options={taught.map(({ id, title }) => [id, title] as const)}
        onChange={setFrom}
      />
      <Select
        label="Exchange"
        value={value}
        options={[['', 'Choose one'], ...exchanges.map(({ id, title }) => [id, title] as const)]}
        hint={from === course.id ? undefined : 'Groups, sections and shorthand of the other course stay there.'}
        onChange={(id) => onChange(id, exchanges.find((one) => one.id === id)?.title ?? '')}
      />
    </div>
  );
}

interface TemplateChoiceProps {
  readonly courseId: string;
  readonly value: string;
  readonly onChange: (id: string) => void;
}

function TemplateChoice({ courseId, value, onChange }: TemplateChoiceProps) {
  const { data } = useLibraryQuery(courseId, { refetchOnMountOrArgChange: true });
  const templates = data?.entries.filter(({ kind }) => kind === 'template') ?? [];
  if (data !== undefined && templates.length === 0) {
    return (
      <p className="text-copper">
        The library has no templates yet. On the Plan page of an exchange, choose “Keep as a template”.
      </p>
    );
  }
  return (
    <Select
      label="Template"
      value={value}
      options={[['', 'Choose one'], ...templates.map(({ id, title, about }) => [id, `${title} (${about})`] as const)]}
      onChange={onChange}
    />
  );
}
