import { LIMITS } from '@salt-circle/contracts';
import { text, urlencoded, type NextFunction, type Request, type RequestHandler, type Response } from 'express';
import { asking } from '../platform/jobs/asking.js';
import { networkOf } from '../platform/security/network.js';
import { readBody } from '../platform/problems/body-shape.js';
import { answerProblem } from '../platform/problems/problem-filter.js';
import { signedOut } from '../platform/problems/sentences.js';
import type { AccessTokens } from './access-tokens.js';
import type { PersonRequest } from './session.guard.js';
import type { SessionService } from './session.service.js';

/** What somebody may send to who is not signed in, under `/api`. All of it is small. */
export const OPEN = ['session', 'forgotten', 'password-links', 'address-links', 'invitations', 'lti', 'demo'] as const;

/** Where browsers are sent with a form by platforms. */
const FORMS = ['/lti/login', '/lti/launch'];

const SAFE = new Set(['GET', 'HEAD', 'OPTIONS']);
// Compressed bodies are not taken: nothing here sends any.
const small = text({ type: 'application/json', limit: LIMITS.anonymousBytes, inflate: false });
const form = urlencoded({ extended: false, limit: LIMITS.formBytes, parameterLimit: 30, inflate: false });
const whole = text({ type: 'application/json', limit: LIMITS.requestBytes, inflate: false });

/**
 * Before a request reaches a controller: who asks is found out, whoever is not signed in is refused before a byte of a body is read,
 * and a body is no larger, deeper or wider than any that is expected. What is wrong is answered here: what comes after serves
 * files as well, and would take a body that cannot be read for a file that is not there.
 */
export function frontGate(sessions: SessionService, tokens: AccessTokens): Array<RequestHandler | typeof answerError> {
  const who: RequestHandler = (request: PersonRequest, response, next) => {
    // A token is asked for by itself: with it, a cookie counts for nothing.
    const asks =
      request.headers.authorization === undefined
        ? sessions.personOf(request.headers.cookie)
        : tokens.personOf(request.headers.authorization, request.method, request.path);
    asks
      .then((person) => {
        request.person = person;
        if (person === null && !SAFE.has(request.method) && !isOpen(request)) throw signedOut();
        asking.run({ by: person?.id ?? networkOf(request.ip), gone: goneOf(response) }, next);
      })
      .catch(next);
  };
  // Whoever is not signed in may still look (and send a body with it, which nobody reads): that is small as well.
  const body: RequestHandler = (request: PersonRequest, response, next) =>
    (FORMS.includes(request.path) ? form : request.person == null || isOpen(request) ? small : whole)(
      request,
      response,
      next,
    );
  const shape: RequestHandler = (request, _, next) => {
    const body: unknown = request.body;
    if (typeof body === 'string') request.body = body === '' ? undefined : readBody(body);
    next();
  };
  return [who, body, shape, answerError];
}

/** Aborted when the connection closes before the answer is whole. */
function goneOf(response: Response): AbortSignal {
  const gone = new AbortController();
  response.once('close', () => {
    if (!response.writableFinished) gone.abort(new DOMException('whoever asked has gone away', 'AbortError'));
  });
  return gone.signal;
}

/** @param request mounted at `/api` */
function isOpen({ path }: Request): boolean {
  return OPEN.some((name) => path === `/${name}` || path.startsWith(`/${name}/`));
}

function answerError(error: unknown, _: Request, response: Response, _next: NextFunction): void {
  answerProblem(error, response);
}
