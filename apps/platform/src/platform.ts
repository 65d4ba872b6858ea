import { randomUUID } from 'node:crypto';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import express, { type Express, type Request } from 'express';
import { coursePage, esc, gradebookPage, handOver, homePage, insidePage, page, settingsPage } from './pages.js';
import { services } from './services.js';
import { FAULTS, isStaff, nameOf, Store, textOf, type Fault, type Link, type Member, type Tool } from './state.js';
import { fromTool, launchClaims, signed } from './statements.js';

const OWN_KIND = 'https://purl.imsglobal.org/spec/lti-tool-configuration';
const CONTENT = 'https://purl.imsglobal.org/spec/lti-dl/claim/content_items';

export interface LtiOptions {
  /** 0 for any that is free. */
  readonly port: number;
  /** Where its data is kept; null to keep nothing. */
  readonly file: string | null;
  /** Connected from the beginning. */
  readonly tool?: Tool;
}

/** A stand-in for a platform: it speaks the platform's side of the standards, for one course. */
export class StandInPlatform {
  readonly #server: Server;

  private constructor(
    readonly store: Store,
    app: Express,
  ) {
    this.#server = createServer(app);
  }

  static async start({ port, file, tool }: LtiOptions): Promise<StandInPlatform> {
    const store = new Store(file);
    if (tool !== undefined) connect(store, tool);
    let platform: StandInPlatform | null = null;
    const app = appOf(store, () => platform?.url ?? '');
    platform = new StandInPlatform(store, app);
    const server = platform.#server;
    await new Promise<void>((done, failed) => {
      server.on('error', failed);
      server.listen(port, '127.0.0.1', done);
    });
    return platform;
  }

  /** By `localhost`, as the application is in the demo: browsers take both for one site then. */
  get url(): string {
    return `http://localhost:${(this.#server.address() as AddressInfo).port}`;
  }

  connect(tool: Tool): void {
    connect(this.store, tool);
  }

  async stop(): Promise<void> {
    this.#server.closeAllConnections();
    await new Promise((done) => this.#server.close(done));
  }
}

/** With the one link that leads to the application as a whole. */
function connect(store: Store, tool: Tool): void {
  const { state } = store;
  state.tool = tool;
  if (state.links.length === 0) state.links.push({ id: 'link-1', title: tool.name, custom: {}, columnId: null });
  store.keep();
}

function appOf(store: Store, base: () => string): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(services(store, base));
  app.use(express.urlencoded({ extended: false, limit: '200kb' }));
  showPages(app, store, base);
  launchTool(app, store, base);
  takeChanges(app, store);
  registerTools(app, store, base);
  return app;
}

function whoIs(store: Store, request: Request): Member | null {
  return store.member(/(?:^|; )stand_in=([^;]+)/.exec(request.headers.cookie ?? '')?.[1] ?? '') ?? null;
}

function showPages(app: Express, store: Store, base: () => string): void {
  app.get('/', (_, response) => void response.send(homePage(store)));
  app.post('/enter', (request, response) => {
    response.cookie('stand_in', String((request.body as { id?: string }).id ?? ''), {
      httpOnly: true,
      sameSite: 'lax',
    });
    response.redirect(303, '/course');
  });
  const signedIn = (path: string, show: (who: Member, request: Request) => string) =>
    app.get(path, (request, response) => {
      const who = whoIs(store, request);
      if (who === null) response.redirect(303, '/');
      else response.send(show(who, request));
    });
  signedIn('/course', (who) => coursePage(store, who));
  signedIn('/gradebook', (who) => gradebookPage(store, who));
  signedIn('/settings', (who) => settingsPage(store, who, base()));
  signedIn('/inside/:id', (who, request) => insidePage(who, String(request.params['id'])));
}

function launchTool(app: Express, store: Store, base: () => string): void {
  const { state } = store;
  /** The application is told that somebody comes (OpenID Connect core, section 4). */
  const initiation = ({ loginUrl, launchUrl, clientId, deploymentId }: Tool, who: Member, hint: string): string => {
    const to = new URL(loginUrl);
    const asked = { iss: base(), login_hint: who.id, lti_message_hint: hint, target_link_uri: launchUrl };
    for (const [name, value] of Object.entries({ ...asked, client_id: clientId, lti_deployment_id: deploymentId }))
      to.searchParams.set(name, value);
    return to.href;
  };
  const sent = (path: string, hintOf: (request: Request) => string) =>
    app.get(path, (request, response) => {
      const who = whoIs(store, request);
      if (who === null || state.tool === null) response.redirect(303, '/course');
      else response.redirect(302, initiation(state.tool, who, hintOf(request)));
    });
  sent('/open/:id', (request) => String(request.params['id']));
  sent('/choose', () => 'choose');

  app.get('/auth', (request, response) => {
    const asked = request.query as Record<string, string>;
    const { tool } = state;
    const who = whoIs(store, request);
    const wrong =
      tool === null || asked['client_id'] !== tool.clientId
        ? 'The application is not connected.'
        : asked['redirect_uri'] !== tool.launchUrl
          ? 'The application wants an answer at an address that it has not registered.'
          : asked['response_type'] !== 'id_token' ||
              asked['response_mode'] !== 'form_post' ||
              asked['scope'] !== 'openid'
            ? 'The application does not ask as the standard says.'
            : null;
    if (wrong !== null || tool === null) {
      response.status(400).send(page(who, 'This did not work', `<p>${wrong ?? ''}</p>`));
      return;
    }
    const { state: given = '', nonce = '', login_hint: hint, lti_message_hint: linkId } = asked;
    const link = state.links.find(({ id }) => id === linkId) ?? null;
    if (who === null || who.id !== hint || (link === null && linkId !== 'choose')) {
      response.send(handOver(tool.launchUrl, { state: given, error: 'login_required' }));
      return;
    }
    const claims = launchClaims(store, { member: who, link, nonce, base: base() });
    response.send(handOver(tool.launchUrl, { state: given, id_token: signed(store, claims) }));
  });

  app.post('/chosen', (request, response, next) => {
    fromTool(store, String((request.body as { JWT?: string }).JWT ?? ''), base())
      .then((claims) => {
        for (const item of (claims[CONTENT] ?? []) as Array<Record<string, unknown>>) addLink(store, item);
        store.keep();
        response.redirect(303, '/course');
      })
      .catch(
        (error: Error) =>
          void response
            .status(400)
            .send(page(whoIs(store, request), 'This did not work', `<p>${esc(error.message)}</p>`)),
      )
      .catch(next);
  });
}

