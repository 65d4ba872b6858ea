import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
import type { FormView } from '@salt-circle/contracts';
import type { FormItem } from '@salt-circle/core';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { Button, Empty, Loading, Notice, SaveMark, buttonClass } from '../../kit/index.js';
import { api } from '../../app/api.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { Conflict } from '../../app/saving/Conflict.js';
import { useSaver, useSavingState } from '../../app/saving/useSaving.js';
import { useMe } from '../../app/session/useMe.js';
import { saveQueue } from '../../app/store.js';
import { useFresh } from '../../app/useFresh.js';
import { useExchange } from '../../app/useExchange.js';
import { FormTotals } from './FormTotals.js';
import { moved, newCriterion, newPrompt } from './items.js';
import { ItemEditor } from './ItemEditor.js';

const { useFormQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    form: build.query<FormView, string>({ query: (id) => `/exchanges/${id}/form`, providesTags: ['Form'] }),
  }),
});

/** The form as reviewers will see it, edited in place. */
export function FormBuilderPage() {
  const exchange = useExchange();
  const query = useFormQuery(exchange.id, { refetchOnMountOrArgChange: true });
  const form = useFresh(query);
  if (query.error !== undefined) return <ProblemNotice error={query.error} />;
  if (form === undefined) return <Loading what="the form" />;
  return <Builder form={form} readOnly={form.frozen || exchange.course.role !== 'instructor'} />;
}

/** Undo covers what is lost by a slip: a removed or moved item. Typing has the browser's own. */
const KEPT_STATES = 50;

function Builder({ form, readOnly }: { readonly form: FormView; readonly readOnly: boolean }) {
  const exchange = useExchange();
  const me = useMe();
  const key = `${me.id}:form:${exchange.id}`;
  const pending = saveQueue.pending(key)?.body as { items: FormItem[] } | undefined;
  const [items, setItems] = useState<readonly FormItem[]>(pending?.items ?? form.items);
  const [past, setPast] = useState<ReadonlyArray<readonly FormItem[]>>([]);
  const [focusId, setFocusId] = useState<string | null>(null);
  const save = useSaver(key, `/api/exchanges/${exchange.id}/form`, form.revision);
  const saving = useSavingState(key);
  const { refetch } = useFormQuery(exchange.id);
  useEffect(() => {
    if (saving.state === 'saved' && saving.savedAt !== null) void refetch();
  }, [saving.state, saving.savedAt, refetch]);

  const change = (next: readonly FormItem[], undoable = false) => {
    if (undoable) setPast((states) => [...states.slice(-KEPT_STATES), items]);
    setItems(next);
    save({ items: next });
  };
  const add = (item: FormItem) => {
    change([...items, item], true);
    setFocusId(item.id);
  };
  const undo = () => {
    const last = past.at(-1);
    if (last === undefined) return;
    setPast(past.slice(0, -1));
    change(last);
  };
  useAddKeys(readOnly, { c: () => add(newCriterion()), p: () => add(newPrompt()) });

  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const drop = ({ active, over }: DragEndEvent) => {
    const at = (id: unknown) => items.findIndex((item) => item.id === id);
    if (over !== null && active.id !== over.id) change(moved(items, at(active.id), at(over.id)), true);
  };
  const theirs = saving.problem?.current as FormView | undefined;
  const problems = [...(saving.state === 'refused' ? (saving.problem?.fields ?? []) : []), ...form.problems];

  return (
    <div className="grid flex-1 grid-cols-1 lg:grid-cols-[1fr_20rem]">
      <div className="px-5 py-5">
        <div className="mb-3 flex flex-wrap items-center justify-between gap-3">
          <h2 className="text-xl font-semibold">Review form</h2>
          <div className="flex items-center gap-3">
            {!readOnly && <SaveMark state={saving.state} savedAt={saving.savedAt} />}
            {past.length > 0 && (
              <Button look="quiet" small onClick={undo}>
                Undo
              </Button>
            )}
            <Link to={`/exchanges/${exchange.id}/plan`} className={buttonClass('plain', true)}>
              Back to the plan
            </Link>
          </div>
        </div>
        {form.frozen && (
          <Notice title="This form can no longer change.">
            The first draft has been handed in, and everybody is to be reviewed by the same form.
          </Notice>
        )}
        {saving.state === 'conflict' && saving.problem !== null && theirs !== undefined && (
          <Conflict
            saveKey={key}
            problem={saving.problem}
            revision={theirs.revision}
            theirs={theirs.items.map(({ title }) => title).join(', ')}
            onTake={() => setItems(theirs.items)}
          />
        )}
        {items.length === 0 && (
          <Empty title="The form is empty.">
            <p>
              Reviewers fill it in for every draft. Add a criterion with named levels, or a prompt that asks for a few
              sentences.
            </p>
          </Empty>
        )}
        <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
          <SortableContext items={items.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
            <ol>
              {items.map((item, index) => (
                <ItemEditor
                  key={item.id}
                  item={item}
                  number={index + 1}
                  last={index === items.length - 1}
                  readOnly={readOnly}
                  autoFocus={item.id === focusId}
                  problems={problems.filter(({ path }) => path.startsWith(`items.${index}.`))}
                  onChange={(next) => change(items.map((one) => (one.id === item.id ? next : one)))}
                  onMove={(step) => change(moved(items, index, index + step), true)}
                  onRemove={() =>
                    change(
                      items.filter((one) => one.id !== item.id),
                      true,
                    )
                  }
                />
              ))}
            </ol>
          </SortableContext>
        </DndContext>
      </div>
      <FormTotals
        items={items}
        readOnly={readOnly}
        onAdd={(kind) => add(kind === 'criterion' ? newCriterion() : newPrompt())}
      />
    </div>
  );
}

/** Single letters add items, unless somebody is typing. */
function useAddKeys(off: boolean, keys: Readonly<Record<string, () => void>>): void {
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      const typing = target.closest('input, textarea, select, [contenteditable], [role=dialog]') !== null;
      const run = keys[event.key.toLowerCase()];
      if (off || typing || run === undefined || event.ctrlKey || event.metaKey || event.altKey) return;
      event.preventDefault();
      run();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  });
}
