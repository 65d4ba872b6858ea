import { Image as ImageIcon } from 'lucide-react';
import { useId } from 'react';
import { Tooltip } from '../Overlay.js';
import { say } from '../../words/kit.js';

/** Chooses pictures for the text; pasting and dropping them does the same. */
export function PictureTool({ onPicture }: { readonly onPicture: (files: readonly File[]) => void }) {
  const id = useId();
  return (
    <Tooltip words={say('pictureChoosePasteOrDrop')}>
      <label htmlFor={id} className="cursor-pointer rounded p-1.5 text-ink-soft focus-within:outline-2 hover:bg-crust">
        <ImageIcon size={17} strokeWidth={1.75} aria-hidden="true" />
        <input
          id={id}
          type="file"
          accept="image/png,image/jpeg,image/webp"
          aria-label={say('addPicture')}
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
