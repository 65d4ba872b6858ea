import { randomUUID } from 'node:crypto';
import type { MigrationInterface, QueryRunner } from 'typeorm';

const ENROLMENT_KEYS = `
  CONSTRAINT "enrolment_once" UNIQUE ("courseId", "personId"),
  CONSTRAINT "FK_32654bfec59f2a78ee4c2d6c9f1" FOREIGN KEY ("courseId") REFERENCES "course" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
  CONSTRAINT "FK_8dcb5552aaa4ba59c1e3603ac24" FOREIGN KEY ("personId") REFERENCES "person" ("id") ON DELETE CASCADE ON UPDATE CASCADE`;
const SESSION_KEYS = `
  CONSTRAINT "FK_b8e1fcf37e349295272a5ebbd50" FOREIGN KEY ("personId") REFERENCES "person" ("id") ON DELETE CASCADE ON UPDATE CASCADE`;
const ONE_ADDRESS = `CONSTRAINT "UQ_d2d717efd90709ebd3cb26b936c" UNIQUE ("email")`;

/** Each table as it is from now on, and as it was. The latter take what is in the former with these columns. */
const PERSON = `CREATE TABLE "new_person" (
  "id" text PRIMARY KEY NOT NULL,
  "email" text,
  "name" text NOT NULL,
  "passwordHash" text,
  "addressConfirmedAt" integer,
  "createsCourses" boolean NOT NULL DEFAULT (0),
  "createdAt" integer NOT NULL,
  ${ONE_ADDRESS}
)`;
const OLD_PERSON = `CREATE TABLE "new_person" (
  "id" text PRIMARY KEY NOT NULL,
  "email" text NOT NULL,
  "name" text NOT NULL,
  "passwordHash" text,
  "createsCourses" boolean NOT NULL DEFAULT (0),
  "createdAt" integer NOT NULL,
  ${ONE_ADDRESS}
)`;
const ENROLMENT = `CREATE TABLE "new_enrolment" (
  "id" text PRIMARY KEY NOT NULL,
  "courseId" text NOT NULL,
  "personId" text NOT NULL,
  "name" text NOT NULL,
  "email" text NOT NULL,
  "role" text NOT NULL,
  "active" boolean NOT NULL DEFAULT (1),
  "campusId" text,
  "section" text,
  "trait" text,
  CONSTRAINT "enrolment_address" UNIQUE ("courseId", "email"),${ENROLMENT_KEYS}
)`;
const OLD_ENROLMENT = `CREATE TABLE "new_enrolment" (
  "id" text PRIMARY KEY NOT NULL,
  "courseId" text NOT NULL,
  "personId" text NOT NULL,
  "role" text NOT NULL,
  "active" boolean NOT NULL DEFAULT (1),
  "campusId" text,
  "section" text,
  "trait" text,${ENROLMENT_KEYS}
)`;
const SESSION = `CREATE TABLE "new_session" (
  "tokenHash" text PRIMARY KEY NOT NULL,
  "id" text NOT NULL,
  "personId" text NOT NULL,
  "browser" text NOT NULL DEFAULT (''),
  "createdAt" integer NOT NULL,
  "lastSeenAt" integer NOT NULL,
  CONSTRAINT "UQ_f55da76ac1c3ac420f444d2ff11" UNIQUE ("id"),${SESSION_KEYS}
)`;
const OLD_SESSION = `CREATE TABLE "new_session" (
  "tokenHash" text PRIMARY KEY NOT NULL,
  "personId" text NOT NULL,
  "createdAt" integer NOT NULL,
  "lastSeenAt" integer NOT NULL,${SESSION_KEYS}
)`;
const INVITATION = `CREATE TABLE "new_invitation" (
  "tokenHash" text PRIMARY KEY NOT NULL,
  "enrolmentId" text NOT NULL,
  "address" text NOT NULL,
  "shown" boolean NOT NULL,
  "inviterId" text NOT NULL,
  "mailId" text,
  "createdAt" integer NOT NULL,
  CONSTRAINT "FK_9e4b961e8e7032fa5db6c2c71e7" FOREIGN KEY ("enrolmentId") REFERENCES "enrolment" ("id") ON DELETE CASCADE ON UPDATE CASCADE
)`;
const OLD_INVITATION = `CREATE TABLE "new_invitation" (
  "tokenHash" text PRIMARY KEY NOT NULL,
  "personId" text NOT NULL,
  "courseId" text NOT NULL,
  "inviterId" text NOT NULL,
  "createdAt" integer NOT NULL,
  "usedAt" integer,
  CONSTRAINT "FK_1b17ab18758ab21dfa7c2535c36" FOREIGN KEY ("personId") REFERENCES "person" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
  CONSTRAINT "FK_26555f1db584df92fbe0e9a993b" FOREIGN KEY ("courseId") REFERENCES "course" ("id") ON DELETE CASCADE ON UPDATE CASCADE
)`;
const NEW_TABLES = [
  `CREATE TABLE "password_link" (
    "tokenHash" text PRIMARY KEY NOT NULL,
    "personId" text NOT NULL,
    "createdAt" integer NOT NULL,
    CONSTRAINT "FK_f1388a01b299126f4e780853087" FOREIGN KEY ("personId") REFERENCES "person" ("id") ON DELETE CASCADE ON UPDATE CASCADE
  )`,
  `CREATE TABLE "address_change" (
    "personId" text PRIMARY KEY NOT NULL,
    "email" text NOT NULL,
    "oldTokenHash" text,
    "newTokenHash" text,
    "createdAt" integer NOT NULL,
    CONSTRAINT "FK_542ff225f4dec0d43bd6d3243dd" FOREIGN KEY ("personId") REFERENCES "person" ("id") ON DELETE CASCADE ON UPDATE CASCADE
  )`,
  `CREATE INDEX "password_link_person" ON "password_link" ("personId")`,
  `CREATE UNIQUE INDEX "address_change_old" ON "address_change" ("oldTokenHash")`,
  `CREATE UNIQUE INDEX "address_change_new" ON "address_change" ("newTokenHash")`,
];

