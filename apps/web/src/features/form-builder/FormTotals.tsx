import { formMaximum, itemMaximum, type FormItem } from '@salt-circle/core';
import { Key } from '../../kit/index.js';

export interface FormTotalsProps {
  readonly items: readonly FormItem[];
  readonly readOnly: boolean;
  readonly onAdd: (kind: FormItem['kind']) => void;
}

const SHADES = ['bg-iodine', 'bg-iodine/75', 'bg-iodine/55', 'bg-iodine/40'];

/** Points as they add up, what is asked of a reviewer, and what can be added. */
export function FormTotals({ items, readOnly, onAdd }: FormTotalsProps) {
  const points = formMaximum({ items });
  const scored = items.flatMap((item) => {
    const most = item.kind === 'criterion' ? itemMaximum(item) : null;
    return most === null ? [] : [{ id: item.id, title: item.title === '' ? 'untitled' : item.title, most }];
  });
  const words = items.reduce((sum, item) => sum + (item.kind === 'prompt' && item.required ? item.minimumWords : 0), 0);
  const required = items.filter((item) => item.required).length;
  return (
    <aside className="border-l border-line bg-crust px-5 py-5">
      <h3 className="font-semibold">
        {points === null ? 'No points' : `${points} points`}, {items.length === 1 ? '1 item' : `${items.length} items`}
      </h3>
      {points !== null && points > 0 && (
        <>
          <div className="my-2 flex h-3" aria-hidden="true">
            {scored.map(({ id, most }, index) => (
              <span key={id} className={SHADES[index % SHADES.length]} style={{ flexGrow: most }} />
            ))}
          </div>
          <p className="text-sm text-ink-soft">{scored.map(({ title, most }) => `${title} ${most}`).join(', ')}</p>
        </>
      )}
      <h3 className="mt-5 mb-1 border-t border-line pt-4 font-semibold">Asked of a reviewer</h3>
      <p>
        {required} of {items.length} items required
      </p>
      {words > 0 && <p>at least {words} words in all</p>}
      {!readOnly && (
        <>
          <h3 className="mt-5 mb-2 border-t border-line pt-4 font-semibold">Add</h3>
          <AddButton letter="C" words="criterion" remark="named levels" onAdd={() => onAdd('criterion')} />
          <AddButton letter="P" words="prompt" remark="free text" onAdd={() => onAdd('prompt')} />
        </>
      )}
    </aside>
  );
}

interface AddButtonProps {
  readonly letter: string;
  readonly words: string;
  readonly remark: string;
  readonly onAdd: () => void;
}

function AddButton({ letter, words, remark, onAdd }: AddButtonProps) {
  return (
    <button
      type="button"
      onClick={onAdd}
      className="flex w-full items-center gap-2.5 rounded px-1 py-1.5 text-left hover:bg-paper"
    >
      <Key>{letter}</Key> {words} <span className="text-ink-soft">{remark}</span>
    </button>
  );
}