/** What is changed by hand on the pages. */
function takeChanges(app: Express, store: Store): void {
  const { state } = store;
  app.post('/gradebook', (request, response) => {
    const who = whoIs(store, request);
    const { column = '', person = '', given = '' } = request.body as Record<string, string>;
    const value = Number(given);
    if (who !== null && isStaff(who) && given !== '' && Number.isFinite(value)) {
      const before = state.scores[column]?.[person];
      (state.scores[column] ??= {})[person] = {
        ...{
          given: value,
          maximum: 100,
          comment: `Set by ${nameOf(who)}.`,
          grading: 'FullyGraded',
          activity: 'Completed',
        },
        ...{ timestamp: before?.timestamp ?? new Date(0).toISOString(), times: before?.times ?? 0 },
      };
      store.keep();
    }
    response.redirect(303, '/gradebook');
  });
  app.post('/faults', (request, response) => {
    const { fault } = request.body as { fault?: string | string[] };
    const chosen = new Set([fault ?? []].flat());
    state.faults = (Object.keys(FAULTS) as Fault[]).filter((one) => chosen.has(one));
    store.keep();
    response.redirect(303, '/settings');
  });
  app.post('/people', (request, response) => {
    const { given = '', family = '' } = request.body as Record<string, string>;
    const roles = state.people.find((one) => !isStaff(one))?.roles ?? [];
    if (given !== '' && family !== '') {
      state.people.push({
        id: `u-${randomUUID().slice(0, 8)}`,
        given,
        family,
        email: null,
        number: null,
        roles,
        status: 'Active',
      });
      store.keep();
    }
    response.redirect(303, '/settings');
  });
}

/** Dynamic registration: the application is opened with where this platform describes itself, and a token to register with. */
function registerTools(app: Express, store: Store, base: () => string): void {
  const { state } = store;
  app.post('/connect', (request, response) => {
    const address = String((request.body as { address?: string }).address ?? '');
    if (!URL.canParse(address)) {
      response.redirect(303, '/settings');
      return;
    }
    const token = randomUUID();
    state.registrations.push(token);
    store.keep();
    const to = new URL(address);
    to.searchParams.set('openid_configuration', `${base()}/.well-known/openid-configuration`);
    to.searchParams.set('registration_token', token);
    response.redirect(303, to.href);
  });
  app.get('/.well-known/openid-configuration', (_, response) => {
    response.json({
      issuer: base(),
      authorization_endpoint: `${base()}/auth`,
      token_endpoint: `${base()}/token`,
      jwks_uri: `${base()}/keys`,
      registration_endpoint: `${base()}/register`,
      id_token_signing_alg_values_supported: ['RS256'],
      token_endpoint_auth_methods_supported: ['private_key_jwt'],
      'https://purl.imsglobal.org/spec/lti-platform-configuration': {
        product_family_code: 'stand-in',
        version: '1',
        messages_supported: [{ type: 'LtiResourceLinkRequest' }, { type: 'LtiDeepLinkingRequest' }],
      },
    });
  });
  app.post('/register', express.json(), (request, response) => {
    const token = (request.headers.authorization ?? '').replace(/^Bearer /, '');
    if (!state.registrations.includes(token)) {
      response.status(401).json({ error_description: 'No registration has been begun with this token.' });
      return;
    }
    state.registrations = state.registrations.filter((one) => one !== token);
    const body = request.body as Record<string, unknown> & { redirect_uris?: string[] };
    const tool = { clientId: `client-${randomUUID()}`, deploymentId: 'northmere-1', name: textOf(body['client_name']) };
    connect(store, {
      ...tool,
      loginUrl: textOf(body['initiate_login_uri']),
      launchUrl: body.redirect_uris?.[0] ?? '',
      keysUrl: textOf(body['jwks_uri']),
    });
    response.json({
      ...body,
      client_id: tool.clientId,
      [OWN_KIND]: { ...(body[OWN_KIND] as object), deployment_id: tool.deploymentId },
    });
  });
}

function addLink({ state }: Store, item: Record<string, unknown>): void {
  const title = textOf(item['title']) || 'A link';
  const wanted = item['lineItem'] as
    { label?: string; scoreMaximum?: number; resourceId?: string; tag?: string } | undefined;
  let columnId: string | null = null;
  if (wanted !== undefined) {
    columnId = randomUUID();
    const { label = title, scoreMaximum = 100, resourceId = null, tag = null } = wanted;
    state.columns.push({ id: columnId, label, scoreMaximum, resourceId, tag });
  }
  const custom = (item['custom'] ?? {}) as Link['custom'];
  state.links.push({ id: `link-${state.links.length + 1}`, title, custom, columnId });
}
