import { Catch, HttpException, Logger, type ArgumentsHost, type ExceptionFilter } from '@nestjs/common';
import type { Problem } from '@salt-circle/contracts';
import type { Response } from 'express';
import { ProblemError } from './problem-error.js';
import { refusal } from './sentences.js';
import { isDiskFull, storeFull } from './storage.js';
import { say } from '../../words/problems.js';

const logger = new Logger('problem');

/** Turns whatever was thrown into the one shape of problems. */
@Catch()
export class ProblemFilter implements ExceptionFilter {
  catch(thrown: unknown, host: ArgumentsHost): void {
    answerProblem(thrown, host.switchToHttp().getResponse<Response>());
  }
}

/** The same for what is thrown before a request reaches a controller. */
export function answerProblem(thrown: unknown, response: Response): void {
  // Whoever asked has gone away, and the work was called off for it.
  if (response.destroyed && (thrown as { name?: string } | null)?.name === 'AbortError') return;
  const error = asProblem(thrown);
  if (response.headersSent) {
    response.end();
    return;
  }
  response.status(error.status).type('application/problem+json').send(JSON.stringify(error.problem));
}

function asProblem(thrown: unknown): ProblemError {
  if (thrown instanceof ProblemError) return thrown;
  if (isDiskFull(thrown)) return storeFull(thrown);
  if (thrown instanceof HttpException) return fromHttp(thrown.getStatus()) ?? unexpected(thrown);
  // Errors of the body parser carry a status and are no HttpException.
  const status = (thrown as { status?: unknown } | null)?.status;
  return (typeof status === 'number' ? fromHttp(status) : null) ?? unexpected(thrown);
}

function unexpected(thrown: unknown): ProblemError {
  logger.error(thrown instanceof Error ? (thrown.stack ?? thrown.message) : 'something that is no error was thrown');
  return new ProblemError({
    code: 'unexpected',
    sentence: say('somethingWentWrongOnOur'),
    whatToDo: say('tryAgainIfItHappens'),
  });
}

function fromHttp(status: number): ProblemError | null {
  if (status === 404 || status === 405) return refusal('unknown');
  if (status === 413) {
    return simple('too-large', say('thisIsLargerThanWhat'), say('sendLessAtOnceIt'));
  }
  if (status === 400 || status === 415) return simple('not-json', say('requestCouldNotBeRead'), say('loadPageAgain'));
  return null;
}

function simple(code: Problem['code'], sentence: string, whatToDo: string): ProblemError {
  return new ProblemError({ code, sentence, whatToDo });
}
