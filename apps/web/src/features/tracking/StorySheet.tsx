import type { ProgressRow, StoryEvent, StoryView } from '@salt-circle/contracts';
import { Link } from 'react-router';
import { api } from '../../app/api.js';
import { Steps } from '../../app/boards/Steps.js';
import { labelWords, Person } from '../../app/People.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { When } from '../../app/time/When.js';
import { useExchange } from '../../app/useExchange.js';
import { Loading, Sheet } from '../../kit/index.js';

const { useStoryQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    story: build.query<StoryView, { exchangeId: string; id: string }>({
      query: ({ exchangeId, id }) => `/exchanges/${exchangeId}/participants/${id}/story`,
      providesTags: ['Progress'],
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
      title={row === undefined ? 'Story' : <Person label={row.person} />}
      aside={<Steps rows={rows} id={id} onShow={onShow} />}
    >
      {error !== undefined ? (
        <ProblemNotice error={error} />
      ) : data === undefined ? (
        <Loading what="the story" />
      ) : data.events.length === 0 ? (
        <p className="text-ink-soft">Nothing has happened yet.</p>
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
      return `Handed in version ${number} of the draft`;
    case 'withdrawn':
      return `Took version ${number} back`;
    case 'allocated':
      return `Was told to review the draft by ${whom}`;
    case 'begun':
      return `Began the review of ${whom}`;
    case 'submitted':
      return `Submitted the review of ${whom}`;
    case 'reopened':
      return `The review of ${whom} was reopened`;
    case 'received':
      return `${whom} submitted a review of this draft`;
    case 'told':
      return 'Was told of the feedback';
    case 'read':
      return 'Read the feedback';
    case 'answered':
      return 'Answered in a review';
    case 'rated':
      return 'Said how a review helped';
    case 'asked':
      return 'Asked for a look at a review';
    case 'reflected':
      return 'Handed in the reflection';
    case 'revision':
      return `Handed in the revision, version ${number}`;
    case 'mailed':
      return `Got a mail: ${words}`;
  }
}
