import type { FormView } from '@salt-circle/contracts';
import { useCallback, useState } from 'react';
import { Link } from 'react-router';
import { useLibraryQuery } from '../../app/libraryApi.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useMe } from '../../app/session/useMe.js';
import { saveQueue } from '../../app/store.js';
import { useExchange } from '../../app/useExchange.js';
import { useFresh } from '../../app/useFresh.js';
import { Button, buttonClass, Dialog, Empty, Loading, Notice, TextField } from '../../kit/index.js';
import { asBuilt, Builder } from './Builder.js';
import { useFormQuery, useKeepFormMutation, useTakeFormMutation } from './formApi.js';
import { say } from '../../words/form-builder.js';

/** The review form of an exchange. */
export function FormBuilderPage() {
  const exchange = useExchange();
  const query = useFormQuery(exchange.id, { refetchOnMountOrArgChange: true });
  const form = useFresh(query);
  // Taken from the library, the form is another one, and the builder begins anew with it.
  const [taken, setTaken] = useState(0);
  if (query.error !== undefined) return <ProblemNotice error={query.error} />;
  if (form === undefined) return <Loading what={say('form')} />;
  return <ExchangeForm key={taken} form={form} onTaken={() => setTaken(taken + 1)} />;
}

function ExchangeForm({ form, onTaken }: { readonly form: FormView; readonly onTaken: () => void }) {
  const exchange = useExchange();
  const me = useMe();
  const { refetch } = useFormQuery(exchange.id);
  const onSaved = useCallback(() => void refetch(), [refetch]);
  const instructor = exchange.course.role === 'instructor';
  const saveKey = `${me.id}:form:${exchange.id}`;
  return (
    <Builder
      built={asBuilt(form)}
      revision={form.revision}
      problems={form.problems}
      readOnly={form.frozen !== null || !instructor}
      saveKey={saveKey}
      url={`/api/exchanges/${exchange.id}/form`}
      heading={say('reviewForm')}
      onSaved={onSaved}
      notice={
        form.frozen !== null && (
          <Notice title={say('thisFormCanNoLonger')}>
            <p>{form.frozen}</p>
          </Notice>
        )
      }
      actions={
        <>
          {instructor && form.frozen === null && (
            <TakeFromLibrary saveKey={saveKey} revision={form.revision} onTaken={onTaken} />
          )}
          {instructor && <KeepInLibrary saveKey={saveKey} />}
          <Link to={`/exchanges/${exchange.id}/plan`} className={buttonClass('plain', true)}>
            {say('backToPlan')}
          </Link>
        </>
      }
    />
  );
}

interface TakeProps {
  readonly saveKey: string;
  readonly revision: number;
  readonly onTaken: () => void;
}

function TakeFromLibrary({ saveKey, revision, onTaken }: TakeProps) {
  const exchange = useExchange();
  const [open, setOpen] = useState(false);
  const { data, error } = useLibraryQuery(exchange.course.id, { skip: !open, refetchOnMountOrArgChange: true });
  const [take, taking] = useTakeFormMutation();
  const { refetch } = useFormQuery(exchange.id);
  const forms = data?.entries.filter(({ kind }) => kind === 'form') ?? [];
  const go = async (libraryId: string) => {
    if (!(await saveQueue.flush(saveKey))) return;
    const result = await take({ exchangeId: exchange.id, revision: saveQueue.revision(saveKey, revision), libraryId });
    if (result.data === undefined) return;
    saveQueue.takeTheirs(saveKey, result.data.revision);
    await refetch();
    setOpen(false);
    onTaken();
  };
  return (
    <>
      <Button small onClick={() => setOpen(true)}>
        {say('fromLibrary')}
      </Button>
      <Dialog
        open={open}
        onClose={() => setOpen(false)}
        title={say('formFromLibrary')}
        description={say('copyOfItTakesPlace')}
      >
        {error !== undefined && <ProblemNotice error={error} />}
        {taking.error !== undefined && <ProblemNotice error={taking.error} />}
        {data !== undefined && forms.length === 0 && (
          <Empty title={say('thereAreNoFormsIn')}>
            <p>{say('keepThisOneThereOnce')}</p>
          </Empty>
        )}
        <ul>
          {forms.map(({ id, title, about }) => (
            <li key={id} className="flex items-center justify-between gap-3 border-b border-line py-2">
              <span>
                <strong>{title}</strong> <span className="text-ink-soft">{about}</span>
              </span>
              <Button small busy={taking.isLoading} onClick={() => void go(id)} aria-label={say('use', { title })}>
                {say('useIt')}
              </Button>
            </li>
          ))}
        </ul>
      </Dialog>
    </>
  );
}

function KeepInLibrary({ saveKey }: { readonly saveKey: string }) {
  const exchange = useExchange();
  const [open, setOpen] = useState(false);
  const [title, setTitle] = useState(exchange.title);
  const [keep, { isLoading, error, isSuccess }] = useKeepFormMutation();
  const go = async () => {
    if (!(await saveQueue.flush(saveKey))) return;
    const result = await keep({ courseId: exchange.course.id, exchangeId: exchange.id, title });
    if (result.data !== undefined) setOpen(false);
  };
  return (
    <>
      <Button small onClick={() => setOpen(true)}>
        {isSuccess ? say('keptInLibrary') : say('keepInLibrary')}
      </Button>
      <Dialog
        open={open}
        onClose={() => setOpen(false)}
        title={say('keepThisFormInLibrary')}
        description={say('copyIsKeptUnderThis')}
      >
        <div className="space-y-3">
          <TextField
            label={say('title')}
            value={title}
            maxLength={200}
            onChange={({ target }) => setTitle(target.value)}
          />
          {error !== undefined && <ProblemNotice error={error} />}
          <Button look="primary" busy={isLoading} onClick={() => void go()}>
            {say('keepCopy')}
          </Button>
        </div>
      </Dialog>
    </>
  );
}
