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
import type { FieldProblem } from '@salt-circle/contracts';
import { weightSum, type FormItem, type ItemKind, type ReviewForm } from '@salt-circle/core';
import { Redo2, Undo2 } from 'lucide-react';
import { useCallback, useEffect, useMemo, useReducer, useRef, useState, type ReactNode } from 'react';
import { FormPreview } from '../../app/form/FormPreview.js';
import { KINDS } from '../../app/form/kinds.js';
import { Conflict } from '../../app/saving/Conflict.js';
import { useSaver, useSavingState } from '../../app/saving/useSaving.js';
import { saveQueue } from '../../app/store.js';
import { Button, Empty, Key, SaveMark, Tooltip } from '../../kit/index.js';
import { FormTotals } from './FormTotals.js';
import { begin, historyReducer, type HistoryAction } from './history.js';
import { duplicate, moved, newItem } from './items.js';
import { ItemEditor, type ItemActions } from './ItemEditor.js';

/** A form with the title it has in a library; in an exchange the title is empty. */
export interface Built extends ReviewForm {
  readonly title: string;
}

export interface BuilderProps {
  readonly built: Built;
  readonly revision: number;
  readonly problems: readonly FieldProblem[];
  readonly readOnly: boolean;
  readonly saveKey: string;
  readonly url: string;
  readonly heading: string;
  /** Above the items: why nothing can be changed, say. */
  readonly notice?: ReactNode;
  /** At the right of the heading. */
  readonly actions?: ReactNode;
  /** The title is edited too. */
  readonly titled?: boolean;
  readonly onSaved: () => void;
}

const NONE: readonly FieldProblem[] = [];
// Made once: with new options at each letter, dragging would be set up anew for every item.
const BY_POINTER = { activationConstraint: { distance: 4 } };
const BY_KEYS = { coordinateGetter: sortableKeyboardCoordinates };

/** The form as reviewers will see it, edited in place. */
export function Builder(props: BuilderProps) {
  const {
    built,
    revision,
    problems,
    readOnly,
    saveKey,
    url,
    heading,
    notice,
    actions,
    titled = false,
    onSaved,
  } = props;
  const pending = saveQueue.pending(saveKey)?.body as Built | undefined;
  const [history, dispatch] = useReducer(historyReducer<Built>, { ...built, ...pending }, begin<Built>);
  const form = history.present;
  const [focusId, setFocusId] = useState<string | null>(null);
  const [previewing, setPreviewing] = useState(false);
  const save = useSaver(saveKey, url, revision);
  const saving = useSavingState(saveKey);
  useSaveOnChange(form, (next) => save(titled ? { ...next } : withoutTitle(next)));
  // What is wrong with the form is the server's to say, after each save made here.
  const [savedBefore] = useState(saving.savedAt);
  useEffect(() => {
    if (saving.state === 'saved' && saving.savedAt !== null && saving.savedAt !== savedBefore) onSaved();
  }, [saving.state, saving.savedAt, savedBefore, onSaved]);

  const editing = useEditing(dispatch);
  const add = (kind: ItemKind) => {
    const item = newItem(kind);
    editing.items('add', (items) => [...items, item]);
    setFocusId(item.id);
  };
  useKeys(readOnly || previewing, add, dispatch);
  const refused = saving.state === 'refused' ? (saving.problem?.fields ?? NONE) : NONE;
  const byItem = useMemo(() => grouped([...refused, ...problems]), [refused, problems]);
  const theirs = saving.problem?.current as (Built & { readonly revision: number }) | undefined;
  const weights = form.weighting === 'weights' ? weightSum(form) : null;

  return (
    <div className="grid flex-1 grid-cols-1 lg:grid-cols-[1fr_20rem]">
      <div className="min-w-0 px-5 py-5">
        <div className="no-print mb-3 flex flex-wrap items-center justify-between gap-3">
          <h2 className="text-xl font-semibold">{heading}</h2>
          <div className="flex flex-wrap items-center gap-2">
            {!readOnly && <SaveMark state={saving.state} savedAt={saving.savedAt} />}
            {!readOnly && <UndoButtons history={history} dispatch={dispatch} />}
            <Button small onClick={() => setPreviewing(!previewing)}>
              {previewing ? 'Back to building' : 'Preview'}
            </Button>
            {previewing && (
              <Button small onClick={() => window.print()}>
                Print
              </Button>
            )}
            {actions}
          </div>
        </div>
        {notice}
        {saving.state === 'conflict' && saving.problem !== null && theirs !== undefined && (
          <Conflict
            saveKey={saveKey}
            problem={saving.problem}
            revision={theirs.revision}
            theirs={theirs.items.map(({ title }) => title).join(', ')}
            onTake={() => dispatch({ type: 'replace', present: asBuilt(theirs) })}
          />
        )}
        {titled && !previewing && (
          <input
            aria-label="Title of the form"
            value={form.title}
            maxLength={200}
            readOnly={readOnly}
            onChange={({ target }) => editing.whole({ title: target.value })}
            className="mb-2 w-full rounded border border-transparent bg-transparent px-1.5 text-lg font-semibold hover:border-line"
          />
        )}
        {previewing ? (
          <div className="max-w-3xl py-2">
            <FormPreview form={form} live />
          </div>
        ) : (
          <Items
            form={form}
            readOnly={readOnly}
            focusId={focusId}
            byItem={byItem}
            weights={weights}
            editing={editing}
          />
        )}
      </div>
      <FormTotals
        form={form}
        readOnly={readOnly || previewing}
        problems={byItem.get(-1) ?? NONE}
        onAdd={add}
        onChange={editing.whole}
      />
    </div>
  );
}

