import { useId, useState, type DragEvent } from 'react';

export interface FilePickProps {
  readonly label: string;
  /** E.g. `.csv,.zip`. */
  readonly accept: string;
  readonly hint?: string;
  /** Several at once. */
  readonly multiple?: boolean;
  /** One file at least; exactly one without `multiple`. */
  readonly onFiles: (files: readonly [File, ...File[]]) => void;
}

/** A place for files: chosen, or dropped onto it. */
export function FilePick({ label, accept, hint, multiple = false, onFiles }: FilePickProps) {
  const id = useId();
  const [over, setOver] = useState(false);
  const take = (list: FileList | null) => {
    const [first, ...others] = list ?? [];
    if (first !== undefined) onFiles(multiple ? [first, ...others] : [first]);
  };
  const drop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    take(event.dataTransfer.files);
  };
  return (
    <div
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={drop}
      className={`rounded border border-dashed px-3 py-3 ${over ? 'border-iodine bg-crust' : 'border-edge'}`}
    >
      <label htmlFor={id} className="block font-medium">
        {label}
      </label>
      <input
        id={id}
        type="file"
        accept={accept}
        multiple={multiple}
        onChange={({ target }) => {
          take(target.files);
          // So that the same file, mended, can be chosen again.
          target.value = '';
        }}
        className="mt-1 block w-full text-sm file:mr-3 file:rounded file:border file:border-edge file:bg-paper file:px-2 file:py-0.5 file:text-ink"
      />
      {hint !== undefined && <p className="mt-1 text-sm text-ink-soft">{hint}</p>}
    </div>
  );
}
