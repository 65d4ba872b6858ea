import type { PracticeCard, PracticeView } from '@salt-circle/contracts';
import { Link, useNavigate } from 'react-router';
import { useBeginPracticeMutation, usePracticeQuery } from '../../app/practice/practiceApi.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { When } from '../../app/time/When.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, buttonClass, Empty, Loading, StateMark } from '../../kit/index.js';
import { PRACTICE_MARKS, ruleWords, stateWords, triesWords } from './practiceWords.js';
import { say } from '../../words/practice.js';

/** The practice drafts of an exchange, as a student has them. */
export function PracticePage() {
  const exchange = useExchange();
  const { data, error } = usePracticeQuery(exchange.id, { refetchOnMountOrArgChange: true });
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what={say('practice')} />;
  if (data.drafts.length === 0) {
    return (
      <div className="px-5">
        <Empty title={say('thereIsNothingToPractise')}>
          <p>{say('yourInstructorCanAddPractice')}</p>
        </Empty>
      </div>
    );
  }
  return (
    <div className="max-w-[56rem] px-5 py-6">
      <h2 className="text-xl font-semibold">{say('practiceLabel')}</h2>
      <p className="mt-1 mb-4 max-w-[68ch] text-ink-soft">
        {ruleWords(data)}{' '}
        {data.until !== null && (
          <>{say('itCanBeDoneUntil', { when: <When at={data.until} timeZone={exchange.course.timeZone} exact /> })}</>
        )}
      </p>
      <ul>
        {data.drafts.map((draft) => (
          <Row key={draft.id} draft={draft} practice={data} />
        ))}
      </ul>
    </div>
  );
}

function Row({ draft, practice }: { readonly draft: PracticeCard; readonly practice: PracticeView }) {
  const { own, id, title } = draft;
  const [begin, { isLoading, error }] = useBeginPracticeMutation();
  const navigate = useNavigate();
  if (own === null) return null;
  const { rule, open } = practice;
  const go = async (again: boolean) => {
    const result = await begin({ id, again });
    if (result.data !== undefined) await navigate(`/reviews/${result.data.reviewId}`);
  };
  const writing = own.state === 'not-begun' || own.state === 'in-progress';
  return (
    <li className="border-b border-line py-3 first:border-t">
      <div className="flex flex-wrap items-center justify-between gap-x-4 gap-y-2">
        <div>
          <p className="font-semibold">{title}</p>
          <p className="flex flex-wrap items-center gap-x-3 text-ink-soft">
            <StateMark state={PRACTICE_MARKS[own.state]} share={0.5} word={stateWords(own, rule)} wordHidden={false} />
            <span className="text-sm">{triesWords(rule, own.shares.length)}</span>
          </p>
        </div>
        <div className="flex flex-wrap gap-2">
          {own.result && (
            <Link
              to={`/practice/${id}`}
              className={buttonClass(own.again && own.state === 'again' ? 'plain' : 'primary')}
            >
              {say('compareWithKey')}
            </Link>
          )}
          {own.again && (
            <Button look={own.state === 'again' ? 'primary' : 'plain'} busy={isLoading} onClick={() => void go(true)}>
              {say('tryAgain')}
            </Button>
          )}
          {writing && open && (
            <Button look="primary" busy={isLoading} onClick={() => void go(false)}>
              {own.state === 'not-begun' ? say('begin') : say('continue')}
            </Button>
          )}
          {writing && !open && own.reviewId !== null && (
            <Link to={`/reviews/${own.reviewId}`} className={buttonClass('plain')}>
              {say('read')}
            </Link>
          )}
        </div>
      </div>
      {error !== undefined && <ProblemNotice error={error} />}
    </li>
  );
}
