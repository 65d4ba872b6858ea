import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What staff make of submitted reviews: what makes one doubtful, who has looked, and what is kept from the author, with the reason. */
export class Check1765411200000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "exchange" ADD COLUMN "doubtBounds" text`);
    await runner.query(`CREATE TABLE "review_check" (
  "reviewId" text PRIMARY KEY NOT NULL,
  "lookedAt" integer,
  "lookedBy" text,
  "ofSubmission" integer,
  "dismissed" text NOT NULL DEFAULT ('[]'),
  CONSTRAINT "FK_6ad304b165a423432f3d61c0827" FOREIGN KEY ("reviewId") REFERENCES "review" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
  CONSTRAINT "FK_f7cbc9cbc49e89059e1e002dcc5" FOREIGN KEY ("lookedBy") REFERENCES "person" ("id") ON DELETE SET NULL ON UPDATE CASCADE
)`);
    await runner.query(`CREATE TABLE "withheld" (
  "id" text PRIMARY KEY NOT NULL,
  "reviewId" text NOT NULL,
  "kind" text NOT NULL,
  "targetId" text NOT NULL,
  "reason" text NOT NULL,
  "byId" text,
  "at" integer NOT NULL,
  "told" boolean NOT NULL,
  "counts" boolean NOT NULL,
  CONSTRAINT "withheld_once" UNIQUE ("reviewId", "kind", "targetId"),
  CONSTRAINT "FK_06cddd50dcbdbd4e77b4feb4ac4" FOREIGN KEY ("reviewId") REFERENCES "review" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
  CONSTRAINT "FK_8864408d0c0554ae863ab318595" FOREIGN KEY ("byId") REFERENCES "person" ("id") ON DELETE SET NULL ON UPDATE CASCADE
)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "withheld"`);
    await runner.query(`DROP TABLE "review_check"`);
    await runner.query(`ALTER TABLE "exchange" DROP COLUMN "doubtBounds"`);
  }
}
