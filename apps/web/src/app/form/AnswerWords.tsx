import { bandOf, itemMaximum, itemPoints, type Answer, type Check, type FormItem } from '@salt-circle/core';
import { CHECK_WORDS, PAIR_WORDS } from './kinds.js';
import { say } from '../../words/app.js';

export interface AnswerWordsProps {
  /** Undefined for the overall comment. */
  readonly item: FormItem | undefined;
  readonly answer: Answer | undefined;
}

/** An answer of any kind, to be read. */
export function AnswerWords({ item, answer }: AnswerWordsProps) {
  const text = answer?.text ?? '';
  const said = item?.kind === 'pair' ? null : text === '' ? null : <Said text={text} />;
  const given = item === undefined ? null : <Given item={item} answer={answer} />;
  if (isBlank(item, answer)) return <span className="text-ink-soft">{say('notAnswered')}</span>;
  return (
    <>
      {given}
      {said}
    </>
  );
}

function Said({ text }: { readonly text: string }) {
  return <p className="font-serif whitespace-pre-wrap">{text}</p>;
}

function isBlank(item: FormItem | undefined, answer: Answer | undefined): boolean {
  if (answer === undefined) return true;
  const { levelId = null, text = '', next = '', value = null, checks = {}, choices = [] } = answer;
  if (text !== '' || next !== '' || value !== null) return false;
  if (item?.kind === 'criterion') return !item.levels.some(({ id }) => id === levelId);
  return Object.keys(checks).length === 0 && choices.length === 0;
}

function Given({ item, answer }: { readonly item: FormItem; readonly answer: Answer | undefined }) {
  const points = itemPoints(item, answer);
  const score =
    points === null ? null : (
      <span className="mr-1.5">
        {say('ofOf', { strong: <strong>{points}</strong>, itemMaximum: itemMaximum(item) })}
      </span>
    );
  switch (item.kind) {
    case 'criterion': {
      const level = item.levels.find(({ id }) => id === answer?.levelId);
      return level === undefined ? null : <Named score={score} title={level.title} description={level.description} />;
    }
    case 'range': {
      const band = points === null ? null : bandOf(item, points);
      return band === null ? null : <Named score={score} title={band.title} description={band.description} />;
    }
    case 'checklist':
      return (
        <>
          {score !== null && <p>{score}</p>}
          <ul>
            {item.entries.map(({ id, text }) => (
              <li key={id} className="flex gap-2">
                <span
                  className={`shrink-0 font-semibold ${item.cannotTell === true ? 'w-20' : 'w-7'} ${CHECK_COLOUR[answer?.checks?.[id] ?? 'cannot-tell']}`}
                >
                  {checkWord(answer?.checks?.[id])}
                </span>
                {text}
              </li>
            ))}
          </ul>
        </>
      );
    case 'number':
      return answer?.value == null ? null : (
        <p>
          <strong>{answer.value}</strong> {item.unit}
        </p>
      );
    case 'choice':
      return (
        <p>
          {item.options
            .filter(({ id }) => answer?.choices?.includes(id))
            .map(({ title }) => title)
            .join(', ')}
        </p>
      );
    case 'pair':
      return (
        <dl className="grid gap-x-6 gap-y-2 @lg:grid-cols-2">
          {(['text', 'next'] as const).map((field) => (
            <div key={field}>
              <dt className="text-sm text-ink-soft">
                {field === 'text' ? item.worksLabel || PAIR_WORDS.works : item.nextLabel || PAIR_WORDS.next}
              </dt>
              <dd>
                {(answer?.[field] ?? '') === '' ? (
                  <span className="text-ink-soft">{say('notAnswered')}</span>
                ) : (
                  <Said text={answer?.[field] ?? ''} />
                )}
              </dd>
            </div>
          ))}
        </dl>
      );
    case 'prompt':
      return null;
  }
}

const CHECK_COLOUR: Readonly<Record<Check, string>> = {
  yes: 'text-kelp',
  no: 'text-copper',
  'cannot-tell': 'text-ink-soft',
};

function checkWord(check: Check | undefined): string {
  return check === undefined ? '–' : CHECK_WORDS[check];
}

interface NamedProps {
  readonly score: React.ReactNode;
  readonly title: string;
  readonly description: string;
}

function Named({ score, title, description }: NamedProps) {
  return (
    <p>
      {score}
      {description === ''
        ? title
        : say('described', {
            title,
            description,
            soft: (words) => <span className="text-ink-soft">{words}</span>,
          })}
    </p>
  );
}
