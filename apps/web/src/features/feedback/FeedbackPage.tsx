import type { FeedbackView, NoteView, PartView, PersonLabel } from '@salt-circle/contracts';
import { useCallback, useMemo, useState } from 'react';
import { Empty, Loading, Tabs } from '../../kit/index.js';
import { api } from '../../app/api.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { DraftText, type DraftLayout } from '../../app/reading/DraftText.js';
import { ReadingParts } from '../../app/viewing/ReadingParts.js';
import { MarginNotes } from '../../app/reading/MarginNotes.js';
import { NoteText } from '../../app/reading/NoteText.js';
import { When } from '../../app/time/When.js';
import { useExchange } from '../../app/useExchange.js';
import { ByCriterion, ByReviewer } from './Answers.js';

const { useFeedbackQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    feedback: build.query<FeedbackView, string>({
      query: (id) => `/exchanges/${id}/feedback`,
      providesTags: ['Feedback'],
    }),
  }),
});

/** All that an author gets: the notes on the draft, and the answers by reviewer and by criterion. */
export function FeedbackPage() {
  const exchange = useExchange();
  const { data, error } = useFeedbackQuery(exchange.id, { skip: !exchange.released, refetchOnMountOrArgChange: true });
  const at = exchange.dates.release ?? exchange.dates.reviewsDue;
  if (!exchange.released) {
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
  if (data.draft === null) {
    return (
      <div className="px-5">
        <Empty title="There is no feedback for you in this exchange.">
          <p>You did not hand in a draft, so nobody reviewed one.</p>
        </Empty>
      </div>
    );
  }
  return <Feedback feedback={data} draft={data.draft} />;
}

interface FeedbackNote extends NoteView {
  readonly by: PersonLabel;
}

function Feedback({
  feedback,
  draft,
}: {
  readonly feedback: FeedbackView;
  readonly draft: NonNullable<FeedbackView['draft']>;
}) {
  const exchange = useExchange();
  const notes = useMemo(
    () =>
      feedback.reviews
        .flatMap((review) => review.notes.map((note): FeedbackNote => ({ ...note, by: review.reviewer })))
        .sort((a, b) => a.anchor.position.start - b.anchor.position.start || (a.id < b.id ? -1 : 1)),
    [feedback.reviews],
  );
  const [layout, setLayout] = useState<DraftLayout | null>(null);
  const [activeId, setActiveId] = useState<string | null>(null);
  const [tab, setTab] = useState('reviewer');
  const onLayout = useCallback((next: DraftLayout) => setLayout(next), []);
  const gone = notes.filter(({ id }) => layout?.matches.get(id)?.found === 'gone');
  const show = (note: FeedbackNote, quoted: boolean) => (
    <NoteText
      note={note}
      by={note.by}
      match={layout?.matches.get(note.id)}
      active={note.id === activeId}
      quoted={quoted}
      onActivate={() => setActiveId(note.id)}
    />
  );
  const count = feedback.reviews.length;
  const text = (html: string, part: PartView) =>
    part.id !== draft.htmlPartId ? null : (
      <div className="@2xl:grid @2xl:grid-cols-[minmax(0,1fr)_12.5rem] @2xl:gap-6">
        <DraftText html={html} passages={notes} activeId={activeId} onActivate={setActiveId} onLayout={onLayout} />
        <aside aria-label="Notes beside your draft" className="hidden @2xl:block">
          <MarginNotes
            ids={notes.map(({ id }) => id)}
            layout={layout}
            activeId={activeId}
            render={(id) => {
              const note = notes.find((one) => one.id === id);
              return note === undefined ? null : show(note, false);
            }}
          />
        </aside>
      </div>
    );
  return (
    <div className="grid flex-1 grid-cols-1 lg:grid-cols-[3fr_2fr]">
      <section aria-label="Your draft with its notes" className="@container px-6 py-5">
        <h2 className="mb-4 font-serif text-2xl font-semibold">{draft.title}</h2>
        <ReadingParts reading={draft} exchangeId={exchange.id} renderText={text} tall />
      </section>
      <section className="border-l border-line bg-crust px-5 py-3">
        <p className="text-ink-soft">
          {count === 1 ? '1 reviewer' : `${count} reviewers`}, {notes.length === 1 ? '1 note' : `${notes.length} notes`}
          {feedback.missing > 0 &&
            `; ${feedback.missing === 1 ? '1 more review was' : `${feedback.missing} more reviews were`} not submitted`}
        </p>
        <Tabs
          label="Feedback"
          value={tab}
          onChange={setTab}
          tabs={[
            { key: 'reviewer', words: 'By reviewer', content: <ByReviewer feedback={feedback} /> },
            { key: 'criterion', words: 'By criterion', content: <ByCriterion feedback={feedback} /> },
            {
              key: 'passage',
              words: `Notes ${notes.length}`,
              content: (
                <ul className="space-y-3 py-3">
                  {gone.length > 0 && (
                    <li className="text-sm text-copper">
                      {gone.length === 1 ? 'One note is' : `${gone.length} notes are`} on a passage that your draft no
                      longer has.
                    </li>
                  )}
                  {notes.map((note) => (
                    <li key={note.id}>{show(note, true)}</li>
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
