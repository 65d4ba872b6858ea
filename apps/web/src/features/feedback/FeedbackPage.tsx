import type { DraftReading, FeedbackView, ReviewFileCard } from '@salt-circle/contracts';
import { counted, comparePlaces } from '@salt-circle/core';
import { useEffect, useMemo, useState } from 'react';
import { Empty, Loading, Tabs } from '../../kit/index.js';
import { api } from '../../app/api.js';
import { PleaseLook } from '../../app/check/PleaseLook.js';
import { RemarkFiles } from '../../app/remarks/RemarkFiles.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { ReadDraft, useReadNotes, type ReadNote } from '../../app/reading/ReadDraft.js';
import { When } from '../../app/time/When.js';
import { useSeeing } from '../../app/seeing/useSeeing.js';
import { useExchange } from '../../app/useExchange.js';
import { ByCriterion, ByReviewer } from './Answers.js';

const { useFeedbackQuery, useReadFeedbackMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    feedback: build.query<FeedbackView, string>({
      query: (id) => `/exchanges/${id}/feedback`,
      providesTags: ['Feedback'],
    }),
    readFeedback: build.mutation<null, string>({
      query: (id) => ({ url: `/exchanges/${id}/feedback/read`, method: 'POST' }),
      invalidatesTags: ['Today'],
    }),
  }),
});

/** All that an author gets: the notes on the draft, and the answers by reviewer and by criterion. */
export function FeedbackPage() {
  const exchange = useExchange();
  const { data, error } = useFeedbackQuery(exchange.id, {
    skip: !exchange.feedbackOpen,
    refetchOnMountOrArgChange: true,
  });
  const [read] = useReadFeedbackMutation();
  const seen = useSeeing() !== null;
  const there = data !== undefined && data.reviews.length > 0 && !seen;
  useEffect(() => {
    if (there) void read(exchange.id);
  }, [there, read, exchange.id]);
  const at = exchange.dates.release ?? exchange.dates.reviewsDue;
  if (exchange.feedbackHeld) {
    return (
      <div className="px-5">
        <Empty title="Your feedback has not been released yet.">
          <p>That of others has. Your instructor releases yours later; you will find it here and in Today.</p>
        </Empty>
      </div>
    );
  }
  if (!exchange.feedbackOpen) {
    return (
      <div className="px-5">
        <Empty title="Feedback has not been released yet.">
          <p>You will read it here {at !== null && <When at={at} timeZone={exchange.course.timeZone} />}.</p>
        </Empty>
      </div>
    );
  }
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what="your feedback" />;
  const [first] = data.drafts;
  if (first === undefined) {
    return (
      <div className="px-5">
        <Empty title="There is no feedback for you in this exchange.">
          <p>You did not hand in a draft, so nobody reviewed one.</p>
        </Empty>
      </div>
    );
  }
  return <Versions feedback={data} first={first} />;
}

/**
 * Reviews are of one version, unless another one was handed in while some had begun: then all that is shown is of the version that
 * is chosen, text and reviews alike.
 */
function Versions({ feedback, first }: { readonly feedback: FeedbackView; readonly first: DraftReading }) {
  const { drafts, reviews } = feedback;
  const [chosen, setChosen] = useState<number | null>(null);
  const draft = drafts.find(({ version }) => version === chosen) ?? first;
  const of = (version: number) => reviews.filter((review) => review.version === version);
  return (
    <>
      {drafts.length > 1 && (
        <div role="group" aria-label="Versions that were reviewed" className="flex flex-wrap gap-1.5 px-6 pt-4">
          {drafts.map(({ version }) => (
            <button
              key={version}
              type="button"
              aria-pressed={version === draft.version}
              onClick={() => setChosen(version)}
              className="rounded border border-edge bg-paper px-2.5 py-1 text-sm aria-pressed:border-iodine aria-pressed:bg-crust aria-pressed:font-semibold"
            >
              Version {version}{' '}
              <span className="font-normal text-ink-soft">{counted(of(version).length, '1 review', '# reviews')}</span>
            </button>
          ))}
        </div>
      )}
      <Feedback
        key={draft.version}
        feedback={{ ...feedback, reviews: of(draft.version) }}
        draft={draft}
        where={drafts.length > 1 ? ` on version ${draft.version}` : ''}
      />
    </>
  );
}

