import type { ExchangeView } from '@salt-circle/contracts';
import { Navigate } from 'react-router';
import { useExchange } from '../../app/useExchange.js';

/** Opens the workspace of the present stage. */
export function WhereToGo() {
  const exchange = useExchange();
  return <Navigate to={exchange.marks === null ? staffPage(exchange) : studentPage(exchange)} replace />;
}

function staffPage({ published, stage }: ExchangeView): string {
  if (!published) return 'plan';
  switch (stage) {
    case 'planning':
    case 'drafting':
      return 'drafts';
    case 'reviewing':
      return 'reviews';
    case 'replying':
    case 'revising':
      return 'after';
    default:
      return 'check';
  }
}

function studentPage({ stage, released }: ExchangeView): string {
  if (released) return 'feedback';
  return stage === 'planning' || stage === 'drafting' ? 'draft' : 'review';
}
