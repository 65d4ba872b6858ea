import { Plus, X } from 'lucide-react';
import type { ReactNode } from 'react';

export interface PartListProps<T> {
  readonly parts: readonly T[];
  /** What one of them is called: “level”, “entry”. */
  readonly word: string;
  readonly least: number;
  readonly most: number;
  readonly readOnly: boolean;
  /** Side by side, as levels are; otherwise under each other. */
  readonly across?: boolean;
  readonly render: (part: T, number: number) => ReactNode;
  readonly onAdd: () => void;
  readonly onRemove: (id: string) => void;
}

/** The parts of an item (levels, bands, entries, options), with a place to add one. */
export function PartList<T extends { readonly id: string }>({
  parts,
  word,
  least,
  most,
  readOnly,
  across = false,
  render,
  onAdd,
  onRemove,
}: PartListProps<T>) {
  return (
    <ul className={across ? 'grid grid-cols-[repeat(auto-fit,minmax(9rem,1fr))]' : ''}>
      {parts.map((part, index) => (
        <li
          key={part.id}
          className={`relative -mr-px -mb-px border border-line bg-paper p-1.5 ${across ? '' : 'flex items-center gap-2 pr-8'}`}
        >
          {render(part, index + 1)}
          {!readOnly && parts.length > least && (
            <button
              type="button"
              aria-label={`Remove ${word} ${index + 1}`}
              onClick={() => onRemove(part.id)}
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
            onClick={onAdd}
            className="flex flex-1 items-center gap-1 border border-dashed border-edge p-2 text-left text-ink-soft hover:bg-crust"
          >
            <Plus size={14} aria-hidden="true" /> Add {/^[aeiou]/.test(word) ? 'an' : 'a'} {word}
          </button>
        </li>
      )}
    </ul>
  );
}