interface FeedbackNote extends ReadNote {
  readonly reviewId: string;
  readonly files: readonly ReviewFileCard[];
}

/** The notes of all reviewers, in the order of their places. */
function useNotes({ parts }: DraftReading, reviews: FeedbackView['reviews']): readonly FeedbackNote[] {
  return useMemo(() => {
    const byPlace = comparePlaces(parts.map(({ id }) => id));
    return reviews
      .flatMap((review) =>
        review.notes.map((note): FeedbackNote => ({
          ...note,
          by: review.reviewer,
          reviewId: review.id,
          files: review.files.filter(({ noteId }) => noteId === note.id),
        })),
      )
      .sort((a, b) => byPlace(a.place, b.place) || (a.id < b.id ? -1 : 1));
  }, [parts, reviews]);
}

interface FeedbackProps {
  readonly feedback: FeedbackView;
  readonly draft: DraftReading;
  /** Said beside the counts, where there is more than one version. */
  readonly where: string;
}

function Feedback({ feedback, draft, where }: FeedbackProps) {
  const exchange = useExchange();
  const notes = useNotes(draft, feedback.reviews);
  const [tab, setTab] = useState('reviewer');
  /** Asking for a look stands where there is room for it. */
  const reading = useReadNotes(draft, notes, (note, alone) => (
    <>
      <RemarkFiles reviewId={note.reviewId} files={note.files} />
      {alone && <PleaseLook reviewId={note.reviewId} noteId={note.id} timeZone={exchange.course.timeZone} />}
    </>
  ));
  const gone = notes.filter(({ id }) => reading.annotation.match(id)?.found === 'gone');
  const count = feedback.reviews.length;
  return (
    <div className="grid flex-1 grid-cols-1 lg:grid-cols-[3fr_2fr]">
      <ReadDraft
        draft={draft}
        exchangeId={exchange.id}
        notes={notes}
        reading={reading}
        label="Your draft with its notes"
        marginLabel="Notes beside your draft"
      >
        <h2 className="mb-4 font-serif text-2xl font-semibold">{draft.title}</h2>
      </ReadDraft>
      <section className="border-l border-line bg-crust px-5 py-3">
        <p className="text-ink-soft">
          {counted(count, '1 reviewer', '# reviewers')}, {counted(notes.length, '1 note', '# notes')}
          {where}
          {feedback.missing > 0 &&
            `; ${counted(feedback.missing, '1 more review was', '# more reviews were')} not submitted`}
        </p>
        <Tabs
          label="Feedback"
          value={tab}
          onChange={setTab}
          tabs={[
            {
              key: 'reviewer',
              words: 'By reviewer',
              content: <ByReviewer feedback={feedback} timeZone={exchange.course.timeZone} asks />,
            },
            { key: 'criterion', words: 'By criterion', content: <ByCriterion feedback={feedback} /> },
            {
              key: 'passage',
              words: `Notes ${notes.length}`,
              content: (
                <ul className="space-y-3 py-3">
                  {gone.length > 0 && (
                    <li className="text-sm text-copper">
                      {counted(gone.length, 'One note is', '# notes are')} on a passage that your draft no longer has.
                    </li>
                  )}
                  {notes.map((note) => (
                    <li key={note.id}>{reading.show(note, true)}</li>
                  ))}
                </ul>
              ),
            },
          ]}
        />
        {count === 0 && (
          <Empty title="No review of your draft was submitted.">
            <p>Talk to your instructor: they may be able to read it themselves.</p>
          </Empty>
        )}
      </section>
    </div>
  );
}
