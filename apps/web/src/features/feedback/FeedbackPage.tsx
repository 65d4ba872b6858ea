import type { DecisionsView, DraftReading, FeedbackView, ReviewFileCard } from '@salt-circle/contracts';
import { listed } from '@salt-circle/core';
import { decisionKey, type AnchorMatch } from '@salt-circle/core';
import { useEffect, useMemo, useState } from 'react';
import { Empty, Loading, Select, Tabs } from '../../kit/index.js';
import { Adopt, AdoptAll } from '../../app/after/Adopt.js';
import { useDecisionsQuery, useFeedbackQuery, useReadFeedbackMutation } from '../../app/after/afterApi.js';
import { Decide } from '../../app/after/Decide.js';
import { Thread } from '../../app/after/Thread.js';
import { PleaseLook } from '../../app/moderation/PleaseLook.js';
import { RemarkFiles } from '../../app/remarks/RemarkFiles.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { inPlace, ReadDraft, useReadNotes, type ReadNote, type ReadNotes } from '../../app/reading/ReadDraft.js';
import { When } from '../../app/time/When.js';
import { useViewAs } from '../../app/view-as/useViewAs.js';
import { TakeAlong } from '../../app/annotated-files/TakeAlong.js';
import { useExchange } from '../../app/useExchange.js';
import { usePrinting } from '../../app/usePrinting.js';
import { ByCriterion, ByReviewer } from '../../app/after/Answers.js';
import { Versions } from '../../app/after/Versions.js';
import { decisionOf, figuresOf, remarksOf } from './remarks.js';
import { Summary } from './Summary.js';
import { ToDecide } from './ToDecide.js';
import { say } from '../../words/feedback.js';

/** All that an author gets: the notes on the draft, and the answers by reviewer and by criterion. */
export function FeedbackPage() {
  const exchange = useExchange();
  const { data, error } = useFeedbackQuery(exchange.id, {
    skip: !exchange.feedbackOpen,
    refetchOnMountOrArgChange: true,
  });
  const [read] = useReadFeedbackMutation();
  const seen = useViewAs() !== null;
  const there = data !== undefined && data.reviews.length > 0 && !seen;
  useEffect(() => {
    if (there) void read(exchange.id);
  }, [there, read, exchange.id]);
  const at = exchange.dates.release ?? exchange.dates.reviewsDue;
  if (exchange.feedbackHeld) {
    return (
      <div className="px-5">
        <Empty title={say('yourFeedbackHasNotBeen')}>
          <p>{say('thatOfOthersHasYour')}</p>
        </Empty>
      </div>
    );
  }
  if (!exchange.feedbackOpen) {
    return (
      <div className="px-5">
        <Empty title={say('feedbackHasNotBeenReleased')}>
          <p>
            {at === null
              ? say('readItHereLater')
              : say('youWillReadItHere', { when: <When at={at} timeZone={exchange.course.timeZone} /> })}
          </p>
        </Empty>
      </div>
    );
  }
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what={say('yourFeedback')} />;
  const [first] = data.drafts;
  if (first === undefined) {
    return (
      <div className="px-5">
        <Empty title={say('thereIsNoFeedbackFor')}>
          <p>{say('youDidNotHandIn')}</p>
        </Empty>
      </div>
    );
  }
  return (
    <Versions feedback={data} first={first}>
      {(of, draft, version) => <Feedback feedback={of} draft={draft} version={version} />}
    </Versions>
  );
}

interface FeedbackNote extends ReadNote {
  readonly reviewId: string;
  readonly self: boolean;
  readonly files: readonly ReviewFileCard[];
}

/** The notes of all reviewers, in the order of their places. */
function useNotes({ parts }: DraftReading, reviews: FeedbackView['reviews']): readonly FeedbackNote[] {
  return useMemo(
    () =>
      inPlace(
        parts,
        reviews.flatMap((review) =>
          review.notes.map((note): FeedbackNote => ({
            ...note,
            by: review.reviewer,
            reviewId: review.id,
            self: review.self,
            files: review.files.filter(({ noteId }) => noteId === note.id),
          })),
        ),
      ),
    [parts, reviews],
  );
}

