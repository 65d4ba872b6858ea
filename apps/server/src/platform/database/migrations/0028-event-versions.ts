import type { MigrationInterface, QueryRunner } from 'typeorm';

/** By which version of its payload an event was written. */
export class EventVersions1766620800000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "audit_entry" ADD COLUMN "version" integer NOT NULL DEFAULT (1)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "audit_entry" DROP COLUMN "version"`);
  }
}
