import type { DraftFeedbackView, DraftReading } from '@salt-circle/contracts';
import { counted } from '@salt-circle/core';
import { useMemo, useState } from 'react';
import { useParams } from 'react-router';
import { ByCriterion, ByReviewer } from '../../app/after/Answers.js';
import { Thread } from '../../app/after/Thread.js';
import { Versions } from '../../app/after/Versions.js';
import { useDraftFeedbackQuery } from '../../app/check/checkApi.js';
import { keptOf } from '../../app/check/keptOf.js';
import { labelWords } from '../../app/People.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { inPlace, ReadDraft, useReadNotes, type ReadNote } from '../../app/reading/ReadDraft.js';
import { TakeAlong } from '../../app/marked/TakeAlong.js';
import { useExchange } from '../../app/useExchange.js';
import { usePrinting } from '../../app/usePrinting.js';
import { Empty, Loading, Tabs } from '../../kit/index.js';
import { useGradesQuery } from './gradesApi.js';

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
        <Empty title="Nothing was handed in.">
          <p>What this person reviewed stands beside, where there is something.</p>
        </Empty>
      </div>
    );
  }
  if (error !== undefined) return <ProblemNotice error={error} />;
  const [draft] = data?.drafts ?? [];
  return data === undefined || draft === undefined ? (
    <Loading what="the draft" />
  ) : (
    <Versions key={draftId} feedback={data} first={draft}>
      {(of, version, where) => <Written feedback={of} draft={version} where={where} />}
    </Versions>
  );
}

interface WrittenProps {
  readonly feedback: DraftFeedbackView;
  readonly draft: DraftReading;
  /** Said beside the count, where there is more than one version. */
  readonly where: string;
}

function Written({ feedback, draft, where }: WrittenProps) {
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
        label="The draft with all notes"
        marginLabel="Notes"
      >
        <div className="mb-3 flex flex-wrap items-start justify-between gap-3">
          <h3 className="font-serif text-2xl font-semibold">{draft.title}</h3>
          <TakeAlong small base={`/exchanges/${exchange.id}/drafts/${draft.draftId}/feedback`} draft={draft} />
        </div>
      </ReadDraft>
      <section aria-label="Reviews of the draft" className="border-t border-line px-6 py-4">
        <h3 className="text-lg font-semibold">
          {counted(feedback.reviews.length, '1 review', '# reviews')}
          {where}
          {feedback.missing > 0 && (
            <span className="text-base font-normal text-ink-soft">
              , {counted(feedback.missing, '1 more not submitted', '# more not submitted')}
            </span>
          )}
        </h3>
        {feedback.reviews.map(({ id, reviewer }) => {
          const reason = keptOf(feedback, id, 'review');
          return reason === undefined ? null : (
            <p key={id} className="text-sm text-madder">
              The review by {labelWords(reviewer)} is kept from the author: {reason}
            </p>
          );
        })}
        {feedback.reviews.length > 0 && (
          <Tabs
            label="Reviews of the draft"
            all={printing}
            value={tab}
            onChange={setTab}
            tabs={[
              { key: 'criterion', words: 'By criterion', content: <ByCriterion feedback={feedback} /> },
              {
                key: 'reviewer',
                words: 'By reviewer',
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
  return <p className="text-sm text-madder">Kept from the author: {reason}</p>;
}
