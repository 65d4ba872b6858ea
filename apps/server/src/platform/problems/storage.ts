import { Logger } from '@nestjs/common';
import { ProblemError } from './problem-error.js';
import { say } from '../../words/problems.js';

const logger = new Logger('storage');

/** Nothing can be written: the disk is full. The log names it, and health does. */
export function storeFull(cause: unknown): ProblemError {
  logger.error(`the disk is full, nothing can be saved: ${cause instanceof Error ? cause.message : 'unknown'}`);
  return new ProblemError({ code: 'store-full', sentence: say('diskFull'), whatToDo: say('diskFullWhatToDo') });
}

/** Something beside the server holds the database. */
export function lockedByOthers(cause: unknown): ProblemError {
  logger.error(`another program holds the database: ${cause instanceof Error ? cause.message : 'unknown'}`);
  return new ProblemError({
    code: 'too-busy',
    sentence: say('databaseLocked'),
    whatToDo: say('databaseLockedWhatToDo'),
  });
}

const FULL = new Set(['SQLITE_FULL', 'ENOSPC', 'EDQUOT']);

/** Whether something failed because the disk is full. */
export function isDiskFull(error: unknown): boolean {
  const { code, driverError } = (error ?? {}) as { code?: string; driverError?: { code?: string } };
  return FULL.has(code ?? '') || FULL.has(driverError?.code ?? '');
}
