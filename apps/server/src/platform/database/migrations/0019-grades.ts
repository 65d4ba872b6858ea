import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Grades: their rules, what staff give instead, marks of reviewing, and their release. */
export class Grades1765843200000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "exchange" ADD COLUMN "gradeRule" text`);
    await runner.query(`ALTER TABLE "exchange" ADD COLUMN "reviewingForm" text`);
    await runner.query(`ALTER TABLE "exchange" ADD COLUMN "gradesRelease" integer`);
    await runner.query(`ALTER TABLE "participant" ADD COLUMN "gradeFrom" integer`);
    await runner.query(`ALTER TABLE "participant" ADD COLUMN "gradeTold" text`);
    await runner.query(`CREATE TABLE "grade_override" (
  "participantId" text NOT NULL,
  "part" text NOT NULL,
  "value" real NOT NULL,
  "reason" text NOT NULL,
  "computed" real,
  "byId" text,
  "at" integer NOT NULL,
  CONSTRAINT "FK_af93f310c11e9da961315e1c17b" FOREIGN KEY ("participantId") REFERENCES "participant" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
  CONSTRAINT "FK_54ea39eb903e388f848790318cd" FOREIGN KEY ("byId") REFERENCES "person" ("id") ON DELETE SET NULL ON UPDATE CASCADE,
  PRIMARY KEY ("participantId", "part")
)`);
    await runner.query(`CREATE TABLE "reviewing_mark" (
  "participantId" text PRIMARY KEY NOT NULL,
  "answers" text NOT NULL,
  "byId" text,
  "at" integer NOT NULL,
  CONSTRAINT "FK_2e8fa36b5bcdb20bb17fb988d46" FOREIGN KEY ("participantId") REFERENCES "participant" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
  CONSTRAINT "FK_2068fe4b32c58e23d7586a5d417" FOREIGN KEY ("byId") REFERENCES "person" ("id") ON DELETE SET NULL ON UPDATE CASCADE
)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "reviewing_mark"`);
    await runner.query(`DROP TABLE "grade_override"`);
    await runner.query(`ALTER TABLE "participant" DROP COLUMN "gradeTold"`);
    await runner.query(`ALTER TABLE "participant" DROP COLUMN "gradeFrom"`);
    await runner.query(`ALTER TABLE "exchange" DROP COLUMN "gradesRelease"`);
    await runner.query(`ALTER TABLE "exchange" DROP COLUMN "reviewingForm"`);
    await runner.query(`ALTER TABLE "exchange" DROP COLUMN "gradeRule"`);
  }
}
