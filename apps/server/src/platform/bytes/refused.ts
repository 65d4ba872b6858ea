/** A file that cannot be taken, in words for the one who handed it in. Thrown inside of the worker, a value outside. */
export class Refused extends Error {
  override readonly name = 'Refused';
  constructor(
    readonly sentence: string,
    readonly whatToDo: string,
  ) {
    super(sentence);
  }
}
