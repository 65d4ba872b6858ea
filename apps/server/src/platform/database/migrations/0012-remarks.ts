import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Notes propose edits and are filed under items; notes and answers have files; remarks are kept to be used again; reviews can be final once submitted, and say how long they took. */
export class Remarks1765238400000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "note" ADD COLUMN "edit" text`);
    await runner.query(`ALTER TABLE "note" ADD COLUMN "itemId" text`);
    await runner.query(`ALTER TABLE "exchange" ADD COLUMN "reviewsFinal" boolean NOT NULL DEFAULT (0)`);
    await runner.query(`ALTER TABLE "review" ADD COLUMN "reopenReason" text`);
    await runner.query(`ALTER TABLE "review" ADD COLUMN "spentSeconds" integer NOT NULL DEFAULT (0)`);
    await runner.query(`ALTER TABLE "review" ADD COLUMN "spentAt" integer`);
    await runner.query(`ALTER TABLE "course" ADD COLUMN "measuresTime" boolean NOT NULL DEFAULT (1)`);
    await runner.query(`CREATE TABLE "own_remark" (
  "id" text PRIMARY KEY NOT NULL,
  "personId" text NOT NULL,
  "courseId" text NOT NULL,
  "title" text NOT NULL,
  "body" text NOT NULL,
  "uses" integer NOT NULL,
  "removedAt" integer,
  CONSTRAINT "own_remark_once" UNIQUE ("personId", "body"),
  CONSTRAINT "FK_8c27068830d3f187726124ffb71" FOREIGN KEY ("personId") REFERENCES "person" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
  CONSTRAINT "FK_d178d0cfc66bf3765e736d4347a" FOREIGN KEY ("courseId") REFERENCES "course" ("id") ON DELETE CASCADE ON UPDATE CASCADE
)`);
    await runner.query(`CREATE TABLE "review_file" (
  "id" text PRIMARY KEY NOT NULL,
  "reviewId" text NOT NULL,
  "itemId" text,
  "noteId" text,
  "digest" text NOT NULL,
  "name" text NOT NULL,
  "uploadId" text NOT NULL,
  "addedAt" integer NOT NULL,
  "removedAt" integer,
  "withheldAt" integer,
  CONSTRAINT "FK_f7bd1bf55647d20ffb5e7250824" FOREIGN KEY ("reviewId") REFERENCES "review" ("id") ON DELETE CASCADE ON UPDATE CASCADE
)`);
    await runner.query(`CREATE INDEX "review_file_review" ON "review_file" ("reviewId")`);
    await runner.query(`CREATE INDEX "review_file_digest" ON "review_file" ("digest")`);
    await runner.query(`CREATE INDEX "own_remark_person" ON "own_remark" ("personId")`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "review_file"`);
    await runner.query(`DROP TABLE "own_remark"`);
    await runner.query(`ALTER TABLE "course" DROP COLUMN "measuresTime"`);
    await runner.query(`ALTER TABLE "review" DROP COLUMN "spentAt"`);
    await runner.query(`ALTER TABLE "review" DROP COLUMN "spentSeconds"`);
    await runner.query(`ALTER TABLE "review" DROP COLUMN "reopenReason"`);
    await runner.query(`ALTER TABLE "exchange" DROP COLUMN "reviewsFinal"`);
    await runner.query(`ALTER TABLE "note" DROP COLUMN "itemId"`);
    await runner.query(`ALTER TABLE "note" DROP COLUMN "edit"`);
  }
}
