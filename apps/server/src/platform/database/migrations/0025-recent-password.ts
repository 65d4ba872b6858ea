import type { MigrationInterface, QueryRunner } from 'typeorm';

/** When the password was given in a session last. */
export class RecentPassword1766361600000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "session" ADD COLUMN "passwordAt" integer`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "session" DROP COLUMN "passwordAt"`);
  }
}
