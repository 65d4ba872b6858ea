import { createHash } from 'node:crypto';
import type { MigrationInterface, QueryRunner } from 'typeorm';

const PLATFORM = 'platformId';

/**
 * Tables as they were called, and as the standard for learning tools calls them, and what refers elsewhere from them. Whatever others refer
 * to comes before them.
 */
const TABLES: ReadonlyArray<readonly [old: string, name: string, references: readonly string[]]> = [
  ['campus', 'lti_platform', []],
  ['campus_deployment', 'lti_deployment', [PLATFORM]],
  ['campus_key', 'lti_key', []],
  ['campus_registration', 'lti_registration', ['byId']],
  ['campus_login', 'lti_login', [PLATFORM]],
  ['campus_arrival', 'lti_arrival', [PLATFORM]],
  ['campus_person', 'lti_person', [PLATFORM, 'personId']],
  ['campus_proof', 'lti_proof', [PLATFORM, 'personId']],
  ['campus_course', 'lti_course', ['courseId', PLATFORM]],
  ['campus_link', 'lti_link', ['courseId', 'exchangeId']],
  ['campus_column', 'lti_line_item', ['exchangeId']],
  ['campus_score', 'lti_score', ['participantId', 'exchangeId']],
];

const INDEXES = [
  ['person_person', 'person', '"personId"'],
  ['proof_person', 'proof', '"personId"'],
  ['link_exchange', 'link', '"exchangeId"'],
  ['score_exchange', 'score', '"exchangeId"'],
  ['score_state', 'score', '"state", "nextTryAt"'],
] as const;

const EVENTS = ['UPDATE', 'DELETE'] as const;

interface Names {
  readonly prefix: string;
  readonly platform: string;
  readonly user: string;
  readonly runs: string;
  readonly once: string;
  readonly there: string;
}

const OLD: Names = {
  ...{ prefix: 'campus', platform: 'campus', user: 'campusUser', runs: 'runsCampuses' },
  ...{ once: 'campus_once', there: 'campus_course_there' },
};
const NEW: Names = {
  ...{ prefix: 'lti', platform: 'platform', user: 'ltiUser', runs: 'runsPlatforms' },
  ...{ once: 'lti_platform_once', there: 'lti_course_there' },
};

/** Learning platforms have the names of the standard: in tables and columns, in what is stored as a word, in the audit log. */
export class LtiNames1766707200000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await move(runner, OLD, NEW);
  }

  async down(runner: QueryRunner): Promise<void> {
    await move(runner, NEW, OLD);
  }
}

async function move(runner: QueryRunner, from: Names, to: Names): Promise<void> {
  const names = TABLES.map(([old, name, references]) => ({
    from: from === OLD ? old : name,
    to: from === OLD ? name : old,
    references,
  }));
  for (const { from: table, to: renamed, references } of names) {
    const [{ sql }] = (await runner.query(
      `SELECT sql FROM sqlite_master WHERE type = 'table' AND name = '${table}'`,
    )) as [{ sql: string }];
    await runner.query(renamedIn(sql, names, from, to, [table, renamed, references]));
    await runner.query(`INSERT INTO "${renamed}" SELECT * FROM "${table}"`);
  }
  // Their indexes go with them.
  for (const { from: table } of names.toReversed()) await runner.query(`DROP TABLE "${table}"`);
  for (const [name, table, columns] of INDEXES)
    await runner.query(`CREATE INDEX "${to.prefix}_${name}" ON "${to.prefix}_${table}" (${columns})`);
  await runner.query(`DROP INDEX "enrolment_${from.prefix}_user"`);
  await runner.query(`ALTER TABLE "enrolment" RENAME COLUMN "${from.user}" TO "${to.user}"`);
  await runner.query(`CREATE UNIQUE INDEX "enrolment_${to.prefix}_user" ON "enrolment" ("courseId", "${to.user}")`);
  await runner.query(`ALTER TABLE "person" RENAME COLUMN "${from.runs}" TO "${to.runs}"`);
  await renameWords(runner, from.platform, to.platform, to === NEW ? 'lti_platform' : 'campus');
}

/** The statement that makes a table, with all names in it changed, and those of its foreign keys, which follow from them. */
function renamedIn(
  sql: string,
  names: ReadonlyArray<{ readonly from: string; readonly to: string }>,
  from: Names,
  to: Names,
  [table, renamed, references]: readonly [string, string, readonly string[]],
): string {
  const changes = new Map(names.map((one) => [one.from, one.to]));
  changes.set(`${from.platform}Id`, `${to.platform}Id`);
  changes.set(from.once, to.once).set(from.there, to.there);
  for (const reference of references) {
    const [old, column] = [from, to].map(({ platform }) => (reference === PLATFORM ? `${platform}Id` : reference));
    changes.set(foreignKey(table, old as string), foreignKey(renamed, column as string));
  }
  return sql.replace(/"([^"]+)"/gu, (quoted, name: string) =>
    changes.has(name) ? `"${changes.get(name) as string}"` : quoted,
  );
}

/** As TypeORM names it. */
function foreignKey(table: string, column: string): string {
  return `FK_${createHash('sha1').update(`${table}_${column}`).digest('hex').slice(0, 27)}`;
}

async function renameWords(runner: QueryRunner, old: string, word: string, platforms: string): Promise<void> {
  await runner.query(`UPDATE "enrolment" SET "source" = '${word}' WHERE "source" = '${old}'`);
  await runner.query(`UPDATE "${platforms}" SET "arrivalFault" = replace("arrivalFault", '${old}-', '${word}-')`);
  // Entries are only added to, by everybody but a migration.
  for (const event of EVENTS) await runner.query(`DROP TRIGGER "audit_entry_no_${event.toLowerCase()}"`);
  await runner.query(`
    UPDATE "audit_entry" SET "details" = json_set(json_remove("details", '$.${old}'), '$.${word}', "details" ->> '$.${old}')
    WHERE json_type("details", '$.${old}') IS NOT NULL`);
  await runner.query(`
    UPDATE "audit_entry" SET "details" = json_replace("details", '$.fault', replace("details" ->> '$.fault', '${old}-', '${word}-'))
    WHERE "action" = '${old}-refused'`);
  await runner.query(`
    UPDATE "audit_entry" SET "action" = '${word}' || substr("action", ${String(old.length + 1)})
    WHERE "action" LIKE '${old}-%'`);
  for (const event of EVENTS)
    await runner.query(`CREATE TRIGGER "audit_entry_no_${event.toLowerCase()}" BEFORE ${event} ON "audit_entry"
      BEGIN SELECT RAISE(ABORT, 'the audit log is append-only'); END`);
}
