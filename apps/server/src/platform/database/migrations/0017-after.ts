import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What comes after the release: answers, ratings, decisions, reflection, revisions; and everybody’s inbox. */
export class After1765670400000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "person" ADD COLUMN "mailWish" text NOT NULL DEFAULT ('at-once')`);
    await runner.query(
      `ALTER TABLE "exchange" ADD COLUMN "after" text NOT NULL DEFAULT ('{"ratings":"staff","reflection":null,"othersReviews":false,"revisionShown":false}')`,
    );
    await runner.query(`ALTER TABLE "exchange" ADD COLUMN "remindHours" integer`);
    await runner.query(`ALTER TABLE "exchange" ADD COLUMN "remindedUntil" integer`);
    await runner.query(`ALTER TABLE "exchange" ADD COLUMN "followsId" text`);
    await runner.query(`ALTER TABLE "draft_version" ADD COLUMN "changes" text NOT NULL DEFAULT ('')`);
    await runner.query(`ALTER TABLE "review" ADD COLUMN "reopenUntil" integer`);
    await runner.query(`CREATE TABLE "news" (
  "id" text PRIMARY KEY NOT NULL,
  "personId" text NOT NULL,
  "at" integer NOT NULL,
  "courseId" text NOT NULL,
  "exchangeId" text,
  "words" text NOT NULL,
  "path" text NOT NULL,
  "readAt" integer,
  "mailDay" boolean NOT NULL DEFAULT (0),
  CONSTRAINT "FK_813518fa3ac53f10051a3418ba7" FOREIGN KEY ("personId") REFERENCES "person" ("id") ON DELETE CASCADE ON UPDATE CASCADE
)`);
    await runner.query(`CREATE TABLE "reply" (
  "id" text PRIMARY KEY NOT NULL,
  "reviewId" text NOT NULL,
  "noteId" text,
  "itemId" text,
  "as" text NOT NULL,
  "participantId" text,
  "personId" text,
  "words" text NOT NULL,
  "at" integer NOT NULL,
  CONSTRAINT "FK_34c418e62e8a076e4417b12e554" FOREIGN KEY ("reviewId") REFERENCES "review" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
  CONSTRAINT "FK_6485ecf3b39a2e2ffe55b913cc1" FOREIGN KEY ("participantId") REFERENCES "participant" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
  CONSTRAINT "FK_682e55c2db3ebafa39e723930a7" FOREIGN KEY ("personId") REFERENCES "person" ("id") ON DELETE SET NULL ON UPDATE CASCADE
)`);
    await runner.query(`CREATE TABLE "rating" (
  "reviewId" text PRIMARY KEY NOT NULL,
  "helped" text NOT NULL,
  "words" text NOT NULL,
  "participantId" text NOT NULL,
  "at" integer NOT NULL,
  CONSTRAINT "FK_ce712f5b7228da8f2e38cd59c42" FOREIGN KEY ("reviewId") REFERENCES "review" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
  CONSTRAINT "FK_80cc1709fbbdeb8f65c4dab6aa7" FOREIGN KEY ("participantId") REFERENCES "participant" ("id") ON DELETE CASCADE ON UPDATE CASCADE
)`);
    await runner.query(`CREATE TABLE "decision" (
  "draftId" text NOT NULL,
  "key" text NOT NULL,
  "decision" text,
  "why" text NOT NULL DEFAULT (''),
  "doneAt" integer,
  "revision" integer NOT NULL,
  CONSTRAINT "FK_a77d113c895f9bb02304d5db179" FOREIGN KEY ("draftId") REFERENCES "draft" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
  PRIMARY KEY ("draftId", "key")
)`);
    await runner.query(`CREATE TABLE "adoption" (
  "id" text PRIMARY KEY NOT NULL,
  "draftId" text NOT NULL,
  "noteId" text NOT NULL,
  "deliverableId" text NOT NULL,
  "before" text NOT NULL,
  "after" text NOT NULL,
  "at" integer NOT NULL,
  CONSTRAINT "FK_261ae3db8772dcbd66a687a8cbf" FOREIGN KEY ("draftId") REFERENCES "draft" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
  CONSTRAINT "FK_cd7edebdb708b1107b571aba575" FOREIGN KEY ("noteId") REFERENCES "note" ("id") ON DELETE CASCADE ON UPDATE CASCADE
)`);
    await runner.query(`CREATE TABLE "reflection" (
  "participantId" text PRIMARY KEY NOT NULL,
  "texts" text NOT NULL,
  "revision" integer NOT NULL,
  "savedAt" integer NOT NULL,
  "handedInAt" integer,
  CONSTRAINT "FK_8f40a3734da28862fdcb0943642" FOREIGN KEY ("participantId") REFERENCES "participant" ("id") ON DELETE CASCADE ON UPDATE CASCADE
)`);
    await runner.query(`CREATE INDEX "news_daily" ON "news" ("mailDay")`);
    await runner.query(`CREATE INDEX "news_person" ON "news" ("personId", "at")`);
    await runner.query(`CREATE INDEX "reply_review" ON "reply" ("reviewId")`);
    await runner.query(`CREATE INDEX "adoption_draft" ON "adoption" ("draftId")`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "reflection"`);
    await runner.query(`DROP TABLE "adoption"`);
    await runner.query(`DROP TABLE "decision"`);
    await runner.query(`DROP TABLE "rating"`);
    await runner.query(`DROP TABLE "reply"`);
    await runner.query(`DROP TABLE "news"`);
    await runner.query(`ALTER TABLE "review" DROP COLUMN "reopenUntil"`);
    await runner.query(`ALTER TABLE "draft_version" DROP COLUMN "changes"`);
    await runner.query(`ALTER TABLE "exchange" DROP COLUMN "followsId"`);
    await runner.query(`ALTER TABLE "exchange" DROP COLUMN "remindedUntil"`);
    await runner.query(`ALTER TABLE "exchange" DROP COLUMN "remindHours"`);
    await runner.query(`ALTER TABLE "exchange" DROP COLUMN "after"`);
    await runner.query(`ALTER TABLE "person" DROP COLUMN "mailWish"`);
  }
}
