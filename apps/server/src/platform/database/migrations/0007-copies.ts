import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * Copies are built from what is allowed instead of cleaned of what is known. Those of PDFs, pictures, recordings and captions
 * are made anew at the next start; texts of documents stay, because notes and hidden passages stand in them.
 */
export class Copies1764806400000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "stored_file" ADD COLUMN "remarks" text NOT NULL DEFAULT ('[]')`);
    await runner.query(
      `UPDATE "stored_file" SET "copyState" = 'waiting', "copyTries" = 0, "copyProblem" = NULL
       WHERE "family" IN ('pdf', 'image', 'audio', 'video', 'captions') AND "copyState" <> 'waiting'`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "stored_file" DROP COLUMN "remarks"`);
  }
}
