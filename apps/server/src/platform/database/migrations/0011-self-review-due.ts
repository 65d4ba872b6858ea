import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A self-review can be due at a time of its own. */
export class SelfReviewDue1765152000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "exchange" ADD COLUMN "selfReviewDue" integer`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "exchange" DROP COLUMN "selfReviewDue"`);
  }
}
