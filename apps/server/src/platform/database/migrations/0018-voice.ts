import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Reviews that staff write under their own names, beside those that are allocated. */
export class Voice1765756800000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "review" ADD COLUMN "voice" text`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "review" DROP COLUMN "voice"`);
  }
}
