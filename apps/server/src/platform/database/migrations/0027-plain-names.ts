import type { MigrationInterface, QueryRunner } from 'typeorm';

const COLUMNS =
  '"id", "exchangeId", "enrolmentId", "groupId", "draftsDue", "reviewsDue", "repliesDue", "revisionDue", "excused", "reason"';

/** @param keys names of the constraints, which follow from that of the table */
const personalDates = (table: string, keys: readonly [exchange: string, enrolment: string, group: string]) =>
  `CREATE TABLE "${table}" (
    "id" text PRIMARY KEY NOT NULL,
    "exchangeId" text NOT NULL,
    "enrolmentId" text,
    "groupId" text,
    "draftsDue" integer,
    "reviewsDue" integer,
    "repliesDue" integer,
    "revisionDue" integer,
    "excused" boolean NOT NULL DEFAULT (0),
    "reason" text NOT NULL DEFAULT (''),
    CONSTRAINT "${table}_group" UNIQUE ("exchangeId", "groupId"),
    CONSTRAINT "${table}_student" UNIQUE ("exchangeId", "enrolmentId"),
    CONSTRAINT "FK_${keys[0]}" FOREIGN KEY ("exchangeId") REFERENCES "exchange" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
    CONSTRAINT "FK_${keys[1]}" FOREIGN KEY ("enrolmentId") REFERENCES "enrolment" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
    CONSTRAINT "FK_${keys[2]}" FOREIGN KEY ("groupId") REFERENCES "student_group" ("id") ON DELETE CASCADE ON UPDATE CASCADE
  )`;

const NEW = personalDates('personal_dates', [
  '04740ddc425ddecea3fcf5f86a1',
  'cba19693db2783e1924acbf6283',
  '67bb00f73c198fad4eb4525671c',
]);
const OLD = personalDates('own_times', [
  'd8073cec489ab4e7f91743579ee',
  '2b67a63811f3bc0646f838b2cd5',
  'fd275006874fa2d3d898ba9242d',
]);

const EVENTS = ['UPDATE', 'DELETE'] as const;

/** Tables and columns have the names that people use: personal dates, flagging rules, the audit log. */
export class PlainNames1766534400000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await this.#renameAudit(runner, 'record', 'audit_entry', 'the audit log is append-only');
    await runner.query(`ALTER TABLE "exchange" RENAME COLUMN "doubtBounds" TO "flaggingRules"`);
    await this.#move(runner, 'own_times', 'personal_dates', NEW);
  }

  async down(runner: QueryRunner): Promise<void> {
    await this.#move(runner, 'personal_dates', 'own_times', OLD);
    await runner.query(`ALTER TABLE "exchange" RENAME COLUMN "flaggingRules" TO "doubtBounds"`);
    await this.#renameAudit(runner, 'audit_entry', 'record', 'the record is append-only');
  }

  async #move(runner: QueryRunner, from: string, to: string, create: string): Promise<void> {
    await runner.query(create);
    await runner.query(`INSERT INTO "${to}" (${COLUMNS}) SELECT ${COLUMNS} FROM "${from}"`);
    await runner.query(`DROP TABLE "${from}"`);
  }

  async #renameAudit(runner: QueryRunner, from: string, to: string, refusal: string): Promise<void> {
    for (const event of EVENTS) await runner.query(`DROP TRIGGER "${from}_no_${event.toLowerCase()}"`);
    await runner.query(`DROP INDEX "${from}_exchange"`);
    await runner.query(`ALTER TABLE "${from}" RENAME TO "${to}"`);
    await runner.query(`CREATE INDEX "${to}_exchange" ON "${to}" ("exchangeId", "id")`);
    for (const event of EVENTS)
      await runner.query(`CREATE TRIGGER "${to}_no_${event.toLowerCase()}" BEFORE ${event} ON "${to}"
        BEGIN SELECT RAISE(ABORT, '${refusal}'); END`);
  }
}
