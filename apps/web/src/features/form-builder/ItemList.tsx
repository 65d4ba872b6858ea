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
import { useCallback, useLayoutEffect, useMemo, useRef } from 'react';
import { Button, Empty } from '../../kit/index.js';
import type { Built } from './built.js';
import { moved, usualItems } from './items.js';
import { ItemEditor, type ItemActions } from './ItemEditor.js';
import type { Editing } from './useEditing.js';
import { say } from '../../words/form-builder.js';

const NONE: readonly FieldProblem[] = [];
// Made once: with new options at each letter, dragging would be set up anew for every item.
const BY_POINTER = { activationConstraint: { distance: 4 } };
const BY_KEYS = { coordinateGetter: sortableKeyboardCoordinates };

interface ItemListProps {
  readonly form: Built;
  readonly readOnly: boolean;
  readonly focusId: string | null;
  readonly byItem: ReadonlyMap<number, readonly FieldProblem[]>;
  readonly weights: number | null;
  readonly editing: Editing;
}

/** The items of a form in their order, to be dragged, moved by keys, changed and removed. */
export function ItemList({ form, readOnly, focusId, byItem, weights, editing }: ItemListProps) {
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
  const list = useRef<HTMLOListElement>(null);
  /** Of the item that was removed: whatever comes in its place gets the focus. */
  const gone = useRef(-1);
  useLayoutEffect(() => {
    if (gone.current < 0) return;
    const heir = list.current?.children[Math.min(gone.current, items.length - 1)];
    gone.current = -1;
    heir?.querySelector<HTMLElement>('textarea, button')?.focus();
  }, [items]);
  const actions = useMemo(
    (): ItemActions => ({
      ...editing.actions,
      remove: (id) => {
        gone.current = [...(list.current?.children ?? [])].findIndex((one) => one.contains(document.activeElement));
        editing.actions.remove(id);
      },
    }),
    [editing],
  );
  // The same list as long as the order is: a new one would have every item drawn again at every letter.
  const order = items.map(({ id }) => id).join(' ');
  const ids = useMemo(() => (order === '' ? [] : order.split(' ')), [order]);
  if (items.length === 0) {
    return (
      <Empty title={say('formHasNoItems')}>
        <p>{say('addCriterionWithNamedLevels')}</p>
        {!readOnly && (
          <Button onClick={() => editing.items('usual', () => usualItems())}>{say('beginWithUsualForm')}</Button>
        )}
      </Empty>
    );
  }
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        <ol ref={list}>
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
              actions={actions}
            />
          ))}
        </ol>
      </SortableContext>
    </DndContext>
  );
}
