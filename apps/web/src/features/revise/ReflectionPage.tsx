import type { ReflectionView } from '@salt-circle/contracts';
import { LIMITS } from '@salt-circle/contracts/plain';
import { countWords } from '@salt-circle/core';
import { useState } from 'react';
import { api, problemOf } from '../../app/api.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useKeptText } from '../../app/saving/useKeptText.js';
import { useMe } from '../../app/session/useMe.js';
import { When } from '../../app/time/When.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, Empty, Loading, Notice, TextArea } from '../../kit/index.js';
import { say } from '../../words/revise.js';
import { changedHere } from '../../app/changes/freshness.js';

interface Given {
  readonly exchangeId: string;
  readonly texts: readonly string[];
  readonly revision: number;
  readonly handIn: boolean;
}

const { useReflectionQuery, useReflectMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    reflection: build.query<ReflectionView, string>({
      query: (id) => `/exchanges/${id}/reflection`,
      providesTags: changedHere(['Feedback'], 'plan'),
    }),
    reflect: build.mutation<ReflectionView, Given>({
      query: ({ exchangeId, ...body }) => ({ url: `/exchanges/${exchangeId}/reflection`, method: 'PUT', body }),
      invalidatesTags: ['Feedback', 'Today', 'Exchange'],
    }),
  }),
});

/** What an author makes of the feedback, in answers to the plan’s questions. */
export function ReflectionPage() {
  const exchange = useExchange();
  const { data, error } = useReflectionQuery(exchange.id, { skip: !exchange.feedbackOpen });
  if (!exchange.feedbackOpen) {
    return (
      <div className="px-5">
        <Empty title={say('thisComesOnceYouHave')} />
      </div>
    );
  }
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what={say('questions')} />;
  return <Reflection reflection={data} />;
}

function Reflection({ reflection }: { readonly reflection: ReflectionView }) {
  const exchange = useExchange();
  const me = useMe();
  const { prompts, minimumWords, revision, savedAt, handedInAt, open } = reflection;
  const [kept, keep, letGo] = useKeptText(`${me.id}:reflection:${exchange.id}:${revision}`);
  const [texts, setTexts] = useState<readonly string[]>(() => textsFrom(kept) ?? reflection.texts);
  const [send, sending] = useReflectMutation();
  const words = texts.reduce((sum, text) => sum + countWords(text), 0);
  const changed = texts.some((text, index) => text !== reflection.texts[index]);
  const change = (at: number, text: string) => {
    const next = texts.map((one, index) => (index === at ? text : one));
    setTexts(next);
    keep(JSON.stringify(next));
  };
  const go = async (handIn: boolean) => {
    const result = await send({ exchangeId: exchange.id, texts, revision, handIn });
    if (result.error === undefined) letGo();
  };
  const state = changed ? 'kept' : savedAt !== null ? 'saved' : 'none';
  const problem = sending.error === undefined ? null : problemOf(sending.error);
  return (
    <div className="mx-auto w-full max-w-3xl space-y-4 px-5 py-5">
      <h2 className="text-xl font-semibold">{say('thinkYourFeedbackOver')}</h2>
      {handedInAt !== null ? (
        <Notice tone="done" title={say('handedIn')}>
          <When at={handedInAt} timeZone={exchange.course.timeZone} />{' '}
          {open && changed && say('whatYouChangedSinceCounts')}
        </Notice>
      ) : (
        <Notice tone={open ? 'plain' : 'problem'} title={open ? say('notHandedInYet') : say('nothingWasHandedIn')}>
          {open ? say('onlyYourInstructorAndAssistants') : say('timeForItIsOver')}
        </Notice>
      )}
      {prompts.map((prompt, index) => (
        <TextArea
          key={index}
          label={prompt}
          rows={6}
          readOnly={!open}
          value={texts[index] ?? ''}
          maxLength={LIMITS.reflection}
          problem={problem?.fields.find(({ path }) => path === `texts.${index}`)?.sentence}
          onChange={({ target }) => change(index, target.value)}
          onBlur={() => open && changed && void go(false)}
        />
      ))}
      <p className="text-sm text-ink-soft">
        {minimumWords > 0
          ? say('ofAtLeastWords', { words, least: minimumWords, state })
          : say('words', { words, state })}
      </p>
      {problem !== null && problem.fields.length === 0 && <ProblemNotice error={sending.error} />}
      {open && (
        <Button look="primary" busy={sending.isLoading} onClick={() => void go(true)}>
          {handedInAt === null ? say('handIn') : say('handInAgain')}
        </Button>
      )}
    </div>
  );
}

/** What this browser has kept; null where it has nothing, or nothing that can be read. */
function textsFrom(kept: string): string[] | null {
  if (kept === '') return null;
  try {
    const read: unknown = JSON.parse(kept);
    return Array.isArray(read) && read.every((one) => typeof one === 'string') ? read : null;
  } catch (error) {
    if (error instanceof SyntaxError) return null;
    throw error;
  }
}