interface ItemsProps {
  readonly form: Built;
  readonly readOnly: boolean;
  readonly focusId: string | null;
  readonly byItem: ReadonlyMap<number, readonly FieldProblem[]>;
  readonly weights: number | null;
  readonly editing: Editing;
}

function Items({ form, readOnly, focusId, byItem, weights, editing }: ItemsProps) {
  const { items } = form;
  const sensors = useSensors(useSensor(PointerSensor, BY_POINTER), useSensor(KeyboardSensor, BY_KEYS));
  const drop = useCallback(
    ({ active, over }: DragEndEvent) => {
      if (over === null || active.id === over.id) return;
      editing.items('move', (list) => {
        const at = (id: unknown) => list.findIndex((item) => item.id === id);
        return moved(list, at(active.id), at(over.id));
      });
    },
    [editing],
  );
  // The same list as long as the order is: a new one would have every item drawn again at every letter.
  const order = items.map(({ id }) => id).join(' ');
  const ids = useMemo(() => (order === '' ? [] : order.split(' ')), [order]);
  if (items.length === 0) {
    return (
      <Empty title="The form has no items.">
        <p>
          Add a criterion with named levels, a prompt that asks for a few sentences, or any of the others at the side. A
          form can also do without: for comments only, require an overall comment or ask for notes.
        </p>
      </Empty>
    );
  }
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        <ol>
          {items.map((item, index) => (
            <ItemEditor
              key={item.id}
              item={item}
              number={index + 1}
              last={index === items.length - 1}
              readOnly={readOnly}
              autoFocus={item.id === focusId}
              problems={byItem.get(index) ?? NONE}
              weightSum={weights}
              actions={editing.actions}
            />
          ))}
        </ol>
      </SortableContext>
    </DndContext>
  );
}

interface Editing {
  readonly items: (label: string, make: (items: readonly FormItem[]) => readonly FormItem[]) => void;
  readonly whole: (part: Partial<Built>) => void;
  readonly actions: ItemActions;
}

