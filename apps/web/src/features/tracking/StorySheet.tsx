import type { ProgressRow, StoryEvent, StoryView } from '@salt-circle/contracts';
import { Link } from 'react-router';
import { api } from '../../app/api.js';
import { Steps } from '../../app/boards/Steps.js';
import { labelWords, Person } from '../../app/People.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { When } from '../../app/time/When.js';
import { useExchange } from '../../app/useExchange.js';
import { Loading, Sheet } from '../../kit/index.js';
import { say } from '../../words/tracking.js';
import { changedHere } from '../../app/changes/freshness.js';

const { useStoryQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    story: build.query<StoryView, { exchangeId: string; id: string }>({
      query: ({ exchangeId, id }) => `/exchanges/${exchangeId}/participants/${id}/story`,
      providesTags: changedHere(['Progress'], 'drafts', 'reviews'),
    }),
  }),
});

interface StorySheetProps {
  /** As they are listed: previous and next go by it. */
  readonly rows: readonly ProgressRow[];
  readonly id: string;
  readonly onShow: (id: string) => void;
  readonly onClose: () => void;
}

/** One person’s whole story in this exchange, beside the board. */
export function StorySheet({ rows, id, onShow, onClose }: StorySheetProps) {
  const exchange = useExchange();
  const { data, error } = useStoryQuery({ exchangeId: exchange.id, id }, { refetchOnMountOrArgChange: true });
  const row = rows.find((one) => one.id === id);
  return (
    <Sheet
      onClose={onClose}
      title={row === undefined ? say('story') : <Person label={row.person} />}
      aside={<Steps rows={rows} id={id} onShow={onShow} />}
    >
      {error !== undefined ? (
        <ProblemNotice error={error} />
      ) : data === undefined ? (
        <Loading what={say('storyWord')} />
      ) : data.events.length === 0 ? (
        <p className="text-ink-soft">{say('nothingHasHappenedYet')}</p>
      ) : (
        <ol className="space-y-2 border-l border-line pl-3">
          {data.events.map((event, index) => (
            <li key={index}>
              <p className="text-sm text-ink-soft">
                <When at={event.at} timeZone={exchange.course.timeZone} exact />
              </p>
              {event.to === null ? (
                storyWords(event)
              ) : (
                <Link to={event.to} className="text-ink underline decoration-line underline-offset-4">
                  {storyWords(event)}
                </Link>
              )}
            </li>
          ))}
        </ol>
      )}
    </Sheet>
  );
}

/** What happened, in one sentence. */
export function storyWords({ kind, number, about, words }: StoryEvent): string {
  const whom = about === null ? '' : labelWords(about);
  switch (kind) {
    case 'handed-in':
      return say('handedInVersionOfDraft', { number: number ?? 0 });
    case 'withdrawn':
      return say('tookVersionBack', { number: number ?? 0 });
    case 'allocated':
      return say('wasToldToReviewDraft', { whom });
    case 'begun':
      return say('beganReviewOf', { whom });
    case 'submitted':
      return say('submittedReviewOf', { whom });
    case 'reopened':
      return say('reviewOfWasReopened', { whom });
    case 'received':
      return say('submittedReviewOfThisDraft', { whom });
    case 'told':
      return say('wasToldOfFeedback');
    case 'read':
      return say('readFeedback');
    case 'answered':
      return say('answeredInReview');
    case 'rated':
      return say('saidHowReviewHelped');
    case 'asked':
      return say('askedForLookAtReview');
    case 'reflected':
      return say('handedInReflection');
    case 'revision':
      return say('handedInRevisionVersion', { number: number ?? 0 });
    case 'mailed':
      return say('gotMail', { words: words ?? '' });
  }
}
