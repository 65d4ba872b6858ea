import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Staff mark drafts by a form of their own. */
export class DraftForms1766102400000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "exchange" ADD COLUMN "draftForm" text`);
    await runner.query(`ALTER TABLE "review" ADD COLUMN "ownForm" text`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "review" DROP COLUMN "ownForm"`);
    await runner.query(`ALTER TABLE "exchange" DROP COLUMN "draftForm"`);
  }
}
