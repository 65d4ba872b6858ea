import { wordsBy } from '@salt-circle/core';
import type { CourseView, ExchangeCard } from '@salt-circle/contracts';
import type { DateName, Stage } from '@salt-circle/core';
import { Link } from 'react-router';
import { When } from '../../app/time/When.js';
import { say } from '../../words/courses.js';

const STAGES: Readonly<Record<Stage, string>> = wordsBy(say, {
  planning: 'notOpenYet',
  drafting: 'drafting',
  reviewing: 'reviewing',
  checking: 'beingChecked',
  replying: 'answering',
  revising: 'revising',
  closed: 'closed',
});

const NEXT: Readonly<Record<DateName, string>> = wordsBy(say, {
  draftsOpen: 'draftsOpen',
  draftsDue: 'draftsDue',
  lateUntil: 'lateDraftsUntil',
  reviewsOpen: 'reviewsOpen',
  selfReviewDue: 'selfReviewsDue',
  reviewsDue: 'reviewsDue',
  checkUntil: 'checkUntil',
  release: 'feedbackWord',
  repliesDue: 'repliesDue',
  revisionDue: 'revisionsDue',
});

export function ExchangeList({ course }: { readonly course: CourseView }) {
  return (
    <ul>
      {course.exchanges.map((exchange) => (
        <li
          key={exchange.id}
          className="grid grid-cols-1 gap-x-6 border-b border-line py-2.5 first:border-t sm:grid-cols-[2fr_1fr_2fr]"
        >
          <Link
            to={`/exchanges/${exchange.id}`}
            className="font-semibold text-ink underline decoration-line underline-offset-4"
          >
            {exchange.title}
          </Link>
          <span>{stageWords(exchange)}</span>
          <span className="text-ink-soft">
            {exchange.next !== null && (
              <>
                {NEXT[exchange.next.date]} <When at={exchange.next.at} timeZone={course.timeZone} />
              </>
            )}
          </span>
        </li>
      ))}
    </ul>
  );
}

function stageWords({ published, stage }: ExchangeCard): string {
  return published ? STAGES[stage] : say('inPlanningSeenByNobody');
}
