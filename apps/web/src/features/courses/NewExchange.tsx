import type { CourseView } from '@salt-circle/contracts';
import { useState, type FormEvent } from 'react';
import { useNavigate } from 'react-router';
import { useCourseQuery, useCoursesQuery } from '../../app/api.js';
import { useLibraryQuery } from '../../app/libraryApi.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { Button, Dialog, Select, TextField } from '../../kit/index.js';
import { CopyDates, NO_SHIFT, type Shift } from './CopyDates.js';
import { useCopyExchangeMutation, useCreateExchangeMutation, type CopyBody } from './coursesApi.js';
import { say } from '../../words/courses.js';

type Way = 'empty' | 'exchange' | 'template';

/** A new exchange: empty, from an earlier one of this or another course, or from a template. */
export function NewExchange({ course }: { readonly course: CourseView }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button look="primary" onClick={() => setOpen(true)}>
        {say('newExchange')}
      </Button>
      <Dialog
        open={open}
        onClose={() => setOpen(false)}
        wide
        title={say('newExchangeLabel')}
        description={say('nobodySeesItBeforeYou')}
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
        label={say('beginWith')}
        value={way}
        options={[
          ['empty', say('emptyPlan')],
          ['exchange', say('copyOfEarlierExchange')],
          ['template', say('templateFromLibrary')],
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
        label={say('title')}
        hint={say('whatStudentsWillSeeE')}
        value={title}
        maxLength={200}
        onChange={(event) => setTitle(event.target.value)}
      />
      {way === 'empty' && (
        <Select
          label={say('reviewForm')}
          value={form}
          options={[
            ['usual', say('usualOneToBeChanged')],
            ['none', say('noneYet')],
          ]}
          hint={form === 'usual' ? say('oneCriterionWithThreeLevels') : say('buildItTakeOneFrom')}
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
        {say('createAndPlanIt')}
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
        label={say('course')}
        value={from}
        options={taught.map(({ id, title }) => [id, title] as const)}
        onChange={setFrom}
      />
      <Select
        label={say('exchange')}
        value={value}
        options={[['', say('chooseOne')], ...exchanges.map(({ id, title }) => [id, title] as const)]}
        hint={from === course.id ? undefined : say('groupsSectionsAndShorthandOf')}
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
    return <p className="text-copper">{say('libraryHasNoTemplatesYet')}</p>;
  }
  return (
    <Select
      label={say('template')}
      value={value}
      options={[
        ['', say('chooseOne')],
        ...templates.map(({ id, title, about }) => [id, `${title} (${about})`] as const),
      ]}
      onChange={onChange}
    />
  );
}
