import { Image as ImageIcon } from 'lucide-react';
import { useId } from 'react';
import { Tooltip } from '../Overlay.js';

/** Chooses pictures for the text; pasting and dropping them does the same. */
export function PictureTool({ onPicture }: { readonly onPicture: (files: readonly File[]) => void }) {
  const id = useId();
  return (
    <Tooltip words="Picture: choose, paste or drop one">
      <label htmlFor={id} className="cursor-pointer rounded p-1.5 text-ink-soft focus-within:outline-2 hover:bg-crust">
        <ImageIcon size={17} strokeWidth={1.75} aria-hidden="true" />
        <input
          id={id}
          type="file"
          accept="image/png,image/jpeg,image/webp"
          aria-label="Add a picture"
          className="sr-only"
          onChange={({ target }) => {
            onPicture([...(target.files ?? [])]);
            target.value = '';
          }}
        />
      </label>
    </Tooltip>
  );
}
