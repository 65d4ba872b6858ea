import type { ShorthandView } from '@salt-circle/contracts';
import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { Conflict } from '../../app/saving/Conflict.js';
import { useSaver, useSavingState } from '../../app/saving/useSaving.js';
import { useMe } from '../../app/session/useMe.js';
import { saveQueue } from '../../app/store.js';
import { useCourse } from '../../app/useCourse.js';
import { useFresh } from '../../app/useFresh.js';
import { Button, buttonClass, Loading, SaveMark, TextField } from '../../kit/index.js';
import { useShorthandQuery } from './libraryPageApi.js';
import { say } from '../../words/library.js';

/** A shorthand set: short labels with a key each, for Fix notes. */
export function ShorthandPage() {
  const { setId = '' } = useParams();
  const course = useCourse();
  const query = useShorthandQuery({ courseId: course.id, id: setId }, { refetchOnMountOrArgChange: true });
  const set = useFresh(query);
  if (query.error !== undefined) return <ProblemNotice error={query.error} />;
  if (set === undefined) return <Loading what={say('shorthand')} />;
  return <ShorthandEditor set={set} />;
}

type Body = Pick<ShorthandView, 'title' | 'entries'>;

function ShorthandEditor({ set }: { readonly set: ShorthandView }) {
  const course = useCourse();
  const me = useMe();
  const key = `${me.id}:library:${set.id}`;
  const [body, setBody] = useState<Body>(() => ({
    title: set.title,
    entries: set.entries,
    ...saveQueue.pending(key)?.body,
  }));
  const save = useSaver(key, `/api/courses/${course.id}/library/shorthand/${set.id}`, set.revision);
  const saving = useSavingState(key);
  const readOnly = course.role !== 'instructor';
  const change = (part: Partial<Body>) => {
    const next = { ...body, ...part };
    setBody(next);
    save({ ...next });
  };
  const setEntry = (index: number, part: Partial<Body['entries'][number]>) =>
    change({ entries: body.entries.map((one, at) => (at === index ? { ...one, ...part } : one)) });
  const wrong = saving.state === 'refused' ? (saving.problem?.fields ?? []) : [];
  const at = (path: string) => wrong.find((one) => one.path === path)?.sentence;
  const theirs = saving.problem?.current as ShorthandView | undefined;
  return (
    <div className="max-w-4xl px-5 py-6">
      <div className="mb-3 flex flex-wrap items-center justify-between gap-3">
        <h2 className="text-xl font-semibold">{say('shorthandLabel')}</h2>
        <div className="flex items-center gap-3">
          {!readOnly && <SaveMark state={saving.state} savedAt={saving.savedAt} />}
          <Link to={`/courses/${course.id}/library`} className={buttonClass('plain', true)}>
            {say('backToLibrary')}
          </Link>
        </div>
      </div>
      {saving.state === 'conflict' && saving.problem !== null && theirs !== undefined && (
        <Conflict
          saveKey={key}
          problem={saving.problem}
          revision={theirs.revision}
          theirs={theirs.entries.map(({ label }) => label).join(', ')}
          onTake={() => setBody({ title: theirs.title, entries: theirs.entries })}
        />
      )}
      <fieldset disabled={readOnly} className="space-y-4">
        <TextField
          label={say('title')}
          value={body.title}
          maxLength={200}
          problem={at('title')}
          onChange={({ target }) => change({ title: target.value })}
        />
        <p className="text-ink-soft">{say('reviewersOfExchangeThatUses')}</p>
        <ul className="space-y-2">
          {body.entries.map((entry, index) => (
            <li key={index} className="grid items-start gap-2 sm:grid-cols-[4rem_11rem_1fr_9rem_auto]">
              <TextField
                label={say('key')}
                labelHidden={index > 0}
                value={entry.key}
                maxLength={1}
                problem={at(`entries.${index}.key`)}
                onChange={({ target }) => setEntry(index, { key: target.value })}
              />
              <TextField
                label={say('label')}
                labelHidden={index > 0}
                value={entry.label}
                maxLength={60}
                problem={at(`entries.${index}.label`)}
                onChange={({ target }) => setEntry(index, { label: target.value })}
              />
              <TextField
                label={say('meaning')}
                labelHidden={index > 0}
                value={entry.meaning}
                maxLength={300}
                onChange={({ target }) => setEntry(index, { meaning: target.value })}
              />
              <TextField
                label={say('group')}
                labelHidden={index > 0}
                value={entry.group}
                maxLength={40}
                onChange={({ target }) => setEntry(index, { group: target.value })}
              />
              <button
                type="button"
                aria-label={say('removeLabel', { label: entry.label })}
                onClick={() => change({ entries: body.entries.filter((_, place) => place !== index) })}
                className={`rounded p-2 text-ink-soft hover:bg-crust ${index === 0 ? 'sm:mt-6' : ''}`}
              >
                <Trash2 size={17} aria-hidden="true" />
              </button>
            </li>
          ))}
        </ul>
        {!readOnly && (
          <Button
            small
            onClick={() =>
              change({
                entries: [
                  ...body.entries,
                  {
                    key: freeKey(body.entries),
                    label: say('newLabel'),
                    meaning: '',
                    group: body.entries.at(-1)?.group ?? '',
                  },
                ],
              })
            }
          >
            <Plus size={15} aria-hidden="true" /> {say('addLabel')}
          </Button>
        )}
      </fieldset>
    </div>
  );
}

/** A letter that no label has yet. */
function freeKey(entries: Body['entries']): string {
  const taken = new Set(entries.map(({ key }) => key.toLowerCase()));
  return [...'abcdefghijklmnopqrstuvwxyz056789'].find((letter) => !taken.has(letter)) ?? '';
}
