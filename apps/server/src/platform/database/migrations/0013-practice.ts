import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Practice drafts, each in an exchange of its own, and what was tried on them. */
export class Practice1765324800000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `ALTER TABLE "exchange" ADD COLUMN "practice" text NOT NULL DEFAULT ('{"when":"off","tries":null,"closeEnough":null}')`,
    );
    await runner.query(`ALTER TABLE "exchange" ADD COLUMN "practiceOf" text`);
    await runner.query(`ALTER TABLE "exchange" ADD COLUMN "practiceConsent" text`);
    await runner.query(`CREATE INDEX "exchange_practice" ON "exchange" ("practiceOf")`);
    await runner.query(`CREATE TABLE "practice_try" (
  "id" text PRIMARY KEY NOT NULL,
  "reviewId" text NOT NULL,
  "number" integer NOT NULL,
  "submittedAt" integer NOT NULL,
  "share" real,
  "kappa" real,
  "answers" text NOT NULL,
  "notes" text NOT NULL,
  CONSTRAINT "practice_try_number" UNIQUE ("reviewId", "number"),
  CONSTRAINT "FK_ed1c3c2d93432496403da1d87a6" FOREIGN KEY ("reviewId") REFERENCES "review" ("id") ON DELETE CASCADE ON UPDATE CASCADE
)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "practice_try"`);
    await runner.query(`DROP INDEX "exchange_practice"`);
    await runner.query(`ALTER TABLE "exchange" DROP COLUMN "practiceConsent"`);
    await runner.query(`ALTER TABLE "exchange" DROP COLUMN "practiceOf"`);
    await runner.query(`ALTER TABLE "exchange" DROP COLUMN "practice"`);
  }
}