interface FeedbackProps {
  readonly feedback: FeedbackView;
  readonly draft: DraftReading;
  /** Said beside the counts, where there is more than one. */
  readonly version: number | null;
}

function Feedback({ feedback, draft, version }: FeedbackProps) {
  const exchange = useExchange();
  const notes = useNotes(draft, feedback.reviews);
  const [tab, setTab] = useState('reviewer');
  const printing = usePrinting();
  const [order, setOrder] = useState<'place' | 'kind' | 'reviewer'>('place');
  const { timeZone } = exchange.course;
  const viewAs = useViewAs() !== null;
  const { data: decisions } = useDecisionsQuery(exchange.id);
  const rivals = (note: FeedbackNote) => overlapping(note, notes, reading.annotation.match);
  const deciding = (key: string, note: FeedbackNote | null) =>
    viewAs ? null : (
      <Decide exchangeId={exchange.id} of={key} decision={decisionOf(decisions, key)}>
        {note !== null && note.edit !== null && decisions !== undefined && (
          <Adopt exchangeId={exchange.id} noteId={note.id} decisions={decisions} rivals={rivals(note)} />
        )}
      </Decide>
    );
  /** Answering, deciding and asking for a look stand where there is room for them. */
  const reading: ReadNotes<FeedbackNote> = useReadNotes(draft, notes, (note, alone) => (
    <>
      <RemarkFiles reviewId={note.reviewId} files={note.files} />
      {alone && !note.self && (
        <>
          {note.kind !== 'keep' && deciding(decisionKey({ kind: 'note', noteId: note.id }), note)}
          <Thread reviewId={note.reviewId} noteId={note.id} timeZone={timeZone} />
          <PleaseLook reviewId={note.reviewId} noteId={note.id} timeZone={timeZone} />
        </>
      )}
    </>
  ));
  const remarks = remarksOf(feedback, notes);
  const figures = figuresOf(remarks, decisions);
  const open = remarks.filter(({ key }) => {
    const { decision = null } = decisionOf(decisions, key) ?? {};
    return decision === null || decision === 'not-sure';
  });
  const gone = notes.filter(({ id }) => reading.annotation.match(id)?.found === 'gone');
  const count = feedback.reviews.length;
  return (
    <div className="grid flex-1 grid-cols-1 lg:grid-cols-[3fr_2fr]">
      <ReadDraft
        draft={draft}
        exchangeId={exchange.id}
        notes={notes}
        reading={reading}
        label={say('yourDraftWithItsNotes')}
        marginLabel={say('notesBesideYourDraft')}
      >
        <div className="mb-4 flex flex-wrap items-start justify-between gap-3">
          <h2 className="font-serif text-2xl font-semibold">{draft.title}</h2>
          {!viewAs && <TakeAlong small base={`/exchanges/${exchange.id}/feedback`} draft={draft} />}
        </div>
      </ReadDraft>
      <section className="border-l border-line bg-crust px-5 py-3">
        <p className="text-ink-soft">
          {listed(
            [
              whoseWords(feedback.reviews),
              version === null
                ? say('notes', { notes: notes.length })
                : say('notesOnVersion', { notes: notes.length, version }),
              ...(feedback.missing > 0 ? [say('moreReviewsWere', { missing: feedback.missing })] : []),
              ...(figures.remarks > 0 ? [say('remarks', figures)] : []),
            ],
            'comma',
          )}
        </p>
        <Summary feedback={feedback} />
        <Tabs
          label={say('feedback')}
          all={printing}
          value={tab}
          onChange={setTab}
          tabs={[
            {
              key: 'reviewer',
              words: say('byReviewer'),
              content: (
                <ByReviewer
                  feedback={feedback}
                  timeZone={timeZone}
                  asks
                  below={(review, itemId) =>
                    review.self || (review.answers[itemId]?.next ?? '').trim() === ''
                      ? null
                      : deciding(decisionKey({ kind: 'next', reviewId: review.id, itemId }), null)
                  }
                />
              ),
            },
            { key: 'criterion', words: say('byCriterion'), content: <ByCriterion feedback={feedback} /> },
            {
              key: 'passage',
              words: say('notesOf', { notes: notes.length }),
              content: (
                <ul className="space-y-3 py-3">
                  {notes.length > 1 && (
                    <li className="no-print">
                      <Select
                        label={say('inOrderOf')}
                        value={order}
                        options={ordersOfNotes()}
                        onChange={(value) => setOrder(value as typeof order)}
                      />
                    </li>
                  )}
                  {decisions?.mayAdopt === true && !viewAs && (
                    <li>
                      <AdoptAll exchangeId={exchange.id} noteIds={adoptable(notes, decisions, rivals)} />
                    </li>
                  )}
                  {gone.length > 0 && (
                    <li className="text-sm text-copper">{say('notesAreOnPassageThat', { gone: gone.length })}</li>
                  )}
                  {inOrder(notes, order).map((note) => (
                    <li key={note.id}>{reading.show(note, true)}</li>
                  ))}
                </ul>
              ),
            },
            {
              key: 'decide',
              words: say('toDecide', { open: open.length }),
              content: (
                <ToDecide
                  open={open}
                  all={remarks.length}
                  show={(id) => {
                    const note = notes.find((one) => one.id === id);
                    return note === undefined ? null : reading.show(note, true);
                  }}
                  decide={(key) => deciding(key, null)}
                />
              ),
            },
          ]}
        />
        {count === 0 && (
          <Empty title={say('noReviewOfYourDraft')}>
            <p>{say('talkToYourInstructorThey')}</p>
          </Empty>
        )}
      </section>
    </div>
  );
}

