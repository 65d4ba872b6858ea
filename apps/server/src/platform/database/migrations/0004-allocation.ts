import type { MigrationInterface, QueryRunner } from 'typeorm';

const EXCHANGE_KEY = (name: string) =>
  `CONSTRAINT "${name}" FOREIGN KEY ("exchangeId") REFERENCES "exchange" ("id") ON DELETE CASCADE ON UPDATE CASCADE`;

const TABLES: ReadonlyArray<readonly [name: string, definition: string]> = [
  [
    'allocation_plan',
    `CREATE TABLE "allocation_plan" (
  "exchangeId" text PRIMARY KEY NOT NULL,
  "revision" integer NOT NULL,
  "avoid" text,
  "mix" boolean NOT NULL,
  "maxPerDraft" integer,
  "schedule" text NOT NULL,
  "runAt" integer,
  "party" integer NOT NULL,
  "patience" integer NOT NULL,
  "ranUntil" integer NOT NULL,
  "lastRunAt" integer,
  "lastOutcome" text,
  ${EXCHANGE_KEY('FK_817ae4dcc072a84b2f64a0ed735')}
)`,
  ],
  [
    'forbidden_pair',
    `CREATE TABLE "forbidden_pair" (
  "id" integer PRIMARY KEY AUTOINCREMENT NOT NULL,
  "exchangeId" text NOT NULL,
  "reviewerId" text NOT NULL,
  "authorId" text NOT NULL,
  CONSTRAINT "forbidden_pair_once" UNIQUE ("reviewerId", "authorId"),
  ${EXCHANGE_KEY('FK_71f0a4bcb889518b6ccea8b1c45')},
  CONSTRAINT "FK_7c4f652888bdeb5ba43ab5d59da" FOREIGN KEY ("reviewerId") REFERENCES "participant" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
  CONSTRAINT "FK_e67dd73e65056f991e9ed7437e6" FOREIGN KEY ("authorId") REFERENCES "participant" ("id") ON DELETE CASCADE ON UPDATE CASCADE
)`,
  ],
  [
    'allocation_preview',
    `CREATE TABLE "allocation_preview" (
  "id" text PRIMARY KEY NOT NULL,
  "exchangeId" text NOT NULL,
  "madeBy" text NOT NULL,
  "kind" text NOT NULL,
  "seed" integer NOT NULL,
  "fingerprint" text NOT NULL,
  "madeAt" integer NOT NULL,
  "content" text NOT NULL,
  CONSTRAINT "allocation_preview_one" UNIQUE ("exchangeId", "madeBy"),
  ${EXCHANGE_KEY('FK_8fb8752df3ac388c30fb1642da7')}
)`,
  ],
  [
    'allocation_step',
    `CREATE TABLE "allocation_step" (
  "id" integer PRIMARY KEY AUTOINCREMENT NOT NULL,
  "exchangeId" text NOT NULL,
  "at" integer NOT NULL,
  "act" text NOT NULL,
  "added" text NOT NULL,
  "removed" text NOT NULL,
  "before" text NOT NULL,
  ${EXCHANGE_KEY('FK_b44fe403fa6c52c86026ab0b7a6')}
)`,
  ],
];

const INDEXES: ReadonlyArray<readonly [name: string, on: string]> = [
  ['forbidden_pair_exchange', '"forbidden_pair" ("exchangeId")'],
  ['allocation_step_exchange', '"allocation_step" ("exchangeId")'],
];

const COLUMNS: ReadonlyArray<readonly [table: string, column: string, definition: string]> = [
  ['exchange', 'rolling', 'boolean NOT NULL DEFAULT (0)'],
  ['participant', 'extraReviews', 'integer'],
  ['review', 'locked', 'boolean NOT NULL DEFAULT (0)'],
  ['review', 'toldAt', 'integer'],
  ['review', 'removedAt', 'integer'],
];

export class Allocation1764460800000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    for (const [table, column, definition] of COLUMNS) {
      await runner.query(`ALTER TABLE "${table}" ADD COLUMN "${column}" ${definition}`);
    }
    // Whoever was given drafts before there were such mails has seen them on the page long since.
    await runner.query(`UPDATE "review" SET "toldAt" = 0`);
    for (const [, definition] of TABLES) await runner.query(definition);
    for (const [name, on] of INDEXES) await runner.query(`CREATE INDEX "${name}" ON ${on}`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const [name] of INDEXES) await runner.query(`DROP INDEX "${name}"`);
    for (const [name] of [...TABLES].reverse()) await runner.query(`DROP TABLE "${name}"`);
    // What was taken away would come back otherwise.
    await runner.query(`DELETE FROM "review" WHERE "removedAt" IS NOT NULL`);
    for (const [table, column] of [...COLUMNS].reverse()) {
      await runner.query(`ALTER TABLE "${table}" DROP COLUMN "${column}"`);
    }
  }
}
