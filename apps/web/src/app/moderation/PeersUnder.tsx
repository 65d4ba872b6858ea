import type { DeskView, DraftFeedbackView } from '@salt-circle/contracts';
import { meanAnswer, sameScale, type Answer, type FormItem, type ReviewForm } from '@salt-circle/core';
import { createContext, useContext, useMemo, type ReactNode } from 'react';
import { useDraftFeedbackQuery } from './checkApi.js';
import { keptOf } from './keptOf.js';
import { AnswerWords } from '../form/AnswerWords.js';
import { formOfReview } from '../form/questions.js';
import { labelWords } from '../People.js';
import { say } from '../../words/app.js';

type PeerReview = DraftFeedbackView['reviews'][number];

/** Each with the form that it was written by. */
const Peers = createContext<ReadonlyArray<PeerReview & { readonly form: ReviewForm }>>([]);

interface PeersOfProps {
  readonly desk: Pick<DeskView, 'id' | 'voice' | 'reviewer'> & {
    readonly exchange: Pick<DeskView['exchange'], 'id'>;
    readonly draft: Pick<DeskView['draft'], 'draftId'>;
  };
  readonly children: ReactNode;
}

/** For staff who review under their own names: what the other reviews of the draft say. */
export function PeersOf({ desk, children }: PeersOfProps) {
  const target = { exchangeId: desk.exchange.id, draftId: desk.draft.draftId };
  const own = desk.voice !== null && desk.reviewer.you === true;
  const { data } = useDraftFeedbackQuery(target, { skip: !own });
  const others = useMemo(
    () =>
      data === undefined
        ? []
        : data.reviews
            .filter(({ id }) => id !== desk.id && keptOf(data, id, 'review') === undefined)
            .map((review) => ({ ...review, form: formOfReview(data, review), answers: answersGiven(data, review) })),
    [data, desk.id],
  );
  return <Peers value={others}>{children}</Peers>;
}

/** What is kept from the author is nothing to take over either. */
function answersGiven(feedback: DraftFeedbackView, { id, answers }: PeerReview): PeerReview['answers'] {
  const shown = Object.entries(answers).filter(([itemId]) => keptOf(feedback, id, 'answer', itemId) === undefined);
  return Object.fromEntries(shown);
}

interface PeersUnderProps {
  readonly item: FormItem;
  readonly onTake: (answer: Answer) => void;
}

/** The others’ answers to an item, to be taken over, and then changed or not. */
export function PeersUnder({ item, onTake }: PeersUnderProps) {
  const reviews = useContext(Peers).filter(
    ({ form, answers }) =>
      item.id in answers && form.items.some((asked) => asked.id === item.id && sameScale(asked, item)),
  );
  if (reviews.length === 0) return null;
  const peers = reviews.filter(({ self, reviewer }) => !self && reviewer.role === undefined);
  const mean =
    peers.length < 2
      ? null
      : meanAnswer(
          item,
          peers.map(({ answers }) => answers[item.id]),
        );
  return (
    <details className="mt-1.5 text-sm">
      <summary className="min-h-6 cursor-pointer text-dusk">{say('whatOthersSay')}</summary>
      <ul className="mt-1 space-y-2 border-l border-line pl-3">
        {reviews.map(({ id, reviewer, self, answers }) => {
          const answer = answers[item.id];
          const taken = answer === undefined ? null : withoutWords(item, answer);
          return (
            <li key={id}>
              <p className="text-ink-soft">
                {self ? say('authorsOwnReview') : labelWords(reviewer)}
                {taken !== null && <Take onClick={() => onTake(taken)} />}
              </p>
              <AnswerWords item={item} answer={answer} />
            </li>
          );
        })}
        {mean !== null && (
          <li>
            <p className="text-ink-soft">
              {say('onAverage')}
              <Take onClick={() => onTake(mean)} />
            </p>
            <AnswerWords item={item} answer={mean} />
          </li>
        )}
      </ul>
    </details>
  );
}

function Take({ onClick }: { readonly onClick: () => void }) {
  return (
    <button type="button" className="ml-2 min-h-6 text-dusk underline" onClick={onClick}>
      {say('takeOver')}
    </button>
  );
}

/** Words are somebody’s own: what is taken over is the level, the points, or what was ticked. Null where there is nothing else. */
function withoutWords(item: FormItem, { levelId, value, checks, choices }: Answer): Answer | null {
  switch (item.kind) {
    case 'criterion':
      return levelId == null ? null : { levelId };
    case 'range':
    case 'number':
      return value == null ? null : { value };
    case 'checklist':
      return checks === undefined ? null : { checks };
    case 'choice':
      return choices === undefined ? null : { choices };
    default:
      return null;
  }
}
