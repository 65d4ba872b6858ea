import { ARRIVAL_FAULTS, type ArrivalFault } from '../../../platform/problems/lti-sentences.js';
import { ProblemError } from '../../../platform/problems/problem-error.js';

/** Somebody sent by a platform does not come in. */
export class ArrivalRefused extends Error {
  override readonly name = 'ArrivalRefused';

  constructor(
    readonly fault: ArrivalFault,
    /** The platform, once it is known. */
    readonly platformId: string | null = null,
  ) {
    super(fault);
  }
}

export function arrivalProblem(fault: ArrivalFault): ProblemError {
  const [sentence, whatToDo] = ARRIVAL_FAULTS[fault]();
  return new ProblemError({ code: 'platform-wrong', sentence, whatToDo });
}
