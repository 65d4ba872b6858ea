import type { DraftFeedbackView } from '@salt-circle/contracts';
import { formScore, itemSpreads, scoreWords } from '@salt-circle/core';
import { Link, useNavigate, useParams } from 'react-router';
import { useBeginOwnReviewMutation, useDraftFeedbackQuery } from '../../app/moderation/checkApi.js';
import { keptOf } from '../../app/moderation/keptOf.js';
import { AnswerWords } from '../../app/form/AnswerWords.js';
import { allQuestions, formOfReview, wasAsked, type Question } from '../../app/form/questions.js';
import { labelWords, Person } from '../../app/People.js';
import { percent } from '../../app/percent.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, Empty, Loading } from '../../kit/index.js';
import { say } from '../../words/moderation.js';

/** All submitted reviews of one draft, item by item, those first on which they differ most. */
export function SideBySidePage() {
  const exchange = useExchange();
  const { draftId = '' } = useParams();
  const { data, error } = useDraftFeedbackQuery(
    { exchangeId: exchange.id, draftId },
    { refetchOnMountOrArgChange: true },
  );
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what={say('reviews')} />;
  const { reviews, missing } = data;
  return (
    <div className="px-5 py-5">
      <div className="flex flex-wrap items-start justify-between gap-3">
        <h2 className="text-xl font-semibold">{data.drafts[0]?.title}</h2>
        <OwnReview exchangeId={exchange.id} draftId={draftId} view={data} />
      </div>
      <p className="mb-3 text-ink-soft">
        {say('byWord', { author: <Person label={data.author} />, reviews: reviews.length, missing })}{' '}
        <Link to={`../drafts/${draftId}`} className="text-dusk underline">
          {say('readDraft')}
        </Link>
      </p>
      {reviews.length === 0 ? (
        <Empty title={say('noReviewOfThisDraft')}>
          <p>{say('onceThereIsOneIt')}</p>
        </Empty>
      ) : (
        <Table view={data} />
      )}
    </div>
  );
}

interface OwnReviewProps {
  readonly exchangeId: string;
  readonly draftId: string;
  readonly view: DraftFeedbackView;
}

/** One’s own, beside the others: shown to the author with them, under the own name and role. */
function OwnReview({ exchangeId, draftId, view }: OwnReviewProps) {
  const { ownId, mayReview } = view;
  const navigate = useNavigate();
  const [begin, { error, isLoading }] = useBeginOwnReviewMutation();
  if (ownId === null && !mayReview) return null;
  const submitted = view.reviews.some(({ id }) => id === ownId);
  const open = async () => {
    const id = ownId ?? (await begin({ exchangeId, draftId }).unwrap()).id;
    void navigate(`/reviews/${id}`);
  };
  return (
    <div>
      {/* What went wrong is shown below. */}
      <Button disabled={isLoading} onClick={() => void open().catch(() => undefined)}>
        {ownId === null ? say('writeOwnReview') : submitted ? say('readYourOwnReview') : say('goOnWithYourOwn')}
      </Button>
      {error !== undefined && <ProblemNotice error={error} />}
    </div>
  );
}

interface Row extends Question {
  readonly spread: number | null;
}

function rowsOf(view: DraftFeedbackView): Row[] {
  const { form, reviews } = view;
  // A self-review is another view of the draft, no measure of the others; another form is another measure.
  const others = reviews.filter((review) => !review.self && review.form === undefined).map(({ answers }) => answers);
  const all = allQuestions(view);
  const spreads = itemSpreads(form, others).flatMap(({ itemId, spread }): Row[] => {
    const question = all.find(({ id }) => id === itemId);
    return question === undefined ? [] : [{ ...question, spread }];
  });
  const rest = all.filter(({ id, item }) => !spreads.some((row) => row.id === id && row.item === item));
  return [...spreads, ...rest.map((question) => ({ ...question, spread: null }))];
}

function Table({ view }: { readonly view: DraftFeedbackView }) {
  const { reviews } = view;
  return (
    <div className="overflow-x-auto">
      <table className={`w-full border-collapse text-left align-top ${reviews.length <= FIT ? 'table-fixed' : ''}`}>
        <caption className="sr-only">{say('reviewsOfThisDraftItem')}</caption>
        <thead>
          <tr className="border-b border-ink">
            <th scope="col" className="w-44 py-2 pr-4">
              {say('item')}
            </th>
            {reviews.map((review) => {
              const form = formOfReview(view, review);
              const score = formScore(form, review.answers);
              return (
                <th key={review.id} scope="col" className="min-w-64 py-2 pr-4 font-normal">
                  <Link
                    to={`/reviews/${review.id}`}
                    className="font-semibold text-ink no-underline hover:underline"
                    title={say('readReviewBy', { labelWords: labelWords(review.reviewer) })}
                  >
                    {review.self ? say('authorsOwnReview') : <Person label={review.reviewer} />}
                  </Link>
                  <span className="block text-sm text-ink-soft">
                    {score === null
                      ? say('notesCounted', { notes: review.notes.length })
                      : say('scoreAndNotes', { score: scoreWords(form, score), notes: review.notes.length })}
                  </span>
                  {keptOf(view, review.id, 'review') !== undefined && (
                    <span className="block text-sm text-madder">{say('withheldWord2')}</span>
                  )}
                </th>
              );
            })}
          </tr>
        </thead>
        <tbody>
          {rowsOf(view).map(({ spread, ...question }, index) => (
            <tr key={index} className="border-b border-line align-top">
              <th scope="row" className="py-3 pr-4 font-semibold">
                {question.title}
                {spread !== null && (
                  <span className={`block text-sm font-normal ${spread >= WIDE ? 'text-copper' : 'text-ink-soft'}`}>
                    {spread === 0 ? say('allAgree') : say('ofScaleApart', { spread: percent(spread) })}
                  </span>
                )}
              </th>
              {reviews.map((review) => (
                <td key={review.id} className="@container py-3 pr-4">
                  {wasAsked(view, review, question) ? (
                    <AnswerWords item={question.item} answer={review.answers[question.id]} />
                  ) : (
                    <p className="text-ink-soft">{say('notAsked')}</p>
                  )}
                  {keptOf(view, review.id, 'answer', question.id) !== undefined && (
                    <p className="text-sm text-madder">{say('withheldWord2')}</p>
                  )}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** So many share the width of a page evenly; more are scrolled through sideways. */
const FIT = 4;

/** From half of the scale on, two people have read the item, or the draft, differently. Ours; no standard. */
const WIDE = 0.5;
