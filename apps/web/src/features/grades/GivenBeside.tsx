import type { DeskView } from '@salt-circle/contracts';
import { useMemo } from 'react';
import { Link, useParams } from 'react-router';
import { ByReviewer } from '../../app/after/Answers.js';
import { deskAsFeedback } from '../../app/after/deskAsFeedback.js';
import { Thread } from '../../app/after/Thread.js';
import { Person } from '../../app/People.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { ReadDraft, useReadNotes, type ReadNote } from '../../app/reading/ReadDraft.js';
import { useDeskQuery } from '../../app/reviewApi.js';
import { TakeAlong } from '../../app/annotated-files/TakeAlong.js';
import { useExchange } from '../../app/useExchange.js';
import { Loading } from '../../kit/index.js';
import { say } from '../../words/grades.js';

/** A review that whoever is graded gave, on its draft. */
export function GivenBeside() {
  const { reviewId = '' } = useParams();
  const { data, error } = useDeskQuery(reviewId, { refetchOnMountOrArgChange: true });
  if (error !== undefined) return <ProblemNotice error={error} />;
  // A review that was looked at before is not shown as this one.
  return data === undefined || data.id !== reviewId ? (
    <Loading what={say('review')} />
  ) : (
    <Given key={reviewId} desk={data} />
  );
}

function Given({ desk }: { readonly desk: DeskView }) {
  const exchange = useExchange();
  const { timeZone } = exchange.course;
  const { draft, reviewer } = desk;
  const notes = useMemo(
    (): readonly ReadNote[] => desk.notes.map((note) => ({ ...note, by: reviewer })),
    [desk.notes, reviewer],
  );
  const reading = useReadNotes(draft, notes, ({ id }, alone) => (
    <Thread reviewId={desk.id} noteId={id} timeZone={timeZone} quiet={!alone} />
  ));
  const { id } = desk;
  const feedback = deskAsFeedback(desk);
  const submitted = desk.submittedAt !== null;
  return (
    <>
      <ReadDraft
        draft={draft}
        exchangeId={exchange.id}
        notes={notes}
        reading={reading}
        label={say('reviewedDraft')}
        marginLabel={say('notesOfThisReview')}
      >
        <div className="mb-3">
          <p className="text-ink-soft">
            {say('onDraftBy', {
              submitted: submitted ? 'yes' : 'no',
              author: <Person label={desk.author} />,
              late: (words) => <span className="text-madder">{words}</span>,
            })}{' '}
            <Link to={`/reviews/${id}`} className="text-dusk underline">
              {say('openItOnItsDesk')}
            </Link>
          </p>
          <div className="flex flex-wrap items-start justify-between gap-3">
            <h3 className="font-serif text-2xl font-semibold">{draft.title}</h3>
            <TakeAlong small base={`/reviews/${id}`} draft={draft} />
          </div>
        </div>
      </ReadDraft>
      <section aria-label={say('whatReviewSays')} className="border-t border-line px-6 pb-4">
        <ByReviewer
          feedback={feedback}
          timeZone={timeZone}
          asks={false}
          below={(_, itemId) => <Thread reviewId={id} itemId={itemId} timeZone={timeZone} quiet />}
        />
      </section>
    </>
  );
}
