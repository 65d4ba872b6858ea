import { useId, useState, type DragEvent } from 'react';

export interface DropPlaceProps {
  readonly label: string;
  readonly accept: string;
  readonly hint: string;
  readonly onFiles: (files: readonly File[]) => void;
}

/** A place for several files at once: chosen, or dropped onto it. */
export function DropPlace({ label, accept, hint, onFiles }: DropPlaceProps) {
  const id = useId();
  const [over, setOver] = useState(false);
  const drop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    onFiles([...event.dataTransfer.files]);
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
        multiple
        accept={accept}
        onChange={({ target }) => {
          onFiles([...(target.files ?? [])]);
          // So that the same file, mended, can be chosen again.
          target.value = '';
        }}
        className="mt-1 block w-full text-sm file:mr-3 file:rounded file:border file:border-edge file:bg-paper file:px-2 file:py-0.5 file:text-ink"
      />
      <p className="mt-1 text-sm text-ink-soft">{hint}</p>
    </div>
  );
}
