import { timingSafeEqual } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { readLaunch, type LtiServices, type Launch } from '@salt-circle/core';
import { errors, jwtVerify, type JWTPayload } from 'jose';
import { LessThan } from 'typeorm';
import { LtiPlatform, LtiDeployment, LtiLogin } from '../../../model/lti.js';
import { Clock } from '../../../platform/clock/clock.js';
import type { Settings } from '../../../platform/config/settings.js';
import { SETTINGS } from '../../../platform/config/settings.token.js';
import { Database } from '../../../platform/database/database.js';
import { hashOf } from '../../../platform/ids/hash-of.js';
import { Ids } from '../../../platform/ids/ids.js';
import { earlierOf } from '../../../platform/security/earlier-addresses.js';
import { webAddress } from '../../../platform/security/web-address.js';
import { Outward } from '../../../platform/outward/outward.js';
import type { ArrivalFault } from '../../../platform/problems/lti-sentences.js';
import { ArrivalRefused } from './arrival-fault.js';
import { LtiKeysets } from '../platforms/lti-keysets.js';
import { SIGNED_BY } from '../platforms/keys.service.js';

/** Milliseconds from being sent to the platform until being back. */
const WAY_LASTS = 10 * 60_000;
/** Seconds: how old a statement may be, and by how much clocks may differ. */
const OLDEST = 600;
const APART = 60;
/** UTF-16 code units of each thing that a platform sends a browser with. */
const LONGEST = 4_000;

type Form = Readonly<Record<string, unknown>>;

/** A launch that can be believed. */
export interface Believed {
  readonly platform: LtiPlatform;
  readonly launch: Launch;
}

/** The browser came back without what it was given: inside of a page, its cookies are refused. */
export interface WithoutCookie {
  /** What it was sent with, to begin again in a window of its own. */
  readonly again: Readonly<Record<string, string>>;
}

/** That the platform was told the earlier addresses; of our own, and kept with the rest for a second try. */
export const EARLIER = 'salt_circle_earlier';

/** What is passed on when somebody is sent to the platform to be told who it is. */
const PASSED_ON = [
  'iss',
  'login_hint',
  'target_link_uri',
  'lti_message_hint',
  'client_id',
  'lti_deployment_id',
  EARLIER,
] as const;

/**
 * The way in from a platform: sent here, sent back to be told who it is, sent here again with a signed statement (OpenID Connect, third-party
 * initiated login; LTI 1.3 core and the security framework of 1EdTech, section 5).
 */
