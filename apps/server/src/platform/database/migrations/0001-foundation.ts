import type { MigrationInterface, QueryRunner } from 'typeorm';

const TABLES = [
  `CREATE TABLE "person" (
    "id" text PRIMARY KEY NOT NULL,
    "email" text NOT NULL,
    "name" text NOT NULL,
    "campusId" text,
    "passwordHash" text,
    "createsCourses" boolean NOT NULL DEFAULT (0),
    "createdAt" integer NOT NULL,
    CONSTRAINT "UQ_d2d717efd90709ebd3cb26b936c" UNIQUE ("email")
  )`,
  `CREATE TABLE "session" (
    "tokenHash" text PRIMARY KEY NOT NULL,
    "personId" text NOT NULL,
    "createdAt" integer NOT NULL,
    "lastSeenAt" integer NOT NULL,
    CONSTRAINT "FK_b8e1fcf37e349295272a5ebbd50" FOREIGN KEY ("personId") REFERENCES "person" ("id") ON DELETE CASCADE ON UPDATE CASCADE
  )`,
  `CREATE TABLE "course" (
    "id" text PRIMARY KEY NOT NULL,
    "title" text NOT NULL,
    "timeZone" text NOT NULL,
    "createdAt" integer NOT NULL
  )`,
  `CREATE TABLE "enrolment" (
    "id" text PRIMARY KEY NOT NULL,
    "courseId" text NOT NULL,
    "personId" text NOT NULL,
    "role" text NOT NULL,
    "active" boolean NOT NULL DEFAULT (1),
    CONSTRAINT "enrolment_once" UNIQUE ("courseId", "personId"),
    CONSTRAINT "FK_32654bfec59f2a78ee4c2d6c9f1" FOREIGN KEY ("courseId") REFERENCES "course" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
    CONSTRAINT "FK_8dcb5552aaa4ba59c1e3603ac24" FOREIGN KEY ("personId") REFERENCES "person" ("id") ON DELETE CASCADE ON UPDATE CASCADE
  )`,
  `CREATE TABLE "review_form" (
    "id" text PRIMARY KEY NOT NULL,
    "courseId" text NOT NULL,
    "items" text NOT NULL,
    "revision" integer NOT NULL,
    CONSTRAINT "FK_46b2561e8b723b0baef73800638" FOREIGN KEY ("courseId") REFERENCES "course" ("id") ON DELETE CASCADE ON UPDATE CASCADE
  )`,
  `CREATE TABLE "exchange" (
    "id" text PRIMARY KEY NOT NULL,
    "courseId" text NOT NULL,
    "formId" text NOT NULL,
    "title" text NOT NULL,
    "briefHtml" text NOT NULL,
    "guideHtml" text NOT NULL,
    "draftsOpen" integer,
    "draftsDue" integer,
    "reviewsOpen" integer,
    "reviewsDue" integer,
    "release" integer,
    "reviewsPerStudent" integer NOT NULL,
    "names" text NOT NULL,
    "publishedAt" integer,
    "revision" integer NOT NULL,
    "createdAt" integer NOT NULL,
    CONSTRAINT "FK_861207447f1336bdb4613d3ab2e" FOREIGN KEY ("courseId") REFERENCES "course" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
    CONSTRAINT "FK_0a3ebea78c011b768488b6a1d4d" FOREIGN KEY ("formId") REFERENCES "review_form" ("id") ON DELETE RESTRICT ON UPDATE CASCADE
  )`,
  `CREATE TABLE "participant" (
    "id" text PRIMARY KEY NOT NULL,
    "exchangeId" text NOT NULL,
    "personId" text NOT NULL,
    "alias" text NOT NULL,
    CONSTRAINT "participant_alias" UNIQUE ("exchangeId", "alias"),
    CONSTRAINT "participant_once" UNIQUE ("exchangeId", "personId"),
    CONSTRAINT "FK_c43777ba6c5de99dc2faf69dd15" FOREIGN KEY ("exchangeId") REFERENCES "exchange" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
    CONSTRAINT "FK_43c5caad2335ce85537fd1b6a69" FOREIGN KEY ("personId") REFERENCES "person" ("id") ON DELETE CASCADE ON UPDATE CASCADE
  )`,
  `CREATE TABLE "draft" (
    "id" text PRIMARY KEY NOT NULL,
    "exchangeId" text NOT NULL,
    "participantId" text NOT NULL,
    "title" text NOT NULL,
    "html" text NOT NULL,
    "revision" integer NOT NULL,
    "savedAt" integer,
    CONSTRAINT "UQ_940cc138151d6d74a025a2ca4cf" UNIQUE ("participantId"),
    CONSTRAINT "FK_6ddda76ac891433abfc361747d0" FOREIGN KEY ("exchangeId") REFERENCES "exchange" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
    CONSTRAINT "FK_940cc138151d6d74a025a2ca4cf" FOREIGN KEY ("participantId") REFERENCES "participant" ("id") ON DELETE CASCADE ON UPDATE CASCADE
  )`,
  `CREATE TABLE "draft_version" (
    "id" text PRIMARY KEY NOT NULL,
    "draftId" text NOT NULL,
    "number" integer NOT NULL,
    "title" text NOT NULL,
    "html" text NOT NULL,
    "words" integer NOT NULL,
    "digest" text NOT NULL,
    "handedInAt" integer NOT NULL,
    CONSTRAINT "draft_version_number" UNIQUE ("draftId", "number"),
    CONSTRAINT "FK_18fe56730e1333829406b776e5e" FOREIGN KEY ("draftId") REFERENCES "draft" ("id") ON DELETE CASCADE ON UPDATE CASCADE
  )`,
  `CREATE TABLE "review" (
    "id" text PRIMARY KEY NOT NULL,
    "exchangeId" text NOT NULL,
    "reviewerId" text NOT NULL,
    "draftId" text NOT NULL,
    "position" integer NOT NULL,
    "begunAt" integer,
    "submittedAt" integer,
    "answered" integer NOT NULL DEFAULT (0),
    "required" integer NOT NULL DEFAULT (0),
    "words" integer NOT NULL DEFAULT (0),
    "noteCount" integer NOT NULL DEFAULT (0),
    CONSTRAINT "review_once" UNIQUE ("reviewerId", "draftId"),
    CONSTRAINT "FK_733c4a9c266ca5084dda9d8a2f9" FOREIGN KEY ("exchangeId") REFERENCES "exchange" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
    CONSTRAINT "FK_34413365b39e3bf5bea866569b4" FOREIGN KEY ("reviewerId") REFERENCES "participant" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
    CONSTRAINT "FK_4e04b2bc0015f077d742c5b9df7" FOREIGN KEY ("draftId") REFERENCES "draft" ("id") ON DELETE CASCADE ON UPDATE CASCADE
  )`,
  `CREATE TABLE "answer" (
    "reviewId" text NOT NULL,
    "itemId" text NOT NULL,
    "levelId" text,
    "text" text NOT NULL,
    "revision" integer NOT NULL,
    CONSTRAINT "FK_86c78fbc0f5f1e80b4c8b7d5db7" FOREIGN KEY ("reviewId") REFERENCES "review" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
    PRIMARY KEY ("reviewId", "itemId")
  )`,
  `CREATE TABLE "note" (
    "id" text PRIMARY KEY NOT NULL,
    "reviewId" text NOT NULL,
    "kind" text NOT NULL,
    "body" text NOT NULL,
    "anchor" text NOT NULL,
    "revision" integer NOT NULL,
    "createdAt" integer NOT NULL,
    CONSTRAINT "FK_f5949b1dc35141e5234ad711e13" FOREIGN KEY ("reviewId") REFERENCES "review" ("id") ON DELETE CASCADE ON UPDATE CASCADE
  )`,
  `CREATE TABLE "record" (
    "id" integer PRIMARY KEY AUTOINCREMENT NOT NULL,
    "at" integer NOT NULL,
    "actorId" text,
    "action" text NOT NULL,
    "courseId" text,
    "exchangeId" text,
    "details" text NOT NULL
  )`,
  `CREATE TABLE "setting" (
    "key" text PRIMARY KEY NOT NULL,
    "value" text NOT NULL
  )`,
];