/** All changes, by functions that stay the same from render to render. */
function useEditing(dispatch: (action: HistoryAction<Built>) => void): Editing {
  return useMemo(() => {
    const change = (label: string, make: (form: Built) => Built) =>
      dispatch({ type: 'change', make, label, at: performance.now() });
    const items: Editing['items'] = (label, make) =>
      change(label, (form) => {
        const next = make(form.items);
        return next === form.items ? form : { ...form, items: next };
      });
    return {
      items,
      whole: (part) => change(`whole ${Object.keys(part).join()}`, (form) => ({ ...form, ...part })),
      actions: {
        change: (next) => items(`item ${next.id}`, (list) => list.map((one) => (one.id === next.id ? next : one))),
        move: (id, step) =>
          items('move', (list) => {
            const from = list.findIndex((one) => one.id === id);
            return moved(list, from, from + step);
          }),
        duplicate: (id) =>
          items('duplicate', (list) => list.flatMap((one) => (one.id === id ? [one, duplicate(one)] : [one]))),
        remove: (id) => items('remove', (list) => list.filter((one) => one.id !== id)),
      },
    };
  }, [dispatch]);
}

/** Saves whenever the form has become another one since the last save. */
function useSaveOnChange(form: Built, save: (form: Built) => void): void {
  const saved = useRef(form);
  useEffect(() => {
    if (saved.current === form) return;
    saved.current = form;
    save(form);
  });
}

function withoutTitle({ title: _, ...form }: Built): Record<string, unknown> {
  return form;
}

export function asBuilt(view: ReviewForm & { readonly title?: string }): Built {
  const { title = '', items, weighting, overall, overallWords, minimumNotes, targetNotes } = view;
  return { title, items, weighting, overall, overallWords, minimumNotes, targetNotes };
}

/** Problems by the place of their item; -1 for the form as a whole. */
function grouped(problems: readonly FieldProblem[]): Map<number, FieldProblem[]> {
  const groups = new Map<number, FieldProblem[]>();
  for (const problem of problems) {
    const match = /^items\.(\d+)(\.|$)/.exec(problem.path);
    const at = match === null ? -1 : Number(match[1]);
    groups.set(at, [...(groups.get(at) ?? []), problem]);
  }
  return groups;
}

interface UndoProps {
  readonly history: ReturnType<typeof begin<Built>>;
  readonly dispatch: (action: HistoryAction<Built>) => void;
}

function UndoButtons({ history, dispatch }: UndoProps) {
  return (
    <>
      <Tooltip
        words={
          <>
            Undo <Key>Ctrl Z</Key>
          </>
        }
      >
        <button
          type="button"
          aria-label="Undo"
          disabled={history.past.length === 0}
          onClick={() => dispatch({ type: 'undo' })}
          className="rounded p-1.5 hover:bg-crust disabled:opacity-40"
        >
          <Undo2 size={17} aria-hidden="true" />
        </button>
      </Tooltip>
      <Tooltip
        words={
          <>
            Redo <Key>Ctrl Shift Z</Key>
          </>
        }
      >
        <button
          type="button"
          aria-label="Redo"
          disabled={history.future.length === 0}
          onClick={() => dispatch({ type: 'redo' })}
          className="rounded p-1.5 hover:bg-crust disabled:opacity-40"
        >
          <Redo2 size={17} aria-hidden="true" />
        </button>
      </Tooltip>
    </>
  );
}

/** Single letters add items, unless somebody is typing; undo and redo work everywhere on the page. */
function useKeys(off: boolean, add: (kind: ItemKind) => void, dispatch: (action: HistoryAction<Built>) => void): void {
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (off || target.closest('[role=dialog]') !== null) return;
      const key = event.key.toLowerCase();
      if ((event.ctrlKey || event.metaKey) && key === 'z' && !event.altKey) {
        // The browser's own undo knows nothing of changes made by buttons, and would undo only half.
        event.preventDefault();
        dispatch({ type: event.shiftKey ? 'redo' : 'undo' });
        return;
      }
      const typing = target.closest('input, textarea, select, [contenteditable]') !== null;
      const kind = KINDS.find((one) => one.key.toLowerCase() === key)?.kind;
      if (typing || kind === undefined || event.ctrlKey || event.metaKey || event.altKey) return;
      event.preventDefault();
      add(kind);
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  });
}
