import { Plus, X } from 'lucide-react';
import { useLayoutEffect, useRef, type ReactNode } from 'react';
import { say } from '../../words/form-builder.js';

export interface PartListProps<T> {
  readonly parts: readonly T[];
  readonly part: 'level' | 'band' | 'entry' | 'option';
  readonly least: number;
  readonly most: number;
  readonly readOnly: boolean;
  /** Side by side, as levels are; otherwise under each other. */
  readonly across?: boolean;
  readonly render: (part: T, number: number) => ReactNode;
  readonly onAdd: () => void;
  readonly onRemove: (id: string) => void;
}

/** The parts of an item (levels, bands, entries, options), with a place to add one; in a list, Enter adds the next. */
export function PartList<T extends { readonly id: string }>({
  parts,
  part: kind,
  least,
  most,
  readOnly,
  across = false,
  render,
  onAdd,
  onRemove,
}: PartListProps<T>) {
  const list = useRef<HTMLUListElement>(null);
  /** Where the focus goes once the list has been drawn anew. */
  const going = useRef<number | null>(null);
  useLayoutEffect(() => {
    if (going.current === null) return;
    const at = Math.min(going.current, parts.length - 1);
    going.current = null;
    list.current?.children[at]?.querySelector<HTMLElement>('textarea, input')?.focus();
  }, [parts]);
  const add = () => {
    going.current = parts.length;
    onAdd();
  };
  return (
    <ul
      ref={list}
      onKeyDown={(event) => {
        const isText = event.target instanceof HTMLTextAreaElement;
        if (event.key !== 'Enter' || !isText || across || readOnly || parts.length >= most) return;
        event.preventDefault();
        add();
      }}
      className={across ? 'grid grid-cols-[repeat(auto-fit,minmax(11rem,1fr))]' : ''}
    >
      {parts.map((part, index) => (
        <li
          key={part.id}
          className={`relative -mr-px -mb-px border border-line bg-paper p-1.5 ${across ? '' : 'flex items-center gap-2 pr-8'}`}
        >
          {render(part, index + 1)}
          {!readOnly && parts.length > least && (
            <button
              type="button"
              aria-label={say('removePart', { part: kind, number: index + 1 })}
              onClick={() => {
                going.current = index;
                onRemove(part.id);
              }}
              className="absolute top-1 right-1 rounded p-0.5 text-ink-soft hover:bg-crust"
            >
              <X size={14} aria-hidden="true" />
            </button>
          )}
        </li>
      ))}
      {!readOnly && parts.length < most && (
        <li className="flex">
          <button
            type="button"
            onClick={add}
            className="flex flex-1 items-center gap-1 border border-dashed border-edge p-2 text-left text-ink-soft hover:bg-crust"
          >
            <Plus size={14} aria-hidden="true" /> {say('addPart', { part: kind })}
          </button>
        </li>
      )}
    </ul>
  );
}
