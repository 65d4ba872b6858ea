import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A form by which reviewing is marked can weigh its items. */
export class ReviewingWeighting1766275200000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "exchange" ADD COLUMN "reviewingWeighting" text NOT NULL DEFAULT ('points')`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "exchange" DROP COLUMN "reviewingWeighting"`);
  }
}
