import { ARRIVAL_FAULTS, type ArrivalFault } from '../../../platform/problems/campus-sentences.js';
import { ProblemError } from '../../../platform/problems/problem-error.js';

/** Somebody sent by a campus does not come in. */
export class ArrivalRefused extends Error {
  override readonly name = 'ArrivalRefused';

  constructor(
    readonly fault: ArrivalFault,
    /** The campus, once it is known. */
    readonly campusId: string | null = null,
  ) {
    super(fault);
  }
}

export function arrivalProblem(fault: ArrivalFault): ProblemError {
  const [sentence, whatToDo] = ARRIVAL_FAULTS[fault]();
  return new ProblemError({ code: 'campus-wrong', sentence, whatToDo });
}
