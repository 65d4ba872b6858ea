import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Feedback that one author reads before the others, or that is held back from one. */
export class OwnRelease1765497600000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "participant" ADD COLUMN "feedbackFrom" integer`);
    await runner.query(`ALTER TABLE "participant" ADD COLUMN "feedbackHeld" text`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "participant" DROP COLUMN "feedbackHeld"`);
    await runner.query(`ALTER TABLE "participant" DROP COLUMN "feedbackFrom"`);
  }
}