const INDEXES = [
  `CREATE INDEX "record_exchange" ON "record" ("exchangeId", "id")`,
  `CREATE INDEX "session_person" ON "session" ("personId")`,
  `CREATE INDEX "enrolment_person" ON "enrolment" ("personId")`,
  `CREATE INDEX "review_form_course" ON "review_form" ("courseId")`,
  `CREATE INDEX "exchange_course" ON "exchange" ("courseId")`,
  `CREATE INDEX "participant_person" ON "participant" ("personId")`,
  `CREATE INDEX "draft_exchange" ON "draft" ("exchangeId")`,
  `CREATE INDEX "review_exchange" ON "review" ("exchangeId")`,
  `CREATE INDEX "review_draft" ON "review" ("draftId")`,
  `CREATE INDEX "note_review" ON "note" ("reviewId")`,
];

/** The record is append-only, whoever asks. */
const TRIGGERS = ['UPDATE', 'DELETE'].map(
  (event) => `CREATE TRIGGER "record_no_${event.toLowerCase()}" BEFORE ${event} ON "record"
    BEGIN SELECT RAISE(ABORT, 'the record is append-only'); END`,
);

export class Foundation1764028800000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    for (const statement of [...TABLES, ...INDEXES, ...TRIGGERS]) await runner.query(statement);
  }

  async down(runner: QueryRunner): Promise<void> {
    const names = TABLES.map((statement) => /"(\w+)"/.exec(statement)?.[1] ?? '');
    for (const name of names.reverse()) await runner.query(`DROP TABLE "${name}"`);
  }
}
