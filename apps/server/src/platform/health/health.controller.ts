import { statfs } from 'node:fs/promises';
import { Controller, Get, Inject, Res } from '@nestjs/common';
import type { Response } from 'express';
import { Clock } from '../clock/clock.js';
import type { Settings } from '../config/settings.js';
import { SETTINGS } from '../config/settings.token.js';
import { Database } from '../database/database.js';
import { Public } from '../security/public.js';

/** Bytes below which the disk counts as full: the write-ahead log alone may grow by as much. */
const FULL = 20_000_000;
/** Milliseconds for which a look at the disk counts. */
const LOOKED = 5_000;

@Public()
@Controller('health')
export class HealthController {
  #free = { bytes: Infinity, at: -Infinity };

  constructor(
    private readonly database: Database,
    private readonly clock: Clock,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {}

  /** Answers once the database does; `disk`: nothing can be saved. Also the bare route that benchmarks compare with. */
  @Get()
  async health(@Res({ passthrough: true }) response: Response): Promise<{ status: 'ok' | 'disk' }> {
    await this.database.read.query('SELECT 1');
    const full = this.database.isFull || (await this.#freeBytes()) < FULL;
    if (full) response.status(507);
    return { status: full ? 'disk' : 'ok' };
  }

  async #freeBytes(): Promise<number> {
    const now = this.clock.real();
    if (now - this.#free.at > LOOKED) {
      const { bavail, bsize } = await statfs(this.settings.dataFolder);
      this.#free = { bytes: bavail * bsize, at: now };
    }
    return this.#free.bytes;
  }
}
