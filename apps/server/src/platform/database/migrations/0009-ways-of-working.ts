import type { MigrationInterface, QueryRunner } from 'typeorm';

/** One person may look at several previews, one in each tab; when reviewers were last at work; reviews
 * that are read one by one. */
export class WaysOfWorking1764979200000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    // Only by making it anew does SQLite let go of a rule of a table.
    await previews(runner, '');
    await runner.query(`ALTER TABLE "review" ADD COLUMN "workedAt" integer`);
    await runner.query(`ALTER TABLE "exchange" ADD COLUMN "feedbackEach" boolean NOT NULL DEFAULT (0)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "exchange" DROP COLUMN "feedbackEach"`);
    await runner.query(`ALTER TABLE "review" DROP COLUMN "workedAt"`);
    await previews(runner, `CONSTRAINT "allocation_preview_one" UNIQUE ("exchangeId", "madeBy"),`);
  }
}

/** Previews are made again with one press, so none is carried over. */
async function previews(runner: QueryRunner, rule: string): Promise<void> {
  await runner.query(`DROP TABLE "allocation_preview"`);
  await runner.query(`CREATE TABLE "allocation_preview" (
  "id" text PRIMARY KEY NOT NULL,
  "exchangeId" text NOT NULL,
  "madeBy" text NOT NULL,
  "kind" text NOT NULL,
  "seed" integer NOT NULL,
  "fingerprint" text NOT NULL,
  "madeAt" integer NOT NULL,
  "content" text NOT NULL,
  ${rule}
  CONSTRAINT "FK_8fb8752df3ac388c30fb1642da7" FOREIGN KEY ("exchangeId") REFERENCES "exchange" ("id") ON DELETE CASCADE ON UPDATE CASCADE
)`);
}
