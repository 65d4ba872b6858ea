import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Reviews that staff write under their own names; revisions that are reviewed once more. */
export class Rounds1765756800000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "review" ADD COLUMN "voice" text`);
    await runner.query(`ALTER TABLE "draft" ADD COLUMN "followsId" text`);
    await runner.query(`ALTER TABLE "exchange" ADD COLUMN "earlierShown" boolean NOT NULL DEFAULT (0)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "exchange" DROP COLUMN "earlierShown"`);
    await runner.query(`ALTER TABLE "draft" DROP COLUMN "followsId"`);
    await runner.query(`ALTER TABLE "review" DROP COLUMN "voice"`);
  }
}
