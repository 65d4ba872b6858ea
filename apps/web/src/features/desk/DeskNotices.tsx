import { When } from '../../app/time/When.js';
import type { DeskView } from '@salt-circle/contracts';
import { Notice } from '../../kit/index.js';
import type { Notes } from './notes/useNotes.js';
import { say } from '../../words/desk.js';

/** What a reviewer should know before writing on. */
export function DeskNotices({ desk }: { readonly desk: DeskView }) {
  const { editable, submittable, submittedAt, changing, reviewer, overtaken, draft } = desk;
  const own = reviewer.you === true;
  if (desk.practice !== null) return <PracticeNotice desk={desk} />;
  return (
    <>
      {desk.voice !== null && own && editable && (
        <Notice title={say('thisIsReviewUnderYour')}>{say('onceYouSubmitItIts')}</Notice>
      )}
      {!editable && own && submittedAt === null && (
        <Notice tone="waiting" title={say('reviewsAreOverThisOne')}>
          {say('whatYouWroteIsKept')}
        </Notice>
      )}
      {changing && own && desk.reopenReason !== null && (
        <Notice tone="waiting" title={say('yourInstructorHasReopenedThis')}>
          <p className="whitespace-pre-wrap">{desk.reopenReason}</p>
          {desk.reopenUntil !== null && (
            <p>
              {say('itCanBeSubmittedAgain', {
                when: <When at={desk.reopenUntil} timeZone={desk.exchange.timeZone} exact />,
              })}
            </p>
          )}
        </Notice>
      )}
      {changing && own && (
        <Notice tone="waiting" title={say('yourSubmittedReviewCounts')}>
          {submittable ? say('whatYouChangeCountsOnce') : say('whatYouChangedSinceWas')}
        </Notice>
      )}
      {editable && !submittable && !changing && (
        <Notice tone="waiting" title={say('reviewsHaveFallenDueSo')}>
          {say('whatYouStillWriteIs')}
        </Notice>
      )}
      {editable && overtaken && (
        <Notice tone="plain" title={say('youGoOnWithVersion', { version: draft.version })}>
          {say('authorHasHandedInAnother')}
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
    return <Notice title={say('thisKeyHasNotBeen')} />;
  }
  if (practice.key) {
    return changing ? (
      <Notice tone="waiting" title={say('studentsGoOnSeeingKey')}>
        {say('triesThatWereSubmittedBefore')}
      </Notice>
    ) : submittedAt === null ? (
      <Notice title={say('thisIsKeyWhatStudents')}>{say('fillInFormAndLeave')}</Notice>
    ) : null;
  }
  if (submittedAt !== null || reviewer.you !== true) return null;
  return editable ? (
    <Notice title={say('thisIsPracticeNoOther')}>{say('whenYouSubmitYouSee')}</Notice>
  ) : (
    <Notice tone="waiting" title={say('practiceIsOverThisOne')}>
      {say('whatYouWroteIsKept')}
    </Notice>
  );
}

/** A removed note can be brought back. */
export function NoteRemoved({ notes }: { readonly notes: Notes }) {
  if (notes.removed === null) return null;
  return (
    <p className="border-t border-line px-5 py-2" role="status">
      {say('noteRemovedBringItBack', {
        button: (words) => (
          <button type="button" onClick={notes.bringBack} className="text-dusk underline">
            {words}
          </button>
        ),
      })}
    </p>
  );
}
