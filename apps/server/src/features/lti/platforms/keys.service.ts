import { hkdfSync } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import type { PlatformsView } from '@salt-circle/contracts';
import {
  CompactEncrypt,
  compactDecrypt,
  exportJWK,
  generateKeyPair,
  importJWK,
  SignJWT,
  type JWK,
  type JWTPayload,
} from 'jose';
import { LessThan, type EntityManager } from 'typeorm';
import { LtiKey } from '../../../model/lti.js';
import { Clock } from '../../../platform/clock/clock.js';
import type { Settings } from '../../../platform/config/settings.js';
import { SETTINGS } from '../../../platform/config/settings.token.js';
import { Database } from '../../../platform/database/database.js';
import { Expiry } from '../../../platform/expiry/expiry.js';
import { Ids } from '../../../platform/ids/ids.js';
import { iso, isoOrNull } from '../../../platform/wire/instants.js';

const DAY = 24 * 3_600_000;
/** Platforms keep what they have read of our keys for a while: a new one is shown so long before it signs, an old one so long after. */
const KNOWN_AFTER = DAY;
const SHOWN_AFTER = 7 * DAY;
/** A key that has signed so long is followed by a new one. */
const LASTS = 180 * DAY;
/** The one algorithm that the security framework of the standard asks every platform for. */
export const SIGNED_BY = 'RS256';

/** What we sign with towards platforms. Private halves are kept encrypted with a key that follows from the server's secret. */
@Injectable()
export class LtiKeys {
  readonly #seal: Uint8Array;
  /** Private halves that have been opened, by id. */
  readonly #opened = new Map<string, Awaited<ReturnType<typeof importJWK>>>();

  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    private readonly ids: Ids,
    @Inject(SETTINGS) { secret }: Settings,
    expiry: Expiry,
  ) {
    this.#seal = new Uint8Array(hkdfSync('sha256', secret, '', 'keys towards platforms', 32));
    expiry.add((manager) => this.#follow(manager));
  }

  /** The public halves, as a JSON Web Key Set (RFC 7517). There is always one. */
  async shown(): Promise<{ keys: Array<Record<string, string>> }> {
    await this.#signing();
    return { keys: (await this.#rows(this.database.read)).map(({ shown }) => shown) };
  }

  async list(): Promise<PlatformsView['keys']> {
    const now = this.clock.real();
    const rows = await this.#rows(this.database.read);
    const signing = latestOf(rows, now);
    return rows.map((row) => ({
      id: row.id,
      createdAt: iso(row.createdAt),
      state: row.id === signing?.id ? 'signing' : row.signsFrom > now ? 'next' : 'ending',
      until: isoOrNull(row.signsFrom > now ? row.signsFrom : row.endsAt),
    }));
  }

  /** @returns a JSON Web Token in our name, signed by the present key */
  async sign(claims: JWTPayload, seconds: number): Promise<string> {
    const row = await this.#signing();
    const now = Math.floor(this.clock.real() / 1000);
    return new SignJWT(claims)
      .setProtectedHeader({ alg: SIGNED_BY, kid: row.id, typ: 'JWT' })
      .setIssuedAt(now)
      .setExpirationTime(now + seconds)
      .setJti(this.ids.uuid())
      .sign(await this.#open(row));
  }

  /** A new key signs from tomorrow on, and until then is shown beside the present one: nobody is kept out meanwhile. */
  async rotate(): Promise<void> {
    const made = await this.#make(this.clock.real() + KNOWN_AFTER);
    await this.database.write((manager) => this.#take(manager, made));
  }

  async #signing(): Promise<LtiKey> {
    const now = this.clock.real();
    const there = latestOf(await this.#rows(this.database.read), now);
    if (there !== null) return there;
    const made = await this.#make(now);
    return this.database.write(async (manager) => {
      // Somebody may have made the first one meanwhile.
      const first = latestOf(await this.#rows(manager), now);
      if (first === null) await manager.insert(LtiKey, made);
      return first ?? made;
    });
  }

  async #make(signsFrom: number): Promise<LtiKey> {
    const { privateKey, publicKey } = await generateKeyPair(SIGNED_BY, { modulusLength: 2048, extractable: true });
    const id = this.ids.uuid();
    const sealed = await new CompactEncrypt(Buffer.from(JSON.stringify(await exportJWK(privateKey))))
      .setProtectedHeader({ alg: 'dir', enc: 'A256GCM' })
      .encrypt(this.#seal);
    const { kty = '', n = '', e = '' } = await exportJWK(publicKey);
    const shown = { kty, n, e, kid: id, alg: SIGNED_BY, use: 'sig' };
    return { id, sealed, shown, createdAt: this.clock.real(), signsFrom, endsAt: null };
  }

  async #take(manager: EntityManager, made: LtiKey): Promise<void> {
    const rows = await this.#rows(manager);
    const now = this.clock.real();
    for (const { id, signsFrom, endsAt } of rows) {
      // One that has not signed yet is in nobody's way, and in nobody's memory.
      if (signsFrom > now) await manager.delete(LtiKey, { id });
      else if (endsAt === null) await manager.update(LtiKey, { id }, { endsAt: made.signsFrom + SHOWN_AFTER });
    }
    await manager.insert(LtiKey, made);
  }

  async #open({ id, sealed }: LtiKey): Promise<Awaited<ReturnType<typeof importJWK>>> {
    const known = this.#opened.get(id);
    if (known !== undefined) return known;
    const { plaintext } = await compactDecrypt(sealed, this.#seal);
    const key = await importJWK(JSON.parse(Buffer.from(plaintext).toString('utf8')) as JWK, SIGNED_BY);
    this.#opened.set(id, key);
    return key;
  }

  #rows(manager: EntityManager): Promise<LtiKey[]> {
    return manager.find(LtiKey, { order: { signsFrom: 'ASC', id: 'ASC' } });
  }

  /** Removes what has ended, and lets a new one follow what has signed long enough. */
  async #follow(manager: EntityManager): Promise<void> {
    const now = this.clock.real();
    await manager.delete(LtiKey, { endsAt: LessThan(now) });
    const rows = await this.#rows(manager);
    const signing = latestOf(rows, now);
    if (signing === null || now - signing.signsFrom < LASTS || rows.some(({ signsFrom }) => signsFrom > now)) return;
    await this.#take(manager, await this.#make(now + KNOWN_AFTER));
  }
}

function latestOf(rows: readonly LtiKey[], now: number): LtiKey | null {
  return rows.filter(({ signsFrom }) => signsFrom <= now).at(-1) ?? null;
}
