import type { ArrivalView } from '@salt-circle/contracts';
import type { Saying } from './arriveApi.js';

/** What each step is given. */
export interface StepProps {
  readonly view: ArrivalView;
  readonly token: string;
  readonly busy: boolean;
  readonly error: unknown;
  readonly tell: (what: Saying['what'], body?: object) => void;
}
