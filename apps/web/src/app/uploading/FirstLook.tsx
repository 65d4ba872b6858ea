import { useEffect, useRef, useState, type ReactNode } from 'react';
import { FilePick } from '../../kit/index.js';
import type { UploadPurpose } from './upload.js';
import { UploadRows } from './UploadRows.js';
import { useSending } from './useUploads.js';

interface FirstLookProps<View> {
  readonly label: string;
  /** File name endings, as the browser's file dialog takes them. */
  readonly accept: string;
  readonly hint: string;
  readonly purpose: UploadPurpose;
  /** Asks the server what is in a file that has arrived. */
  readonly look: (uploadId: string) => Promise<View>;
  /** What is in it, and what can be done; `again` goes back to choose another file. */
  readonly children: (uploadId: string, view: View, again: () => void) => ReactNode;
}

/** A file is sent and looked into: what is in it is shown before anything is done with it. */
export function FirstLook<View>({ label, accept, hint, purpose, look, children }: FirstLookProps<View>) {
  const [found, setFound] = useState<{ readonly uploadId: string; readonly view: View } | null>(null);
  const uploads = useSending(purpose, async (uploadId) => {
    const view = await look(uploadId);
    setFound({ uploadId, view });
  });
  const latest = useRef(uploads);
  useEffect(() => {
    latest.current = uploads;
  });
  // Whoever goes away before it has arrived wants nothing of it any more.
  useEffect(
    () => () => {
      for (const { key, state } of latest.current.rows) if (state === 'sending') latest.current.cancel(key);
    },
    [],
  );
  if (found !== null) return children(found.uploadId, found.view, () => setFound(null));
  return (
    <div className="space-y-3">
      <FilePick
        label={label}
        accept={accept}
        hint={hint}
        onFiles={([file]) => {
          // One at a time: what was refused before is over.
          for (const { key } of uploads.rows) uploads.dismiss(key);
          void uploads.add([file]);
        }}
      />
      <UploadRows uploads={uploads} />
    </div>
  );
}
