import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Authors and reviewers ask the instructor to look. */
export class LookRequests1765584000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE "look_request" (
  "id" text PRIMARY KEY NOT NULL,
  "reviewId" text NOT NULL,
  "noteId" text,
  "participantId" text NOT NULL,
  "words" text NOT NULL,
  "at" integer NOT NULL,
  "answer" text,
  "answeredAt" integer,
  CONSTRAINT "FK_10aee4c306ec201063a4b346054" FOREIGN KEY ("reviewId") REFERENCES "review" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
  CONSTRAINT "FK_a4b97ab60b827f9c52d87ffa26a" FOREIGN KEY ("participantId") REFERENCES "participant" ("id") ON DELETE CASCADE ON UPDATE CASCADE
)`);
    await runner.query(`CREATE INDEX "look_request_review" ON "look_request" ("reviewId")`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "look_request"`);
  }
}
