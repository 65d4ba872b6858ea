import type { ProgressRow, StoryEvent, StoryView } from '@salt-circle/contracts';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useEffect, useEffectEvent } from 'react';
import { Link } from 'react-router';
import { api } from '../../app/api.js';
import { selectSingleKeys } from '../../app/layoutSlice.js';
import { labelWords, Person } from '../../app/People.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useAppSelector } from '../../app/store.js';
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
  const singleKeys = useAppSelector(selectSingleKeys);
  const at = rows.findIndex((row) => row.id === id);
  const [before, after] = [rows[at - 1], rows[at + 1]];
  const onKey = useEffectEvent((event: KeyboardEvent) => {
    const plain = !event.ctrlKey && !event.metaKey && !event.altKey && !event.defaultPrevented;
    // The sheet is a dialog that leaves the page to be used: its own fields alone are typed in.
    if (
      !singleKeys ||
      !plain ||
      (event.target instanceof Element && event.target.closest('input, textarea, select') !== null)
    )
      return;
    const to = { n: after, p: before }[event.key.toLowerCase()];
    if (to !== undefined) onShow(to.id);
  });
  useEffect(() => {
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, []);
  const row = rows[at];
  return (
    <Sheet
      onClose={onClose}
      title={row === undefined ? 'Story' : <Person label={row.person} />}
      aside={
        <>
          <Step words="Previous" keys="P" to={before} onShow={onShow}>
            <ChevronLeft size={16} aria-hidden="true" />
          </Step>
          <Step words="Next" keys="N" to={after} onShow={onShow}>
            <ChevronRight size={16} aria-hidden="true" />
          </Step>
        </>
      }
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

interface StepProps {
  readonly words: string;
  readonly keys: string;
  readonly to: ProgressRow | undefined;
  readonly onShow: (id: string) => void;
  readonly children: React.ReactNode;
}

function Step({ words, keys, to, onShow, children }: StepProps) {
  const name = to === undefined ? words : `${words}: ${labelWords(to.person)}`;
  return (
    <button
      type="button"
      disabled={to === undefined}
      aria-label={name}
      title={`${name} (${keys})`}
      className="inline-flex size-7 items-center justify-center rounded border border-edge disabled:opacity-40"
      onClick={() => to !== undefined && onShow(to.id)}
    >
      {children}
    </button>
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
