import { Inject, Injectable } from '@nestjs/common';
import { CLAIM } from '@salt-circle/core';
import type { Settings } from '../../../platform/config/settings.js';
import { SETTINGS } from '../../../platform/config/settings.token.js';
import { webAddress } from '../../../platform/security/web-address.js';
import { Outward, OutwardError, type Answered, type Asked } from '../../../platform/outward/outward.js';
import { LtiFault, outwardFault, refusedWith } from './lti-fault.js';
import { Platforms } from './platforms.service.js';
import { SIGNED_BY } from './keys.service.js';
import { say } from '../../../words/lti.js';

type Fields = Readonly<Record<string, unknown>>;

/** What of its OpenID configuration (OpenID Connect Discovery 1.0, section 3) is needed. */
interface Configuration {
  readonly issuer: string;
  readonly authUrl: string;
  readonly tokenUrl: string;
  readonly keysUrl: string;
  readonly registerUrl: string;
}

const KIND = 'https://purl.imsglobal.org/spec/lti-platform-configuration';
/** What it has to say of itself before anything of it is asked or kept; fields of its OpenID configuration. */
const ADDRESSES = ['issuer', 'authorization_endpoint', 'token_endpoint', 'jwks_uri', 'registration_endpoint'] as const;
/** Characters of a client or deployment id (LTI 1.3, section 5.3.3 and the request class for what is typed). */
const LONGEST_ID = 255;
const OWN_KIND = 'https://purl.imsglobal.org/spec/lti-tool-configuration';

/** Registers us at a platform that says where it takes registrations (LTI Dynamic Registration 1.0; OpenID Connect Dynamic Client Registration 1.0). */
@Injectable()
export class Registration {
  constructor(
    private readonly outward: Outward,
    private readonly platforms: Platforms,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {}

  /**
   * @param link token of the link that the platform was given
   * @param from where the platform describes itself, and what it gave us to register with
   * @returns how the platform is called here
   * @throws LtiFault, ProblemError; the link can be used again then
   */
  async register(
    link: string,
    from: { readonly configuration: string; readonly token: string | null },
  ): Promise<string> {
    const { tokenHash, byId, name } = await this.platforms.registrationOf(link);
    const there = await this.#configuration(from.configuration);
    const answer = await this.#json(there.registerUrl, {
      method: 'POST',
      headers: {
        'content-type': 'application/json',
        accept: 'application/json',
        ...(from.token !== null && { authorization: `Bearer ${from.token}` }),
      },
      body: JSON.stringify(this.#ourselves()),
    });
    const clientId = textIn(answer, 'client_id');
    if (clientId === null) throw new LtiFault('odd', say('platformTookRegistrationButGave'));
    const deployment = textIn(fieldsIn(answer, OWN_KIND), 'deployment_id');
    if ([clientId, deployment ?? ''].some((id) => id.length > LONGEST_ID))
      throw new LtiFault('odd', say('registrationTooLong'));
    await this.platforms.insert(
      {
        ...{ name, clientId, active: true, makesCourses: true, tokenAudience: null },
        ...{ issuer: there.issuer, authUrl: there.authUrl, tokenUrl: there.tokenUrl, keysUrl: there.keysUrl },
        pages: [...new Set([new URL(there.issuer).origin, new URL(there.authUrl).origin])],
        deployments: deployment === null ? [] : [deployment],
      },
      byId,
      tokenHash,
    );
    return name;
  }

  /** The platform that describes itself and the place where it does so have to belong together. */
  async #configuration(address: string): Promise<Configuration> {
    const found = await this.#json(address, { headers: { accept: 'application/json' } });
    const said = ADDRESSES.map((field) => [field, textIn(found, field)] as const);
    const [issuer, authUrl, tokenUrl, keysUrl, registerUrl] = said.map(([, address]) => address);
    if (!issuer || !authUrl || !tokenUrl || !keysUrl || !registerUrl) {
      throw new LtiFault('odd', say('platformDoesNotSayAll'));
    }
    for (const [field, address] of said) {
      if (webAddress(address ?? '') === null)
        throw new LtiFault('odd', say('registrationAddress', { field, address: address ?? '' }));
    }
    if (new URL(issuer).host !== new URL(address).host) {
      throw new LtiFault(
        'odd',
        say('whatDescribesPlatformIsAt', { host: new URL(address).host, host2: new URL(issuer).host }),
      );
    }
    if (fieldsIn(found, KIND) === null) throw new LtiFault('odd', say('thisIsNoPlatformThat'));
    return { issuer, authUrl, tokenUrl, keysUrl, registerUrl };
  }

  #ourselves(): Fields {
    const { loginUrl, launchUrl, keysUrl, scopes } = this.platforms.ours;
    const { host } = new URL(this.settings.publicUrl);
    return {
      application_type: 'web',
      response_types: ['id_token'],
      grant_types: ['implicit', 'client_credentials'],
      initiate_login_uri: loginUrl,
      redirect_uris: [launchUrl],
      client_name: say('saltCircle'),
      jwks_uri: keysUrl,
      token_endpoint_auth_method: 'private_key_jwt',
      id_token_signed_response_alg: SIGNED_BY,
      scope: scopes.join(' '),
      [OWN_KIND]: {
        domain: host,
        description: say('peerReviewOfStudentDrafts'),
        target_link_uri: launchUrl,
        claims: ['iss', 'sub', 'name', 'given_name', 'family_name', 'email', CLAIM.lis],
        messages: [
          { type: 'LtiResourceLinkRequest', target_link_uri: launchUrl },
          { type: 'LtiDeepLinkingRequest', target_link_uri: launchUrl, label: say('exchangeOfSaltCircle') },
        ],
      },
    };
  }

  async #json(address: string, asked: Asked): Promise<Fields> {
    const { status, text } = await this.#ask(address, asked);
    if (status >= 400) throw refusedWith(say('platform'), status, text);
    try {
      const body = JSON.parse(text) as unknown;
      if (typeof body === 'object' && body !== null && !Array.isArray(body)) return body as Fields;
    } catch {
      // Said below, like all that is no object.
    }
    throw new LtiFault('odd', say('platformAnsweredWithSomethingThat'));
  }

  async #ask(address: string, asked: Asked): Promise<Answered> {
    try {
      return await this.outward.ask(address, asked);
    } catch (error) {
      if (error instanceof OutwardError) throw outwardFault(say('platform'), error.host, error.fault);
      throw error;
    }
  }
}

function textIn(fields: Fields | null, name: string): string | null {
  const value = fields?.[name];
  return typeof value === 'string' && value !== '' && value.length <= 2_000 ? value : null;
}

function fieldsIn(fields: Fields, name: string): Fields | null {
  const value = fields[name];
  return typeof value === 'object' && value !== null ? (value as Fields) : null;
}
