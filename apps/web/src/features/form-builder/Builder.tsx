import type { FieldProblem } from '@salt-circle/contracts';
import { weightSum, type ItemKind, type ReviewForm } from '@salt-circle/core';
import { Redo2, Undo2 } from 'lucide-react';
import { useEffect, useMemo, useReducer, useRef, useState, type ReactNode } from 'react';
import { FormPreview } from '../../app/form/FormPreview.js';
import { kindsOfItems } from '../../app/form/kinds.js';
import { Conflict } from '../../app/saving/Conflict.js';
import { useSaver, useSavingState } from '../../app/saving/useSaving.js';
import { saveQueue } from '../../app/store.js';
import { Button, Key, SaveMark, Tooltip } from '../../kit/index.js';
import type { Built } from './built.js';
import { FormTotals } from './FormTotals.js';
import { begin, historyReducer, type HistoryAction } from './history.js';
import { newItem } from './items.js';
import { ItemList } from './ItemList.js';
import { useEditing } from './useEditing.js';
import { say } from '../../words/form-builder.js';

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
              {previewing ? say('backToBuilding') : say('preview')}
            </Button>
            {previewing && (
              <Button small onClick={() => window.print()}>
                {say('print')}
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
            aria-label={say('titleOfForm')}
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
          <ItemList
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
            {say('undo')} <Key>{say('ctrlZ')}</Key>
          </>
        }
      >
        <button
          type="button"
          aria-label={say('undo')}
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
            {say('redo')} <Key>{say('ctrlShiftZ')}</Key>
          </>
        }
      >
        <button
          type="button"
          aria-label={say('redo')}
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
      const kind = kindsOfItems().find((one) => one.key.toLowerCase() === key)?.kind;
      if (typing || kind === undefined || event.ctrlKey || event.metaKey || event.altKey) return;
      event.preventDefault();
      add(kind);
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  });
}
