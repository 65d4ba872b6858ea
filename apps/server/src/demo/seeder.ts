import type { INestApplication } from '@nestjs/common';
import type { Random } from '@salt-circle/core';

/** What the making of demo data goes by. */
export interface Seeder {
  readonly app: INestApplication;
  readonly random: Random;
  /** The start of the current hour at the first start, in milliseconds; all demo dates hang on it. */
  readonly start: number;
}