const REBUILT = ['person', 'enrolment', 'session', 'invitation'] as const;
const INDEXES: Readonly<Record<string, string>> = {
  enrolment: `CREATE INDEX "enrolment_person" ON "enrolment" ("personId")`,
  session: `CREATE INDEX "session_person" ON "session" ("personId")`,
};

/**
 * A table that others refer to can only be built anew while nothing watches over references, and that cannot be switched off
 * within a transaction. So the one that is open ends empty, the work has one of its own, and the next begins after it.
 */
async function unreferenced(runner: QueryRunner, work: () => Promise<void>): Promise<void> {
  await runner.commitTransaction();
  await runner.query('PRAGMA foreign_keys = OFF');
  try {
    await runner.startTransaction();
    await work();
    for (const name of REBUILT) {
      await runner.query(`DROP TABLE "${name}"`);
      await runner.query(`ALTER TABLE "new_${name}" RENAME TO "${name}"`);
      if (INDEXES[name] !== undefined) await runner.query(INDEXES[name]);
    }
    const broken = (await runner.query('PRAGMA foreign_key_check')) as unknown[];
    if (broken.length > 0) throw new Error(`${broken.length} rows refer to nothing`);
    await runner.commitTransaction();
  } catch (error) {
    await runner.rollbackTransaction();
    throw error;
  } finally {
    await runner.query('PRAGMA foreign_keys = ON');
    await runner.startTransaction();
  }
}

/**
 * Accounts belong to people, and what a course says of somebody to the enrolment. Where nobody has chosen a password yet,
 * each place gets a person of its own, whatever address it was given by.
 */
