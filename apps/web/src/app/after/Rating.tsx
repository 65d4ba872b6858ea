import { LIMITS } from '@salt-circle/contracts';
import { HELPED, type Helped } from '@salt-circle/core';
import { useState } from 'react';
import { Button, TextArea } from '../../kit/index.js';
import { ProblemNotice } from '../ProblemNotice.js';
import { useSeeing } from '../seeing/useSeeing.js';
import { useRateMutation, useThreadsQuery } from './afterApi.js';

export const HELPED_WORDS: Readonly<Record<Helped, string>> = {
  'carried-on': 'It carried me on',
  'some-use': 'It was of some use',
  'no-use': 'I could not use it',
};

const READ_BY = {
  staff: 'Only your instructor and assistants read this.',
  'at-once': 'Its reviewer reads this, and your instructor.',
  'at-end': 'Its reviewer reads this once answers and revisions are over; your instructor reads it at once.',
} as const;

/** How a review helped: to say, as its author, or to read. */
export function Rating({ reviewId }: { readonly reviewId: string }) {
  const { data } = useThreadsQuery(reviewId);
  const seeing = useSeeing() !== null;
  if (data === undefined) return null;
  const { rating, mayRate, ratingRead } = data;
  if (mayRate && !seeing && ratingRead !== null) {
    return <Rate key={rating?.helped} reviewId={reviewId} given={rating} hint={READ_BY[ratingRead]} />;
  }
  if (rating === null) return null;
  return (
    <p className="text-sm">
      <span className="text-ink-soft">How it helped its author:</span> {HELPED_WORDS[rating.helped]}
      {rating.words !== '' && <span className="block whitespace-pre-wrap">“{rating.words}”</span>}
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
      <legend className="font-medium">How did this review help you?</legend>
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
            label="A word of thanks, or why"
            hint={hint}
            value={words}
            maxLength={LIMITS.guidance}
            onChange={({ target }) => setWords(target.value)}
          />
          {error !== undefined && <ProblemNotice error={error} />}
          <Button small busy={isLoading} disabled={!changed} onClick={() => void rate({ reviewId, helped, words })}>
            {given === null ? 'Say so' : changed ? 'Say so again' : 'Said'}
          </Button>
        </>
      )}
    </fieldset>
  );
}
