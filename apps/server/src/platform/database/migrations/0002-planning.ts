import type { MigrationInterface, QueryRunner } from 'typeorm';

const TABLES = [
  `CREATE TABLE "group_set" (
    "id" text PRIMARY KEY NOT NULL,
    "courseId" text NOT NULL,
    "title" text NOT NULL,
    "createdAt" integer NOT NULL,
    CONSTRAINT "group_set_title" UNIQUE ("courseId", "title"),
    CONSTRAINT "FK_9bfe4fbcb2dcdcc332d52f69c10" FOREIGN KEY ("courseId") REFERENCES "course" ("id") ON DELETE CASCADE ON UPDATE CASCADE
  )`,
  `CREATE TABLE "student_group" (
    "id" text PRIMARY KEY NOT NULL,
    "setId" text NOT NULL,
    "title" text NOT NULL,
    "position" integer NOT NULL,
    CONSTRAINT "student_group_title" UNIQUE ("setId", "title"),
    CONSTRAINT "FK_e31b8ec9b619f8507bf4da5eb6d" FOREIGN KEY ("setId") REFERENCES "group_set" ("id") ON DELETE CASCADE ON UPDATE CASCADE
  )`,
  `CREATE TABLE "group_member" (
    "setId" text NOT NULL,
    "enrolmentId" text NOT NULL,
    "groupId" text NOT NULL,
    CONSTRAINT "FK_8c0c437444c61b8ecb423baf186" FOREIGN KEY ("setId") REFERENCES "group_set" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
    CONSTRAINT "FK_bdfdb85569f5b34dd6c89a9c078" FOREIGN KEY ("enrolmentId") REFERENCES "enrolment" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
    CONSTRAINT "FK_44c8964c097cf7f71434d6d1122" FOREIGN KEY ("groupId") REFERENCES "student_group" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
    PRIMARY KEY ("setId", "enrolmentId")
  )`,
  `CREATE TABLE "own_times" (
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
    CONSTRAINT "own_times_group" UNIQUE ("exchangeId", "groupId"),
    CONSTRAINT "own_times_student" UNIQUE ("exchangeId", "enrolmentId"),
    CONSTRAINT "FK_d8073cec489ab4e7f91743579ee" FOREIGN KEY ("exchangeId") REFERENCES "exchange" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
    CONSTRAINT "FK_2b67a63811f3bc0646f838b2cd5" FOREIGN KEY ("enrolmentId") REFERENCES "enrolment" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
    CONSTRAINT "FK_fd275006874fa2d3d898ba9242d" FOREIGN KEY ("groupId") REFERENCES "student_group" ("id") ON DELETE CASCADE ON UPDATE CASCADE
  )`,
  `CREATE TABLE "library_item" (
    "id" text PRIMARY KEY NOT NULL,
    "courseId" text NOT NULL,
    "kind" text NOT NULL,
    "title" text NOT NULL,
    "content" text NOT NULL,
    "revision" integer NOT NULL,
    "changedAt" integer NOT NULL,
    CONSTRAINT "FK_07c3ae4e1d65e559d82b0630b1d" FOREIGN KEY ("courseId") REFERENCES "course" ("id") ON DELETE CASCADE ON UPDATE CASCADE
  )`,
  `CREATE TABLE "mail" (
    "id" text PRIMARY KEY NOT NULL,
    "at" integer NOT NULL,
    "address" text NOT NULL,
    "courseId" text,
    "exchangeId" text,
    "subject" text NOT NULL,
    "text" text NOT NULL,
    "secret" text,
    "state" text NOT NULL,
    "tries" integer NOT NULL DEFAULT (0),
    "nextTryAt" integer NOT NULL DEFAULT (0),
    "error" text
  )`,
  `CREATE TABLE "invitation" (
    "tokenHash" text PRIMARY KEY NOT NULL,
    "personId" text NOT NULL,
    "courseId" text NOT NULL,
    "inviterId" text NOT NULL,
    "createdAt" integer NOT NULL,
    "usedAt" integer,
    CONSTRAINT "FK_1b17ab18758ab21dfa7c2535c36" FOREIGN KEY ("personId") REFERENCES "person" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
    CONSTRAINT "FK_26555f1db584df92fbe0e9a993b" FOREIGN KEY ("courseId") REFERENCES "course" ("id") ON DELETE CASCADE ON UPDATE CASCADE
  )`,
  `CREATE TABLE "calendar_link" (
    "tokenHash" text PRIMARY KEY NOT NULL,
    "personId" text NOT NULL,
    "createdAt" integer NOT NULL,
    CONSTRAINT "calendar_link_person" UNIQUE ("personId"),
    CONSTRAINT "FK_aaab6476b6a855cd50894efd84a" FOREIGN KEY ("personId") REFERENCES "person" ("id") ON DELETE CASCADE ON UPDATE CASCADE
  )`,
];

