import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Grading by several: whose work it is; marks of single reviews; who has looked at a grade. */
export class Grading1765929600000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "participant" ADD COLUMN "gradeReadAt" integer`);
    await runner.query(`ALTER TABLE "exchange" ADD COLUMN "reviewingEach" boolean NOT NULL DEFAULT (0)`);
    await runner.query(`CREATE TABLE "grading_task" (
  "participantId" text NOT NULL,
  "work" text NOT NULL,
  "graderId" text NOT NULL,
  CONSTRAINT "FK_52276140249bbdd727cd2c45f8b" FOREIGN KEY ("participantId") REFERENCES "participant" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
  CONSTRAINT "FK_3487f8a0e53ef59efcf787b6c8f" FOREIGN KEY ("graderId") REFERENCES "person" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
  PRIMARY KEY ("participantId", "work")
)`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "grading_task"`);
    await runner.query(`ALTER TABLE "exchange" DROP COLUMN "reviewingEach"`);
    await runner.query(`ALTER TABLE "participant" DROP COLUMN "gradeReadAt"`);
  }
}
