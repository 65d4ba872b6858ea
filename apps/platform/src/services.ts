import { randomUUID } from 'node:crypto';
import express, { type Request, type Response, type Router } from 'express';
import { keySet, fromTool } from './statements.js';
import { nameOf, textOf, type Column, type Store } from './state.js';

/** What the platform offers to the application that is connected: tokens, people, columns, scores. */

const TYPES = {
  members: 'application/vnd.ims.lti-nrps.v2.membershipcontainer+json',
  column: 'application/vnd.ims.lis.v2.lineitem+json',
  columns: 'application/vnd.ims.lis.v2.lineitemcontainer+json',
  score: 'application/vnd.ims.lis.v1.score+json',
  results: 'application/vnd.ims.lis.v2.resultcontainer+json',
} as const;
const AGS = 'https://purl.imsglobal.org/spec/lti-ags/scope';
const MEMBERS = 'https://purl.imsglobal.org/spec/lti-nrps/scope/contextmembership.readonly';
const KNOWN = [MEMBERS, `${AGS}/lineitem`, `${AGS}/score`, `${AGS}/result.readonly`];

interface Token {
  readonly scopes: readonly string[];
  readonly until: number;
}

/** What each service works on. */
interface Services {
  readonly router: Router;
  readonly store: Store;
  readonly base: () => string;
  /** Answers where it may not. @returns whether the request may go on */
  readonly allowed: (request: Request, response: Response, scope: string) => boolean;
}

export function services(store: Store, base: () => string): Router {
  const router = express.Router();
  router.use(express.json({ type: ['application/json', TYPES.column, TYPES.score], limit: '100kb' }));
  router.use((_request, response, next) => {
    if (store.has('down')) {
      response.status(503).json({ message: 'be right back' });
      return;
    }
    if (store.has('slow')) setTimeout(next, 5_000);
    else next();
  });
  router.get('/keys', (_, response) => void response.json(keySet(store)));
  const offered = { router, store, base, allowed: giveTokens(router, store, base) };
  giveMembers(offered);
  keepColumns(offered);
  takeScores(offered);
  giveResults(offered);
  return router;
}

/** @returns as in {@link Services} */
function giveTokens(router: Router, store: Store, base: () => string): Services['allowed'] {
  const tokens = new Map<string, Token>();
  const used = new Set<string>();
  router.post('/token', express.urlencoded({ extended: false }), (request, response, next) => {
    const body = request.body as Record<string, string>;
    const refuse = (error: string, description: string) =>
      void response.status(400).json({ error, error_description: description });
    if (body['grant_type'] !== 'client_credentials')
      return refuse('unsupported_grant_type', 'Only client_credentials.');
    fromTool(store, body['client_assertion'] ?? '', `${base()}/token`)
      .then((claims) => {
        const id = textOf(claims['jti']);
        if (id === '' || used.has(id)) return refuse('invalid_client', 'This statement has been used before.');
        used.add(id);
        if (claims['sub'] !== store.state.tool?.clientId)
          return refuse('invalid_client', 'Somebody else is the subject.');
        const scopes = (body['scope'] ?? '').split(' ').filter((one) => KNOWN.includes(one));
        if (scopes.length === 0) return refuse('invalid_scope', 'None of these is given here.');
        const value = randomUUID();
        const seconds = 3_600;
        tokens.set(value, { scopes, until: Date.now() + seconds * 1_000 });
        response.json({ access_token: value, token_type: 'Bearer', expires_in: seconds, scope: scopes.join(' ') });
      })
      .catch((error: Error) => refuse('invalid_client', error.message))
      .catch(next);
  });

  return (request, response, scope) => {
    const value = (request.headers.authorization ?? '').replace(/^Bearer /, '');
    const token = tokens.get(value);
    if (store.has('tokens')) tokens.delete(value);
    if (token === undefined || token.until < Date.now()) {
      response.status(401).json({ message: 'No token, or one that has ended.' });
      return false;
    }
    if (!token.scopes.includes(scope)) {
      response.status(403).json({ message: 'This token is not for that.' });
      return false;
    }
    return true;
  };
}

function giveMembers({ router, store, base, allowed }: Services): void {
  const { state } = store;
  router.get('/services/:course/members', (request, response) => {
    if (!allowed(request, response, MEMBERS)) return;
    const page = Number(request.query['page'] ?? 1);
    const limit = Math.min(Number(request.query['limit']) || state.pageSize, state.pageSize);
    if (page === 2 && store.has('page')) {
      response.status(404).json({ message: 'There is no such page.' });
      return;
    }
    const some = state.people.slice((page - 1) * limit, page * limit);
    const last = page * limit >= state.people.length;
    const next = store.has('circle') ? 1 : page + 1;
    const here = `${base()}/services/${state.course.id}/members`;
    if (!last || store.has('circle')) response.setHeader('Link', `<${here}?page=${next}&limit=${limit}>; rel="next"`);
    response.type(TYPES.members).send(
      JSON.stringify({
        id: here,
        context: state.course,
        members: some.map((one) => ({
          ...{ user_id: one.id, roles: one.roles, status: one.status, name: nameOf(one) },
          ...{ given_name: one.given, family_name: one.family },
          ...(one.email !== null && { email: one.email }),
          ...(one.number !== null && { lis_person_sourcedid: one.number }),
        })),
      }),
    );
  });
}

function shown({ store: { state }, base }: Services, { id, ...rest }: Column) {
  return { id: `${base()}/services/${state.course.id}/columns/${id}`, ...rest };
}

