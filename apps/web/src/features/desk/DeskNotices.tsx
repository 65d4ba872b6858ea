import { When } from '../../app/time/When.js';
import type { DeskView } from '@salt-circle/contracts';
import { Notice } from '../../kit/index.js';
import type { Notes } from './useNotes.js';

/** What a reviewer should know before writing on. */
export function DeskNotices({ desk }: { readonly desk: DeskView }) {
  const { editable, submittable, submittedAt, changing, reviewer, overtaken, draft } = desk;
  const own = reviewer.you === true;
  if (desk.practice !== null) return <PracticeNotice desk={desk} />;
  return (
    <>
      {desk.voice !== null && own && editable && (
        <Notice title="This is a review under your own name.">
          Once you submit it, its author reads it with the others, as yours. It goes by no due time, and counts for
          nobody’s reviewing.
        </Notice>
      )}
      {!editable && own && submittedAt === null && (
        <Notice tone="waiting" title="Reviews are over: this one was not submitted.">
          What you wrote is kept and can be read here.
        </Notice>
      )}
      {changing && own && desk.reopenReason !== null && (
        <Notice tone="waiting" title="Your instructor has reopened this review.">
          <p className="whitespace-pre-wrap">{desk.reopenReason}</p>
          {desk.reopenUntil !== null && (
            <p>
              It can be submitted again until <When at={desk.reopenUntil} timeZone={desk.exchange.timeZone} exact />.
            </p>
          )}
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

/** Of a practice draft: that nothing hangs on it, and where it leads. */
function PracticeNotice({ desk }: { readonly desk: DeskView }) {
  const { practice, submittedAt, changing, editable, reviewer } = desk;
  if (practice === null) return null;
  if (practice.key && !editable && submittedAt === null) {
    return <Notice title="This key has not been submitted yet: students do not see it." />;
  }
  if (practice.key) {
    return changing ? (
      <Notice tone="waiting" title="Students go on seeing the key as it was submitted, until you submit it again.">
        Tries that were submitted before keep the closeness that they had.
      </Notice>
    ) : submittedAt === null ? (
      <Notice title="This is the key: what students see beside their own review once they have submitted it.">
        Fill in the form and leave notes as you would want them to. Whatever you leave open is not compared.
      </Notice>
    ) : null;
  }
  if (submittedAt !== null || reviewer.you !== true) return null;
  return editable ? (
    <Notice title="This is practice: no other student reads what you write here, and it counts for nothing.">
      When you submit, you see your instructor’s own review of the same draft beside yours.
    </Notice>
  ) : (
    <Notice tone="waiting" title="Practice is over: this one was not submitted.">
      What you wrote is kept and can be read here.
    </Notice>
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
