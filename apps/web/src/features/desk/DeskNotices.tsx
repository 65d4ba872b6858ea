import type { DeskView } from '@salt-circle/contracts';
import { Notice } from '../../kit/index.js';
import type { Notes } from './useNotes.js';

/** What a reviewer should know before writing on. */
export function DeskNotices({ desk }: { readonly desk: DeskView }) {
  const { editable, submittable, submittedAt, changing, reviewer, overtaken, draft } = desk;
  const own = reviewer.you === true;
  return (
    <>
      {!editable && own && submittedAt === null && (
        <Notice tone="waiting" title="Reviews are over: this one was not submitted.">
          What you wrote is kept and can be read here.
        </Notice>
      )}
      {changing && own && desk.reopenReason !== null && (
        <Notice tone="waiting" title="Your instructor has reopened this review.">
          <p className="whitespace-pre-wrap">{desk.reopenReason}</p>
        </Notice>
      )}
      {changing && own && (
        <Notice tone="waiting" title="Your submitted review counts.">
          {submittable
            ? 'What you change counts once you submit again; until then the author gets what you submitted.'
            : 'What you changed since was not submitted again, so the author gets what you submitted.'}
        </Notice>
      )}
      {editable && !submittable && !changing && (
        <Notice tone="waiting" title="Reviews have fallen due, so this one can no longer be submitted.">
          What you still write is saved, but it does not count.
        </Notice>
      )}
      {editable && overtaken && (
        <Notice tone="plain" title={`You go on with version ${draft.version}, on which you began.`}>
          The author has handed in another version since. Your notes stay where you put them.
        </Notice>
      )}
    </>
  );
}

/** A removed note can be brought back. */
export function NoteRemoved({ notes }: { readonly notes: Notes }) {
  if (notes.removed === null) return null;
  return (
    <p className="border-t border-line px-5 py-2" role="status">
      Note removed.{' '}
      <button type="button" onClick={notes.bringBack} className="text-dusk underline">
        Bring it back
      </button>
    </p>
  );
}
