import type { VersionMeta, VersionView } from '@salt-circle/contracts';
import { useExchange } from '../../app/useExchange.js';
import { VersionDialog } from '../../app/viewing/VersionDialog.js';
import { useVersionQuery } from './handInApi.js';

export interface ReadVersionProps {
  readonly number: number;
  readonly versions: readonly VersionMeta[];
  readonly onClose: () => void;
}

/** One of the own versions. */
export function ReadVersion(props: ReadVersionProps) {
  const exchange = useExchange();
  return <VersionDialog {...props} exchangeId={exchange.id} useVersion={useOwnVersion} />;
}

function useOwnVersion(number: number | null): VersionView | undefined {
  const exchange = useExchange();
  const { data } = useVersionQuery({ exchangeId: exchange.id, number: number ?? 0 }, { skip: number === null });
  return number === null ? undefined : data;
}