function whoseWords(reviews: FeedbackView['reviews']): string {
  const others = reviews.filter(({ self }) => !self);
  const staff = others.filter(({ reviewer }) => reviewer.role !== undefined).length;
  return listed(
    [
      say('reviewers', { others: others.length - staff }),
      ...(staff === 0 ? [] : [say('reviewsByStaff', { staff })]),
      ...(reviews.length > others.length ? [say('yourSelfReview')] : []),
    ],
    'comma',
  );
}

const ordersOfNotes = () =>
  [
    ['place', say('draft')],
    ['kind', say('theirKinds')],
    ['reviewer', say('theirReviewers')],
  ] as const;
const KINDS = ['change', 'fix', 'ask', 'keep'] as const;

function inOrder(
  notes: readonly FeedbackNote[],
  order: ReturnType<typeof ordersOfNotes>[number][0],
): readonly FeedbackNote[] {
  if (order === 'place') return notes;
  const rank = ({ kind, reviewId }: FeedbackNote) => (order === 'kind' ? String(KINDS.indexOf(kind)) : reviewId);
  return notes.toSorted((a, b) => (rank(a) < rank(b) ? -1 : rank(a) > rank(b) ? 1 : 0));
}

/** Edits that can be put in together: not yet, and without another one of the same words. */
function adoptable(
  notes: readonly FeedbackNote[],
  { adoptions }: DecisionsView,
  rivals: (note: FeedbackNote) => number,
): readonly string[] {
  return notes
    .filter((note) => note.edit !== null && !note.self && note.place.selector.type === 'text')
    .filter((note) => !adoptions.some(({ noteId }) => noteId === note.id) && rivals(note) === 0)
    .map(({ id }) => id);
}

/** How many other notes propose something for the same words. */
function overlapping(
  { id, place }: FeedbackNote,
  notes: readonly FeedbackNote[],
  match: (id: string) => AnchorMatch | undefined,
): number {
  const rangeOf = (of: string) => {
    const found = match(of);
    return found === undefined || found.found === 'gone' ? null : found.range;
  };
  const mine = rangeOf(id);
  if (mine === null) return 0;
  return notes.filter((other) => {
    const range =
      other.id === id || other.edit === null || other.place.partId !== place.partId ? null : rangeOf(other.id);
    return range !== null && range.start < mine.end && mine.start < range.end;
  }).length;
}
