import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A review that is reopened keeps what was submitted until it is submitted again; and whether feedback was read. */
export class Reopened1764892800000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "review" ADD COLUMN "reopenedAt" integer`);
    await runner.query(`ALTER TABLE "participant" ADD COLUMN "feedbackReadAt" integer`);
    await runner.query(`ALTER TABLE "participant" ADD COLUMN "feedbackToldAt" integer`);
    // Previews of an earlier version say less of what they repeat; they are made again with one press.
    await runner.query(`DELETE FROM "allocation_preview"`);
    await runner.query(`CREATE TABLE "submitted_review" (
  "reviewId" text PRIMARY KEY NOT NULL,
  "answers" text NOT NULL,
  "notes" text NOT NULL,
  CONSTRAINT "FK_a32b968190a192fde744636fc23" FOREIGN KEY ("reviewId") REFERENCES "review" ("id") ON DELETE CASCADE ON UPDATE CASCADE
)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "submitted_review"`);
    await runner.query(`ALTER TABLE "participant" DROP COLUMN "feedbackToldAt"`);
    await runner.query(`ALTER TABLE "participant" DROP COLUMN "feedbackReadAt"`);
    await runner.query(`ALTER TABLE "review" DROP COLUMN "reopenedAt"`);
  }
}
