import { LIMITS } from '@salt-circle/contracts/plain';
import { HELPED, type Helped, wordsBy } from '@salt-circle/core';
import { useState } from 'react';
import { Button, TextArea } from '../../kit/index.js';
import { ProblemNotice } from '../ProblemNotice.js';
import { useViewAs } from '../view-as/useViewAs.js';
import { useRateMutation, useThreadsQuery } from './afterApi.js';
import { say } from '../../words/app.js';

const HELPED_WORDS: Readonly<Record<Helped, string>> = wordsBy(say, {
  'carried-on': 'itCarriedMeOn',
  'some-use': 'itWasOfSomeUse',
  'no-use': 'iCouldNotUseIt',
});

const READ_BY = wordsBy(say, {
  staff: 'onlyYourInstructorAndAssistants',
  'at-once': 'itsReviewerReadsThisAnd',
  'at-end': 'itsReviewerReadsThisOnce',
});

/** How a review helped: to say, as its author, or to read. */
export function Rating({ reviewId }: { readonly reviewId: string }) {
  const { data } = useThreadsQuery(reviewId);
  const viewAs = useViewAs() !== null;
  if (data === undefined) return null;
  const { rating, mayRate, ratingRead } = data;
  if (mayRate && !viewAs && ratingRead !== null) {
    return <Rate key={rating?.helped} reviewId={reviewId} given={rating} hint={READ_BY[ratingRead]} />;
  }
  if (rating === null) return null;
  return (
    <p className="text-sm">
      <span className="text-ink-soft">{say('howItHelpedItsAuthor')}</span> {HELPED_WORDS[rating.helped]}
      {rating.words !== '' && (
        <span className="block whitespace-pre-wrap">{say('quoted', { words: rating.words })}</span>
      )}
    </p>
  );
}

interface RateProps {
  readonly reviewId: string;
  readonly given: { readonly helped: Helped; readonly words: string } | null;
  readonly hint: string;
}

function Rate({ reviewId, given, hint }: RateProps) {
  const [helped, setHelped] = useState(given?.helped ?? null);
  const [words, setWords] = useState(given?.words ?? '');
  const [rate, { isLoading, error }] = useRateMutation();
  const changed = helped !== null && (helped !== given?.helped || words.trim() !== given.words);
  return (
    <fieldset className="no-print mt-2 space-y-1.5 text-sm">
      <legend className="font-medium">{say('howDidThisReviewHelp')}</legend>
      <div className="flex flex-wrap gap-1.5">
        {HELPED.map((step) => (
          <Button
            key={step}
            small
            aria-pressed={helped === step}
            className="aria-pressed:border-iodine aria-pressed:font-semibold"
            onClick={() => setHelped(step)}
          >
            {HELPED_WORDS[step]}
          </Button>
        ))}
      </div>
      {helped !== null && (
        <>
          <TextArea
            label={say('wordOfThanksOrWhy')}
            hint={hint}
            value={words}
            maxLength={LIMITS.guidance}
            onChange={({ target }) => setWords(target.value)}
          />
          {error !== undefined && <ProblemNotice error={error} />}
          <Button small busy={isLoading} disabled={!changed} onClick={() => void rate({ reviewId, helped, words })}>
            {given === null ? say('saySo') : changed ? say('saySoAgain') : say('said')}
          </Button>
        </>
      )}
    </fieldset>
  );
}
