import type { ExchangeView, ReviewCard } from '@salt-circle/contracts';
import { Link } from 'react-router';
import { buttonClass, Empty, Loading, Prose, StateMark, type MarkState } from '../../kit/index.js';
import { api } from '../../app/api.js';
import { Attachments } from '../../app/attachments/Attachments.js';
import { Person } from '../../app/People.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { When } from '../../app/time/When.js';
import { useExchange } from '../../app/useExchange.js';
import { say } from '../../words/exchange.js';
import { changedHere } from '../../app/changes/freshness.js';

const { useMyReviewsQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    myReviews: build.query<ReviewCard[], string>({
      query: (id) => `/exchanges/${id}/reviews`,
      providesTags: changedHere(['Review'], 'own-review'),
    }),
  }),
});

const MARKS: Readonly<Record<ReviewCard['state'], MarkState>> = {
  'not-begun': 'not-begun',
  'in-progress': 'in-progress',
  submitted: 'done',
};

/** The drafts that a student is to review. */
export function MyReviewsPage() {
  const exchange = useExchange();
  const { dates, stage, course } = exchange;
  // Where drafts are allocated night by night, reviewing is open while drafts are.
  const opened = exchange.mayReview || (stage !== 'planning' && stage !== 'drafting');
  const { data, error } = useMyReviewsQuery(exchange.id, { skip: !opened, refetchOnMountOrArgChange: true });
  const attached = exchange.attachments.some(({ place }) => place === 'guide');
  const opens = dates.reviewsOpen ?? dates.lateUntil ?? dates.draftsDue;
  const due = exchange.own?.reviewsDue ?? dates.reviewsDue;
  const selfDue = selfReviewDue(exchange);
  return (
    <div className="px-5 py-6 lg:grid lg:grid-cols-[3fr_2fr] lg:gap-10">
      <section>
        <h2 className="text-xl font-semibold">{say('draftsForYouToReview')}</h2>
        {!opened && (
          <Empty title={say('reviewingHasNotOpenedYet')}>
            <p>
              {opens === null
                ? say('opensLater', { drafts: exchange.reviewsPerStudent })
                : say('itOpens', {
                    when: <When at={opens} timeZone={course.timeZone} />,
                    drafts: exchange.reviewsPerStudent,
                  })}
            </p>
          </Empty>
        )}
        {error !== undefined && <ProblemNotice error={error} />}
        {opened && data === undefined && error === undefined && <Loading what={say('yourReviews')} />}
        {data !== undefined && data.length === 0 && (
          <Empty title={say('noDraftsHaveBeenAllocated')}>
            <p>{say('yourInstructorAllocatesThemThey')}</p>
          </Empty>
        )}
        {data !== undefined && data.length > 0 && (
          <>
            {due !== null && (
              <p className="mb-3 text-ink-soft">{say('due', { when: <When at={due} timeZone={course.timeZone} /> })}</p>
            )}
            <ul>
              {data.map((review) => (
                <ReviewRow
                  key={review.id}
                  review={review}
                  open={review.self ? exchange.maySelfReview : exchange.mayReview}
                  due={review.self ? selfDue : null}
                />
              ))}
            </ul>
          </>
        )}
      </section>
      <section className="mt-8 lg:mt-0">
        <h2 className="mb-2 text-xl font-semibold">{say('howToReview')}</h2>
        {exchange.guideHtml === '' && !attached ? (
          <p className="text-ink-soft">{say('yourInstructorHasGivenNo')}</p>
        ) : (
          <Prose html={exchange.guideHtml} />
        )}
        <Attachments exchangeId={exchange.id} attachments={exchange.attachments} place="guide" />
      </section>
    </div>
  );
}

/** Where the own draft is to be reviewed by a time of its own; an own time for reviews is never less. */
function selfReviewDue({ dates, own }: ExchangeView): string | null {
  const [common, mine] = [dates.selfReviewDue, own?.reviewsDue ?? null];
  return common !== null && mine !== null && Date.parse(mine) > Date.parse(common) ? mine : common;
}

interface ReviewRowProps {
  readonly review: ReviewCard;
  readonly open: boolean;
  /** Where it is another time than that of the others. */
  readonly due: string | null;
}

function ReviewRow({ review, open, due }: ReviewRowProps) {
  const { course } = useExchange();
  const { state, answered, required } = review;
  const words = review.changing
    ? say('submittedYouAreChangingIt')
    : state === 'submitted'
      ? say('submitted')
      : state === 'not-begun'
        ? say('notBegun')
        : say('ofDone', { answered, required });
  return (
    <li className="grid grid-cols-[1fr_auto] items-center gap-4 border-b border-line py-3 first:border-t">
      <div>
        <p className="font-semibold">{review.draftTitle}</p>
        <p className="flex flex-wrap items-center gap-x-3 text-ink-soft">
          <span>
            {!review.self
              ? say('by', { author: <Person label={review.author} /> })
              : due === null
                ? say('yourOwnDraftSelfReview')
                : say('ownDraftDue', { when: <When at={due} timeZone={course.timeZone} /> })}
          </span>
          <StateMark
            state={MARKS[state]}
            share={required === 0 ? 0 : answered / required}
            word={words}
            wordHidden={false}
          />
          {review.notes > 0 && <span>{say('notes', { notes: review.notes })}</span>}
        </p>
        {(review.others || review.revision) && (
          <p className="flex flex-wrap gap-x-4">
            {review.others && (
              <Link to={`../others/${review.id}`} relative="path" className="text-dusk underline">
                {say('whatOthersWrote')}
              </Link>
            )}
            {review.revision && (
              <Link to={`../revisions/${review.draftId}`} relative="path" className="text-dusk underline">
                {say('whatBecameOfIt')}
              </Link>
            )}
          </p>
        )}
      </div>
      {review.waits ? (
        <span className="text-sm text-ink-soft">
          {review.self ? say('opensOnceOthersAreSubmitted') : say('opensAfterYourSelfReview')}
        </span>
      ) : (
        <Link
          to={`/reviews/${review.id}`}
          className={buttonClass((state === 'submitted' && !review.changing) || !open ? 'plain' : 'primary')}
        >
          {(state === 'submitted' && !review.changing) || !open
            ? say('read')
            : state === 'not-begun'
              ? say('begin')
              : say('continue')}
        </Link>
      )}
    </li>
  );
}
