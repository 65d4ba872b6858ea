import { StandInPlatform, type Tool } from '@salt-circle/stand-in-platform';
import { SCOPE } from '@salt-circle/core';
import request from 'supertest';
import { LtiPlatform, LtiCourse, LtiDeployment } from '../model/lti.js';
import { Enrolment } from '../model/course.js';
import type { World } from './world.js';

const PUBLIC = 'https://salt-circle.example.org';

/** The stand-in platform beside the application, each known to the other. */
export class LtiWorld {
  private constructor(
    readonly world: World,
    readonly platform: StandInPlatform,
    readonly ours: string,
  ) {}

  static async open(world: World, part: Partial<LtiPlatform> = {}): Promise<LtiWorld> {
    const { id = 'northmere' } = part;
    const ours = await world.url();
    const tool: Tool = {
      ...{ clientId: 'client-1', deploymentId: 'd-1', name: 'Salt Circle' },
      loginUrl: `${ours}/api/lti/login`,
      // As the application names it, which is behind a proxy as it were.
      launchUrl: `${PUBLIC}/api/lti/launch`,
      keysUrl: `${ours}/api/lti/keys`,
    };
    const platform = await StandInPlatform.start({ port: 0, file: null, tool });
    await world.database.write(async (manager) => {
      await manager.insert(LtiPlatform, {
        ...{ id, name: 'Northmere', issuer: platform.url, clientId: 'client-1' },
        ...{ authUrl: `${platform.url}/auth`, tokenUrl: `${platform.url}/token`, keysUrl: `${platform.url}/keys` },
        ...{ pages: [platform.url], createdAt: 0, ...part },
      });
      await manager.insert(LtiDeployment, { platformId: id, deploymentId: 'd-1', allowed: true });
    });
    return new LtiWorld(world, platform, ours);
  }

  /** Ties a course, and people of it, to those of the platform, as launches and a fetched list would have. @param users by person */
  async link(courseId: string, users: Readonly<Record<string, string>>): Promise<void> {
    const { course } = this.platform.store.state;
    const services = `${this.platform.url}/services/${course.id}`;
    await this.world.database.write(async (manager) => {
      await manager.insert(LtiCourse, {
        ...{
          courseId,
          platformId: 'northmere',
          deploymentId: 'd-1',
          contextId: course.id,
          title: course.title,
          fault: null,
        },
        services: {
          ...{ membershipsUrl: `${services}/members`, columnsUrl: `${services}/columns`, columnUrl: null },
          scopes: Object.values(SCOPE),
        },
      });
      for (const [personId, ltiUser] of Object.entries(users))
        await manager.update(Enrolment, { courseId, personId }, { ltiUser });
    });
  }

  visitor(person: string): Visitor {
    return new Visitor(this, person);
  }
}

interface Answer {
  readonly status: number;
  readonly to: string;
  readonly text: string;
  readonly cookies: readonly string[];
}

/** A browser that belongs to somebody of the platform: with cookies of both sides, and no scripts. */
export class Visitor {
  readonly cookies = new Map<string, Map<string, string>>();

  constructor(
    private readonly at: LtiWorld,
    person: string,
  ) {
    this.#jar(at.platform.url).set('stand_in', person);
  }

  #jar(origin: string): Map<string, string> {
    const jar = this.cookies.get(origin) ?? new Map<string, string>();
    this.cookies.set(origin, jar);
    return jar;
  }

  /** @param address of either side, also as the application names itself */
  async go(
    address: string,
    { form, inside = false }: { form?: Record<string, string>; inside?: boolean } = {},
  ): Promise<Answer> {
    const url = new URL(address.replace(PUBLIC, this.at.ours), this.at.ours);
    const jar = this.#jar(url.origin);
    const call = request(url.origin)
      [form === undefined ? 'get' : 'post'](`${url.pathname}${url.search}`)
      .set('cookie', [...jar].map(([name, value]) => `${name}=${value}`).join('; '))
      .set('sec-fetch-dest', inside ? 'iframe' : 'document')
      .redirects(0);
    const { status, headers, text } = await (form === undefined ? call : call.type('form').send(form));
    const cookies = (headers['set-cookie'] as unknown as string[] | undefined) ?? [];
    for (const cookie of cookies) {
      const [name = '', value = ''] = (cookie.split(';')[0] ?? '').split('=');
      jar.set(name, value);
    }
    return { status, to: String(headers['location'] ?? ''), text, cookies };
  }

  /** Presses a link on the platform's page. @returns the form with which the platform sends the browser to us */
  async press(path = '/open/link-1'): Promise<Record<string, string>> {
    const begun = await this.go(`${this.at.platform.url}${path}`);
    const sent = await this.go(begun.to);
    return fieldsIn((await this.go(sent.to)).text);
  }

  /** Presses a link, and comes to us. @returns where the application sends the browser */
  async come(path?: string, options: { inside?: boolean } = {}): Promise<string> {
    const form = await this.press(path);
    return (await this.go('/api/lti/launch', { form, ...options })).to;
  }

  /** Asks our API as a page of ours does. */
  async ask<T>(method: 'get' | 'post' | 'put', path: string, body: object = {}): Promise<{ status: number; body: T }> {
    const call = request(this.at.ours)
      [method](`/api${path}`)
      .set('x-salt-circle', '1')
      .set('cookie', [...this.#jar(this.at.ours)].map(([name, value]) => `${name}=${value}`).join('; '));
    const { status, headers, text } = await (method === 'get' ? call : call.send(body));
    for (const cookie of (headers['set-cookie'] as unknown as string[] | undefined) ?? []) {
      const [name = '', value = ''] = (cookie.split(';')[0] ?? '').split('=');
      this.#jar(this.at.ours).set(name, value);
    }
    return { status, body: (text === '' ? null : JSON.parse(text)) as T };
  }

  /** What somebody who has come is shown. @param arrival the page `/arrive/…` */
  see<T>(arrival: string): Promise<{ status: number; body: T }> {
    return this.ask<T>('get', `/lti${arrival.replace('/arrive', '/arrivals')}`);
  }

  /** Says what is asked of somebody who has come. @param arrival the page `/arrive/…` */
  say<T>(arrival: string, what: string, body: object = {}): Promise<{ status: number; body: T }> {
    return this.ask<T>('post', `/lti${arrival.replace('/arrive', '/arrivals')}/${what}`, body);
  }
}

export function fieldsIn(html: string): Record<string, string> {
  const unescaped = (text: string) =>
    text
      .replace(/&quot;/g, '"')
      .replace(/&lt;/g, '<')
      .replace(/&gt;/g, '>')
      .replace(/&amp;/g, '&');
  return Object.fromEntries(
    [...html.matchAll(/name="([^"]+)" value="([^"]*)"/g)].map(([, name = '', value = '']) => [name, unescaped(value)]),
  );
}
