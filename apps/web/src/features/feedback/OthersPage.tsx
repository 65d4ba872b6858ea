import type { DraftReading, FeedbackView } from '@salt-circle/contracts';
import { useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { useOthersQuery } from '../../app/after/afterApi.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { inPlace, ReadDraft, useReadNotes, type ReadNote } from '../../app/reading/ReadDraft.js';
import { useExchange } from '../../app/useExchange.js';
import { Empty, Loading, Tabs } from '../../kit/index.js';
import { ByCriterion, ByReviewer } from '../../app/after/Answers.js';
import { say } from '../../words/feedback.js';

/** For a reviewer: what others wrote about the draft that one reviewed. */
export function OthersPage() {
  const { reviewId = '' } = useParams();
  const exchange = useExchange();
  const { data, error } = useOthersQuery(reviewId, { refetchOnMountOrArgChange: true });
  if (error !== undefined) return <ProblemNotice error={error} />;
  const [draft] = data?.drafts ?? [];
  if (data === undefined || draft === undefined) return <Loading what={say('otherReviews')} />;
  return (
    <>
      <p className="px-6 pt-4 text-ink-soft">
        <Link to={`/exchanges/${exchange.id}/review`} className="text-dusk underline">
          {say('yourReviews')}
        </Link>{' '}
        / {say('reviewsByOthers', { reviews: data.reviews.length })}
      </p>
      {data.reviews.length === 0 ? (
        <div className="px-6">
          <Empty title={say('nobodyElseReviewedThisDraft')} />
        </div>
      ) : (
        <Others others={data} draft={draft} />
      )}
    </>
  );
}

function Others({ others, draft }: { readonly others: FeedbackView; readonly draft: DraftReading }) {
  const exchange = useExchange();
  const notes = useMemo(
    (): readonly ReadNote[] =>
      inPlace(
        draft.parts,
        others.reviews.flatMap((review) => review.notes.map((note) => ({ ...note, by: review.reviewer }))),
      ),
    [draft.parts, others.reviews],
  );
  const reading = useReadNotes(draft, notes);
  const [tab, setTab] = useState('reviewer');
  return (
    <div className="grid flex-1 grid-cols-1 lg:grid-cols-[3fr_2fr]">
      <ReadDraft
        draft={draft}
        exchangeId={exchange.id}
        notes={notes}
        reading={reading}
        label={say('draftWithNotesOfOthers')}
        marginLabel={say('notesOfOthers')}
      />
      <section className="border-l border-line bg-crust px-5 py-3">
        <Tabs
          label={say('reviewsByOthersLabel')}
          value={tab}
          onChange={setTab}
          tabs={[
            {
              key: 'reviewer',
              words: say('byReviewer'),
              content: <ByReviewer feedback={others} timeZone={exchange.course.timeZone} asks={false} />,
            },
            { key: 'criterion', words: say('byCriterion'), content: <ByCriterion feedback={others} /> },
          ]}
        />
      </section>
    </div>
  );
}