@Injectable()
export class LaunchService {
  readonly #keysets: LtiKeysets;

  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly ids: Ids,
    @Inject(SETTINGS) private readonly settings: Settings,
    outward: Outward,
  ) {
    this.#keysets = new LtiKeysets(outward);
  }

  /** @param browser what the browser holds @returns where it is sent @throws ArrivalRefused */
  async login(form: Form, browser: string): Promise<string> {
    const asked: Record<string, string> = Object.fromEntries(
      PASSED_ON.flatMap((name) => {
        const value = form[name];
        return typeof value === 'string' && value !== '' && value.length <= LONGEST ? [[name, value] as const] : [];
      }),
    );
    const { iss, login_hint: hint } = asked;
    if (iss === undefined || hint === undefined) throw new ArrivalRefused('asked-wrong');
    const platform = await this.#platform(iss, asked['client_id']);
    const to = webAddress(platform.authUrl);
    if (to === null) throw new ArrivalRefused('address-odd', platform.id);
    const state = this.ids.token();
    const nonce = this.ids.token();
    const now = this.clock.real();
    await this.database.write(async (manager) => {
      // Here and not hourly: anybody can begin as often as the network's bound lets them.
      await manager.delete(LtiLogin, { createdAt: LessThan(now - WAY_LASTS) });
      await manager.insert(LtiLogin, {
        ...{ stateHash: hashOf(state), browserHash: hashOf(browser), platformId: platform.id, nonce, asked },
        createdAt: now,
      });
    });
    const parameters = {
      scope: 'openid',
      response_type: 'id_token',
      response_mode: 'form_post',
      prompt: 'none',
      client_id: platform.clientId,
      // A platform takes people back to no other address than it was told.
      redirect_uri: asked[EARLIER] === undefined ? this.launchUrl : earlierOf(this.launchUrl),
      login_hint: hint,
      ...(asked['lti_message_hint'] !== undefined && { lti_message_hint: asked['lti_message_hint'] }),
      ...{ state, nonce },
    };
    for (const [name, value] of Object.entries(parameters)) to.searchParams.set(name, value);
    return to.href;
  }

  /** As platforms are told it now. */
  get launchUrl(): string {
    return `${this.settings.publicUrl}/api/lti/launch`;
  }

  /** @param browser what the browser holds, if anything @throws ArrivalRefused */
  async launch(form: Form, browser: string | null): Promise<Believed | WithoutCookie> {
    const { state, id_token: token, error } = form;
    if (typeof state !== 'string') throw new ArrivalRefused('state');
    const login = await this.database.read.findOneBy(LtiLogin, { stateHash: hashOf(state) });
    if (login === null || this.clock.real() - login.createdAt > WAY_LASTS) throw new ArrivalRefused('state');
    const platform = await this.database.read.findOneByOrFail(LtiPlatform, { id: login.platformId });
    if (browser === null || !same(hashOf(browser), login.browserHash)) return { again: login.asked };
    // Once: of two that come with the same, one finds it.
    const { affected } = await this.database.write((manager) =>
      manager.delete(LtiLogin, { stateHash: login.stateHash }),
    );
    const refuse = (fault: ArrivalFault) => new ArrivalRefused(fault, platform.id);
    if (affected !== 1) throw refuse('state');
    if (!platform.active) throw refuse('platform-paused');
    if (typeof error === 'string') throw refuse('said-no');
    if (typeof token !== 'string' || token === '') throw refuse('no-token');
    const claims = await this.#claims(platform, token);
    if (typeof claims === 'string') throw refuse(claims);
    if (typeof claims['nonce'] !== 'string' || !same(claims['nonce'], login.nonce)) throw refuse('nonce');
    const launch = readLaunch(claims);
    if (typeof launch === 'string') throw refuse(launch);
    if (launch.choosing !== null && webAddress(launch.choosing.returnUrl) === null) throw refuse('no-return');
    if (!(await this.#isAllowed(platform, launch.deploymentId))) throw refuse('deployment');
    return { platform, launch: { ...launch, services: addressesOf(launch.services) } };
  }

  async #platform(issuer: string, clientId: string | undefined): Promise<LtiPlatform> {
    const found = await this.database.read.findBy(LtiPlatform, {
      issuer,
      ...(clientId !== undefined && { clientId }),
    });
    const [platform] = found;
    // Of several by one name, it has to be said which.
    if (platform === undefined || found.length > 1) throw new ArrivalRefused('platform-unknown');
    if (!platform.active) throw new ArrivalRefused('platform-paused', platform.id);
    return platform;
  }

  /** One algorithm, named here and not by the statement (RFC 8725, section 3.1); issuer, audience, and times. */
  async #claims(platform: LtiPlatform, token: string): Promise<JWTPayload | ArrivalFault> {
    if (webAddress(platform.keysUrl) === null) return 'address-odd';
    try {
      const { payload } = await jwtVerify(token, this.#keysets.of(platform), {
        algorithms: [SIGNED_BY],
        issuer: platform.issuer,
        audience: platform.clientId,
        requiredClaims: ['exp', 'iat', 'nonce'],
        maxTokenAge: OLDEST,
        clockTolerance: APART,
        currentDate: new Date(this.clock.real()),
      });
      // OpenID Connect core, section 3.1.3.7: of several audiences, it says for which it was made.
      const { aud, azp } = payload;
      const several = Array.isArray(aud) && aud.length > 1;
      return (several || azp !== undefined) && azp !== platform.clientId ? 'audience' : payload;
    } catch (error) {
      const fault = faultOf(error);
      if (fault === null) throw error;
      return fault;
    }
  }

  /** One that was never seen is noted, so that whoever sees to the platforms can allow it. */
  async #isAllowed({ id: platformId }: LtiPlatform, deploymentId: string): Promise<boolean> {
    const row = await this.database.read.findOneBy(LtiDeployment, { platformId, deploymentId });
    if (row !== null) return row.allowed;
    await this.database.write(async (manager) => {
      if (await manager.existsBy(LtiDeployment, { platformId, deploymentId })) return;
      await manager.insert(LtiDeployment, { platformId, deploymentId, allowed: false });
    });
    return false;
  }
}

/** Null for each that is not a web address. */
function addressesOf({ membershipsUrl, columnsUrl, columnUrl, scopes }: LtiServices): LtiServices {
  const address = (text: string | null) => (text !== null && webAddress(text) !== null ? text : null);
  return {
    membershipsUrl: address(membershipsUrl),
    columnsUrl: address(columnsUrl),
    columnUrl: address(columnUrl),
    scopes,
  };
}

function same(a: string, b: string): boolean {
  const [one, other] = [Buffer.from(hashOf(a)), Buffer.from(hashOf(b))];
  return timingSafeEqual(one, other);
}

function faultOf(error: unknown): ArrivalFault | null {
  if (error instanceof errors.JWTExpired) return error.claim === 'iat' ? 'too-old' : 'expired';
  if (error instanceof errors.JWTClaimValidationFailed) {
    if (error.claim === 'iss') return 'issuer';
    if (error.claim === 'aud') return 'audience';
    if (error.claim === 'iat' || error.claim === 'nbf')
      return error.reason === 'check_failed' ? 'too-early' : 'token-odd';
    return error.claim === 'nonce' ? 'nonce' : 'token-odd';
  }
  if (error instanceof errors.JWKSNoMatchingKey || error instanceof errors.JWKSMultipleMatchingKeys)
    return 'key-unknown';
  if (error instanceof errors.JWSSignatureVerificationFailed || error instanceof errors.JOSEAlgNotAllowed)
    return 'signature';
  if (error instanceof errors.JWKSInvalid || error instanceof errors.JWKSTimeout) return 'keys-unread';
  if (error instanceof errors.JOSEError) return error.code === 'ERR_JOSE_GENERIC' ? 'keys-unread' : 'token-odd';
  return error instanceof Error && error.name === 'OutwardError' ? 'keys-unread' : null;
}