const INDEXES = [
  `CREATE INDEX "mail_state" ON "mail" ("state", "nextTryAt")`,
  `CREATE INDEX "mail_course" ON "mail" ("courseId", "at")`,
  `CREATE INDEX "group_member_group" ON "group_member" ("groupId")`,
  `CREATE INDEX "library_item_course" ON "library_item" ("courseId")`,
  `CREATE INDEX "invitation_person" ON "invitation" ("personId")`,
];

/** New columns of tables that exist: table, column, and the rest of its definition. */
const COLUMNS: ReadonlyArray<readonly [table: string, column: string, definition: string]> = [
  ['course', 'holidays', "text NOT NULL DEFAULT ('[]')"],
  ['enrolment', 'campusId', 'text'],
  ['enrolment', 'section', 'text'],
  ['enrolment', 'trait', 'text'],
  ['review_form', 'weighting', "text NOT NULL DEFAULT ('points')"],
  ['review_form', 'overall', "text NOT NULL DEFAULT ('none')"],
  ['review_form', 'overallWords', 'integer NOT NULL DEFAULT (0)'],
  ['review_form', 'minimumNotes', 'integer NOT NULL DEFAULT (0)'],
  ['review_form', 'targetNotes', 'integer NOT NULL DEFAULT (0)'],
  ['exchange', 'lateUntil', 'integer'],
  ['exchange', 'checkUntil', 'integer'],
  ['exchange', 'repliesDue', 'integer'],
  ['exchange', 'revisionDue', 'integer'],
  ['exchange', 'late', 'text'],
  ['exchange', 'deliverables', "text NOT NULL DEFAULT ('[]')"],
  [
    'exchange',
    'takesPart',
    `text NOT NULL DEFAULT ('{"kind":"everyone","sections":[],"groupIds":[],"studentIds":[]}')`,
  ],
  ['exchange', 'handInAs', "text NOT NULL DEFAULT ('alone')"],
  ['exchange', 'whom', "text NOT NULL DEFAULT ('anyone')"],
  ['exchange', 'groupSetId', 'text'],
  ['exchange', 'selfReview', "text NOT NULL DEFAULT ('off')"],
  ['exchange', 'ownHandInFirst', 'boolean NOT NULL DEFAULT (1)'],
  ['exchange', 'showNamesAtRelease', 'boolean NOT NULL DEFAULT (0)'],
  ['exchange', 'gradeParts', "text NOT NULL DEFAULT ('[]')"],
  ['exchange', 'shorthandId', 'text'],
  ['answer', 'next', "text NOT NULL DEFAULT ('')"],
  ['answer', 'value', 'real'],
  ['answer', 'checks', "text NOT NULL DEFAULT ('{}')"],
  ['answer', 'choices', "text NOT NULL DEFAULT ('[]')"],
];

/** What every exchange took before there were several deliverables. */
const TYPED_TEXT = JSON.stringify([
  { id: 'text', kind: 'text', title: 'Draft', description: '', required: true, families: [] },
]);

interface FormRow {
  readonly id: string;
  readonly items: string;
}

export class Planning1764115200000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    for (const statement of [...TABLES, ...INDEXES]) await runner.query(statement);
    for (const [table, column, definition] of COLUMNS) {
      await runner.query(`ALTER TABLE "${table}" ADD COLUMN "${column}" ${definition}`);
    }
    await runner.query(`UPDATE "exchange" SET "deliverables" = ?`, [TYPED_TEXT]);
    // The campus id belongs to a place in a course: another course may know the same person by another one.
    await runner.query(
      `UPDATE "enrolment" SET "campusId" = (SELECT "campusId" FROM "person" WHERE "person"."id" = "enrolment"."personId")`,
    );
    await runner.query(`ALTER TABLE "person" DROP COLUMN "campusId"`);
    await this.#rewriteItems(runner, (item) => ({ ...item, weight: 1 }));
  }

  async down(runner: QueryRunner): Promise<void> {
    await this.#rewriteItems(runner, ({ weight: _, ...item }) => item);
    await runner.query(`ALTER TABLE "person" ADD COLUMN "campusId" text`);
    await runner.query(
      `UPDATE "person" SET "campusId" = (SELECT MAX("campusId") FROM "enrolment" WHERE "enrolment"."personId" = "person"."id")`,
    );
    for (const [table, column] of [...COLUMNS].reverse())
      await runner.query(`ALTER TABLE "${table}" DROP COLUMN "${column}"`);
    const names = TABLES.map((statement) => /"(\w+)"/.exec(statement)?.[1] ?? '');
    for (const name of names.reverse()) await runner.query(`DROP TABLE "${name}"`);
  }

  async #rewriteItems(
    runner: QueryRunner,
    rewrite: (item: Record<string, unknown>) => Record<string, unknown>,
  ): Promise<void> {
    for (const { id, items } of (await runner.query(`SELECT "id", "items" FROM "review_form"`)) as FormRow[]) {
      const next = (JSON.parse(items) as Array<Record<string, unknown>>).map(rewrite);
      await runner.query(`UPDATE "review_form" SET "items" = ? WHERE "id" = ?`, [JSON.stringify(next), id]);
    }
  }
}