/** Answers where there is none. */
function columnOf({ store: { state } }: Services, request: Request, response: Response): Column | null {
  const column = state.columns.find(({ id }) => id === request.params['column']);
  if (column === undefined) response.status(404).json({ message: 'There is no such column.' });
  return column ?? null;
}

function keepColumns(offered: Services): void {
  const { router, store, allowed } = offered;
  const { state } = store;
  router
    .route('/services/:course/columns')
    .get((request, response) => {
      if (!allowed(request, response, `${AGS}/lineitem`)) return;
      const { resource_id: resource, tag } = request.query;
      const found = state.columns.filter(
        (one) => (resource === undefined || one.resourceId === resource) && (tag === undefined || one.tag === tag),
      );
      response.type(TYPES.columns).send(JSON.stringify(found.map((column) => shown(offered, column))));
    })
    .post((request, response) => {
      if (!allowed(request, response, `${AGS}/lineitem`)) return;
      const { label, scoreMaximum, resourceId, tag } = request.body as Partial<Column>;
      if (typeof label !== 'string' || typeof scoreMaximum !== 'number') {
        response.status(400).json({ message: 'A column needs a label and a maximum.' });
        return;
      }
      const column = { id: randomUUID(), label, scoreMaximum, resourceId: resourceId ?? null, tag: tag ?? null };
      state.columns.push(column);
      store.keep();
      response
        .status(201)
        .type(TYPES.column)
        .send(JSON.stringify(shown(offered, column)));
    });

  router
    .route('/services/:course/columns/:column')
    .get((request, response) => {
      if (!allowed(request, response, `${AGS}/lineitem`)) return;
      const column = columnOf(offered, request, response);
      if (column !== null) response.type(TYPES.column).send(JSON.stringify(shown(offered, column)));
    })
    .put((request, response) => {
      if (!allowed(request, response, `${AGS}/lineitem`)) return;
      const column = columnOf(offered, request, response);
      if (column === null) return;
      const { label } = request.body as Partial<Column>;
      const renamed = { ...column, label: typeof label === 'string' ? label : column.label };
      state.columns = state.columns.map((one) => (one.id === column.id ? renamed : one));
      store.keep();
      response.type(TYPES.column).send(JSON.stringify(shown(offered, renamed)));
    })
    .delete((request, response) => {
      if (!allowed(request, response, `${AGS}/lineitem`)) return;
      const column = columnOf(offered, request, response);
      if (column === null) return;
      state.columns = state.columns.filter(({ id }) => id !== column.id);
      delete state.scores[column.id];
      store.keep();
      response.status(204).end();
    });
}

function takeScores(offered: Services): void {
  const { router, store, allowed } = offered;
  const { state } = store;
  /** Scores that have failed once, by column and person. */
  const failed = new Set<string>();
  router.post('/services/:course/columns/:column/scores', (request, response) => {
    if (!allowed(request, response, `${AGS}/score`)) return;
    const column = columnOf(offered, request, response);
    if (column === null) return;
    const body = request.body as Record<string, unknown>;
    const user = textOf(body['userId']);
    const place = state.people.findIndex(({ id }) => id === user);
    if (place < 0) {
      response.status(404).json({ message: `Nobody here is ${user}.` });
      return;
    }
    const tenth = place % 10 === 9;
    if (tenth && store.has('refuse')) {
      response.status(422).json({ message: 'The term of this person is closed.' });
      return;
    }
    const first = !failed.has(`${column.id} ${user}`);
    if (tenth && first && store.has('shaky')) {
      failed.add(`${column.id} ${user}`);
      response.status(500).json({ message: 'Something broke.' });
      return;
    }
    const before = state.scores[column.id]?.[user];
    const timestamp = textOf(body['timestamp']);
    if (before !== undefined && Date.parse(timestamp) <= Date.parse(before.timestamp)) {
      response.status(409).json({ message: 'A later score is here already.' });
      return;
    }
    const given = body['scoreGiven'];
    (state.scores[column.id] ??= {})[user] = {
      given: typeof given === 'number' ? given : null,
      maximum: typeof body['scoreMaximum'] === 'number' ? body['scoreMaximum'] : column.scoreMaximum,
      comment: textOf(body['comment']),
      grading: textOf(body['gradingProgress']),
      activity: textOf(body['activityProgress']),
      timestamp,
      times: (before?.times ?? 0) + 1,
    };
    store.keep();
    if (tenth && first && store.has('lost')) {
      failed.add(`${column.id} ${user}`);
      response.status(500).json({ message: 'Something broke.' });
      return;
    }
    response.status(204).end();
  });
}

function giveResults(offered: Services): void {
  const { router, store, allowed } = offered;
  router.get('/services/:course/columns/:column/results', (request, response) => {
    if (!allowed(request, response, `${AGS}/result.readonly`)) return;
    const column = columnOf(offered, request, response);
    if (column === null) return;
    const rows = Object.entries(store.state.scores[column.id] ?? {}).map(([userId, { given, maximum, comment }]) => ({
      ...{ id: `${shown(offered, column).id}/results/${userId}`, scoreOf: shown(offered, column).id, userId, comment },
      ...(given !== null && {
        resultScore: (given / maximum) * column.scoreMaximum,
        resultMaximum: column.scoreMaximum,
      }),
    }));
    response.type(TYPES.results).send(JSON.stringify(rows));
  });
}
