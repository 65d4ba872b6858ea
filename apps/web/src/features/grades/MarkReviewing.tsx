import type { GradeRow, GradesView } from '@salt-circle/contracts';
import { markKey } from '@salt-circle/core';
import { Link } from 'react-router';
import { ItemInput } from '../../app/form/ItemInput.js';
import { SaveTrouble } from '../../app/form/SaveTrouble.js';
import { useAnswers } from '../../app/form/useAnswers.js';
import { useSavingState } from '../../app/saving/useSaving.js';
import { useMe } from '../../app/session/useMe.js';
import { useExchange } from '../../app/useExchange.js';
import { SaveMark } from '../../kit/index.js';
import { qualityWords } from './gradeWords.js';
import { say } from '../../words/grades.js';

interface MarkReviewingProps {
  readonly view: GradesView;
  readonly row: GradeRow;
  /** The review that is marked, where each is by itself. */
  readonly reviewId?: string | undefined;
  /** The reviews are not beside it: ways to them. */
  readonly ways?: boolean;
}

/** The form by which reviewing is marked; saved as it is filled in. */
export function MarkReviewing({ view, row, reviewId, ways = false }: MarkReviewingProps) {
  const exchange = useExchange();
  const me = useMe();
  const prefix = `${me.id}:grade:${row.id}:`;
  const key = (itemId: string) => (reviewId === undefined ? itemId : markKey(reviewId, itemId));
  const items = view.reviewingForm.map((item) => ({ ...item, id: key(item.id) }));
  const { answers, change, replace } = useAnswers({ items }, row.mark.answers, prefix, {
    url: `/api/exchanges/${exchange.id}/grades/${row.id}/reviewing`,
  });
  const { state, savedAt } = useSavingState(prefix);
  const counts = view.parts.some(({ part }) => part === 'review-quality') && view.rule.quality.mark > 0;
  return (
    <section aria-label={say('reviewing')} className="border-t border-line pt-4">
      <div className="flex items-start justify-between gap-3">
        <h3 className="text-lg font-semibold">{reviewId === undefined ? say('reviewing') : say('thisReview')}</h3>
        <SaveMark state={state} savedAt={savedAt} />
      </div>
      <p className="text-sm text-ink-soft">
        {[
          say(counts ? 'asSentence' : 'markIsNotPartOf', { grounds: qualityWords(row.grounds) }),
          ...(row.mark.by === null ? [] : [say('lastMarkedBy', { by: row.mark.by })]),
        ].join(' ')}
      </p>
      {ways && (
        <p className="my-2 flex flex-wrap gap-x-3">
          {row.reviewIds.map((id, index) => (
            <Link
              key={id}
              to={`/exchanges/${exchange.id}/grades/${row.id}/given/${id}`}
              className="text-dusk underline"
            >
              {say('reviewOf2', { index: index + 1 })}
            </Link>
          ))}
        </p>
      )}
      <div className="mt-2 space-y-4">
        {items.map((item) => (
          <div key={item.id} className="@container">
            <p className="font-medium">{item.title}</p>
            {item.guidance !== '' && <p className="text-sm text-ink-soft">{item.guidance}</p>}
            <ItemInput item={item} answer={answers[item.id]} onChange={(part) => change(item.id, part)} />
            <SaveTrouble item={item} saveKey={prefix + item.id} onReplace={(theirs) => replace(item.id, theirs)} />
          </div>
        ))}
      </div>
    </section>
  );
}
