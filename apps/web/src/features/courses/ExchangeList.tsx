import type { CourseView, ExchangeCard } from '@salt-circle/contracts';
import type { DateName, Stage } from '@salt-circle/core';
import { Link } from 'react-router';
import { When } from '../../app/time/When.js';

const STAGES: Readonly<Record<Stage, string>> = {
  planning: 'Not open yet',
  drafting: 'Drafting',
  reviewing: 'Reviewing',
  checking: 'Being checked',
  replying: 'Answering',
  revising: 'Revising',
  closed: 'Closed',
};

const NEXT: Readonly<Record<DateName, string>> = {
  draftsOpen: 'drafts open',
  draftsDue: 'drafts due',
  lateUntil: 'late drafts until',
  reviewsOpen: 'reviews open',
  selfReviewDue: 'self-reviews due',
  reviewsDue: 'reviews due',
  checkUntil: 'check until',
  release: 'feedback',
  repliesDue: 'replies due',
  revisionDue: 'revisions due',
};

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
  return published ? STAGES[stage] : 'In planning, seen by nobody else';
}
