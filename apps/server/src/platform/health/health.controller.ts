import { Controller, Get } from '@nestjs/common';
import { Database } from '../database/database.js';
import { Public } from '../security/public.js';

@Public()
@Controller('health')
export class HealthController {
  constructor(private readonly database: Database) {}

  /** Answers once the database does. Also the bare route that benchmarks compare with. */
  @Get()
  async health(): Promise<{ status: 'ok' }> {
    await this.database.read.query('SELECT 1');
    return { status: 'ok' };
  }
}