export class Accounts1764720000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    // The tables may be there already, if the process ended before this was noted as done.
    if (await runner.hasTable('password_link')) return;
    await unreferenced(runner, async () => {
      for (const statement of [PERSON, ENROLMENT, SESSION, INVITATION]) await runner.query(statement);
      await runner.query(
        `INSERT INTO "new_enrolment" SELECT e."id", e."courseId", e."personId", p."name", p."email", e."role", e."active",
           e."campusId", e."section", e."trait" FROM "enrolment" e JOIN "person" p ON p."id" = e."personId"`,
      );
      await runner.query(
        `INSERT INTO "new_person" SELECT "id", CASE WHEN "passwordHash" IS NULL THEN NULL ELSE "email" END, "name",
           "passwordHash", NULL, "createsCourses", "createdAt" FROM "person"`,
      );
      await this.#separate(runner);
      await runner.query(
        `INSERT INTO "new_session" SELECT "tokenHash", lower(hex(randomblob(16))), "personId", '', "createdAt", "lastSeenAt"
           FROM "session"`,
      );
      // Staff may have read these links, so each gives its own place only.
      await runner.query(
        `INSERT INTO "new_invitation" SELECT i."tokenHash", e."id", e."email", 1, i."inviterId", NULL, i."createdAt"
           FROM "invitation" i JOIN "enrolment" old ON old."personId" = i."personId" AND old."courseId" = i."courseId"
           JOIN "new_enrolment" e ON e."id" = old."id" JOIN "new_person" p ON p."id" = e."personId"
          WHERE i."usedAt" IS NULL AND p."email" IS NULL AND e."active" = 1`,
      );
      await runner.query(`ALTER TABLE "mail" ADD COLUMN "sealed" boolean NOT NULL DEFAULT (0)`);
      for (const statement of NEW_TABLES) await runner.query(statement);
    });
    await runner.query(`CREATE INDEX "invitation_enrolment" ON "invitation" ("enrolmentId")`);
  }

  /** Somebody with places in several courses and no account becomes several people, who know nothing of each other. */
  async #separate(runner: QueryRunner): Promise<void> {
    const places = (await runner.query(
      `SELECT e."id", e."courseId", e."personId" FROM "new_enrolment" e JOIN "new_person" p ON p."id" = e."personId"
        WHERE p."email" IS NULL ORDER BY e."personId", e."id"`,
    )) as Array<{ readonly id: string; readonly courseId: string; readonly personId: string }>;
    const first = new Set<string>();
    for (const { id, courseId, personId } of places) {
      if (!first.has(personId)) {
        first.add(personId);
        continue;
      }
      const own = randomUUID();
      await runner.query(
        `INSERT INTO "new_person" SELECT ?, NULL, "name", NULL, NULL, 0, "createdAt" FROM "new_person" WHERE "id" = ?`,
        [own, personId],
      );
      await runner.query(`UPDATE "new_enrolment" SET "personId" = ? WHERE "id" = ?`, [own, id]);
      await runner.query(
        `UPDATE "participant" SET "personId" = ? WHERE "personId" = ?
            AND "exchangeId" IN (SELECT "id" FROM "exchange" WHERE "courseId" = ?)`,
        [own, personId, courseId],
      );
    }
  }

  async down(runner: QueryRunner): Promise<void> {
    await unreferenced(runner, async () => {
      for (const statement of [OLD_PERSON, OLD_ENROLMENT, OLD_SESSION, OLD_INVITATION]) await runner.query(statement);
      // One address stood for one person then. Who would be a second one gets an address that leads nowhere.
      await runner.query(
        `INSERT INTO "new_person" SELECT p."id",
           CASE WHEN p."email" IS NOT NULL THEN p."email"
                WHEN e."email" IS NULL OR EXISTS (SELECT 1 FROM "person" o WHERE o."email" = e."email")
                  OR EXISTS (SELECT 1 FROM "enrolment" o WHERE o."email" = e."email" AND o."id" < e."id")
                THEN p."id" || '@place.invalid' ELSE e."email" END,
           COALESCE(e."name", p."name"), p."passwordHash", p."createsCourses", p."createdAt"
           FROM "person" p LEFT JOIN "enrolment" e ON p."email" IS NULL AND e."personId" = p."id"`,
      );
      await runner.query(
        `INSERT INTO "new_enrolment" SELECT "id", "courseId", "personId", "role", "active", "campusId", "section", "trait"
           FROM "enrolment"`,
      );
      await runner.query(
        `INSERT INTO "new_session" SELECT "tokenHash", "personId", "createdAt", "lastSeenAt" FROM "session"`,
      );
      await runner.query(
        `INSERT INTO "new_invitation" SELECT i."tokenHash", e."personId", e."courseId", i."inviterId", i."createdAt", NULL
           FROM "invitation" i JOIN "enrolment" e ON e."id" = i."enrolmentId"`,
      );
      await runner.query(`ALTER TABLE "mail" DROP COLUMN "sealed"`);
      for (const name of ['password_link', 'address_change']) await runner.query(`DROP TABLE "${name}"`);
    });
    await runner.query(`CREATE INDEX "invitation_person" ON "invitation" ("personId")`);
  }
}
