import { ValidateIf } from 'class-validator';

/** Unlike `IsOptional`, which takes null for what is not there: for fields whose type has no null. */
export function MayBeMissing(): PropertyDecorator {
  return ValidateIf((_, value) => value !== undefined);
}
