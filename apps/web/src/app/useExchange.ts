import type { ExchangeView } from '@salt-circle/contracts';
import { useOutletContext } from 'react-router';

/** The exchange whose workspace this is. Only below the exchange's page. */
export function useExchange(): ExchangeView {
  return useOutletContext<ExchangeView>();
}
