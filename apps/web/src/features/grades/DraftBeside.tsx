import type { DraftFeedbackView, DraftReading } from '@salt-circle/contracts';
import { useMemo, useState } from 'react';
import { useParams } from 'react-router';
import { ByCriterion, ByReviewer } from '../../app/after/Answers.js';
import { Thread } from '../../app/after/Thread.js';
import { Versions } from '../../app/after/Versions.js';
import { useDraftFeedbackQuery } from '../../app/moderation/checkApi.js';
import { keptOf } from '../../app/moderation/keptOf.js';
import { labelWords } from '../../app/People.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { inPlace, ReadDraft, useReadNotes, type ReadNote } from '../../app/reading/ReadDraft.js';
import { TakeAlong } from '../../app/annotated-files/TakeAlong.js';
import { useExchange } from '../../app/useExchange.js';
import { usePrinting } from '../../app/usePrinting.js';
import { Empty, Loading, Tabs } from '../../kit/index.js';
import { useGradesQuery } from './gradesApi.js';
import { say } from '../../words/grades.js';

/** The draft of whoever is graded, with everything that was written about it. */
export function DraftBeside() {
  const exchange = useExchange();
  const { participantId = '' } = useParams();
  const { data: grades } = useGradesQuery(exchange.id);
  const draftId = grades?.rows.find(({ id }) => id === participantId)?.draftId ?? null;
  const { data, error } = useDraftFeedbackQuery(
    { exchangeId: exchange.id, draftId: draftId ?? '' },
    { skip: draftId === null, refetchOnMountOrArgChange: true },
  );
  if (draftId === null) {
    return (
      <div className="px-6">
        <Empty title={say('nothingWasHandedIn')}>
          <p>{say('whatThisPersonReviewedStands')}</p>
        </Empty>
      </div>
    );
  }
  if (error !== undefined) return <ProblemNotice error={error} />;
  const [draft] = data?.drafts ?? [];
  return data === undefined || draft === undefined ? (
    <Loading what={say('draft')} />
  ) : (
    <Versions key={draftId} feedback={data} first={draft}>
      {(of, read, version) => <Written feedback={of} draft={read} version={version} />}
    </Versions>
  );
}

interface WrittenProps {
  readonly feedback: DraftFeedbackView;
  readonly draft: DraftReading;
  /** Said beside the count, where there is more than one. */
  readonly version: number | null;
}

function Written({ feedback, draft, version }: WrittenProps) {
  const exchange = useExchange();
  const { timeZone } = exchange.course;
  const notes = useMemo(
    (): ReadonlyArray<ReadNote & { readonly reviewId: string }> =>
      inPlace(
        draft.parts,
        feedback.reviews.flatMap((review) =>
          review.notes.map((note) => ({ ...note, by: review.reviewer, reviewId: review.id })),
        ),
      ),
    [draft.parts, feedback.reviews],
  );
  const reading = useReadNotes(draft, notes, ({ id, reviewId }, alone) => (
    <>
      <Kept reason={keptOf(feedback, reviewId, 'note', id) ?? keptOf(feedback, reviewId, 'review')} />
      <Thread reviewId={reviewId} noteId={id} timeZone={timeZone} quiet={!alone} />
    </>
  ));
  const [tab, setTab] = useState('criterion');
  const printing = usePrinting();
  return (
    <>
      <ReadDraft
        draft={draft}
        exchangeId={exchange.id}
        notes={notes}
        reading={reading}
        label={say('draftWithAllNotes')}
        marginLabel={say('notes')}
      >
        <div className="mb-3 flex flex-wrap items-start justify-between gap-3">
          <h3 className="font-serif text-2xl font-semibold">{draft.title}</h3>
          <TakeAlong small base={`/exchanges/${exchange.id}/drafts/${draft.draftId}/feedback`} draft={draft} />
        </div>
      </ReadDraft>
      <section aria-label={say('reviewsOfDraft')} className="border-t border-line px-6 py-4">
        <h3 className="text-lg font-semibold">
          {version === null
            ? say('reviews', { reviews: feedback.reviews.length })
            : say('reviewsOnVersion', { reviews: feedback.reviews.length, version })}{' '}
          {feedback.missing > 0 && (
            <span className="text-base font-normal text-ink-soft">
              {say('moreNotSubmitted', { missing: feedback.missing })}
            </span>
          )}
        </h3>
        {feedback.reviews.map(({ id, reviewer }) => {
          const reason = keptOf(feedback, id, 'review');
          return reason === undefined ? null : (
            <p key={id} className="text-sm text-madder">
              {say('reviewByIsKeptFrom', { labelWords: labelWords(reviewer), reason })}
            </p>
          );
        })}
        {feedback.reviews.length > 0 && (
          <Tabs
            label={say('reviewsOfDraft')}
            all={printing}
            value={tab}
            onChange={setTab}
            tabs={[
              { key: 'criterion', words: say('byCriterion'), content: <ByCriterion feedback={feedback} /> },
              {
                key: 'reviewer',
                words: say('byReviewer'),
                content: (
                  <ByReviewer
                    feedback={feedback}
                    timeZone={timeZone}
                    asks={false}
                    below={({ id }, itemId) => (
                      <>
                        <Kept reason={keptOf(feedback, id, 'answer', itemId)} />
                        <Thread reviewId={id} itemId={itemId} timeZone={timeZone} quiet />
                      </>
                    )}
                  />
                ),
              },
            ]}
          />
        )}
      </section>
    </>
  );
}

function Kept({ reason }: { readonly reason: string | undefined }) {
  if (reason === undefined) return null;
  return <p className="text-sm text-madder">{say('keptFromAuthor', { reason })}</p>;
}
