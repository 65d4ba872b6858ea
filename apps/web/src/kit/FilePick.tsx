import { useState, type DragEvent } from 'react';
import { say } from '../words/kit.js';

export interface FileButtonProps {
  /** What is chosen, for those who do not see where the button stands. */
  readonly label: string;
  readonly words: string;
  /** E.g. `.csv,.zip`. */
  readonly accept: string;
  /** Several at once. */
  readonly multiple?: boolean;
  /** One file at least; exactly one without `multiple`. */
  readonly onFiles: (files: readonly [File, ...File[]]) => void;
}

/** Chooses files. Looks like our other buttons: the browser's own control goes on saying that no file is chosen. */
export function FileButton({ label, words, accept, multiple = false, onFiles }: FileButtonProps) {
  return (
    <label className="inline-block cursor-pointer rounded border border-edge bg-paper px-2 py-1 text-sm text-ink focus-within:outline-2 focus-within:outline-iodine hover:bg-crust">
      <span aria-hidden="true">{words}</span>
      <input
        type="file"
        accept={accept}
        multiple={multiple}
        aria-label={label}
        className="sr-only"
        onChange={({ target }) => {
          const [first, ...others] = target.files ?? [];
          // So that the same file, mended, can be chosen again.
          target.value = '';
          if (first !== undefined) onFiles([first, ...others]);
        }}
      />
    </label>
  );
}

export interface FilePickProps extends Omit<FileButtonProps, 'words'> {
  readonly hint?: string;
}

/** A place for files: chosen, or dropped onto it. */
export function FilePick({ label, accept, hint, multiple = false, onFiles }: FilePickProps) {
  const [over, setOver] = useState(false);
  const [chosen, setChosen] = useState('');
  const take = (files: readonly [File, ...File[]]) => {
    // Several are listed where they go; one is replaced by the next.
    if (!multiple) setChosen(files[0].name);
    onFiles(files);
  };
  const drop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    const [first, ...others] = event.dataTransfer.files;
    if (first !== undefined) take(multiple ? [first, ...others] : [first]);
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
      <p className="font-medium">{label}</p>
      <p className="mt-1 flex flex-wrap items-center gap-x-3">
        <FileButton
          label={label}
          words={chosen === '' ? say('choose') : say('chooseAnother')}
          accept={accept}
          multiple={multiple}
          onFiles={take}
        />
        <span className="min-w-0 text-sm break-words text-ink-soft">
          {chosen === '' ? say('orDropItHere') : chosen}
        </span>
      </p>
      {hint !== undefined && <p className="mt-1 text-sm text-ink-soft">{hint}</p>}
    </div>
  );
}
