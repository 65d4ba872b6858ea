import type { MigrationInterface, QueryRunner } from 'typeorm';

const TABLES = [
  `CREATE TABLE "campus" (
  "id" text PRIMARY KEY NOT NULL,
  "name" text NOT NULL,
  "issuer" text NOT NULL,
  "clientId" text NOT NULL,
  "authUrl" text NOT NULL,
  "tokenUrl" text NOT NULL,
  "keysUrl" text NOT NULL,
  "tokenAudience" text,
  "pages" text NOT NULL,
  "active" boolean NOT NULL DEFAULT (1),
  "makesCourses" boolean NOT NULL DEFAULT (1),
  "createdAt" integer NOT NULL,
  "arrivedAt" integer,
  "answeredAt" integer,
  "fault" text,
  "faultAt" integer,
  "arrivalFault" text,
  "arrivalFaultAt" integer,
  CONSTRAINT "campus_once" UNIQUE ("issuer", "clientId")
)`,
  `CREATE TABLE "campus_deployment" (
  "campusId" text NOT NULL,
  "deploymentId" text NOT NULL,
  "allowed" boolean NOT NULL,
  CONSTRAINT "FK_88a1e6d8cd520c46488a740f412" FOREIGN KEY ("campusId") REFERENCES "campus" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
  PRIMARY KEY ("campusId", "deploymentId")
)`,
  `CREATE TABLE "campus_key" (
  "id" text PRIMARY KEY NOT NULL,
  "sealed" text NOT NULL,
  "shown" text NOT NULL,
  "createdAt" integer NOT NULL,
  "signsFrom" integer NOT NULL,
  "endsAt" integer
)`,
  `CREATE TABLE "campus_registration" (
  "tokenHash" text PRIMARY KEY NOT NULL,
  "byId" text NOT NULL,
  "name" text NOT NULL,
  "createdAt" integer NOT NULL,
  CONSTRAINT "FK_78a448c1695912ccc4e3d10a568" FOREIGN KEY ("byId") REFERENCES "person" ("id") ON DELETE CASCADE ON UPDATE CASCADE
)`,
  `CREATE TABLE "campus_login" (
  "stateHash" text PRIMARY KEY NOT NULL,
  "campusId" text NOT NULL,
  "nonce" text NOT NULL,
  "browserHash" text NOT NULL,
  "asked" text NOT NULL,
  "createdAt" integer NOT NULL,
  CONSTRAINT "FK_829953bbd1b0a278d772c72f93d" FOREIGN KEY ("campusId") REFERENCES "campus" ("id") ON DELETE CASCADE ON UPDATE CASCADE
)`,
  `CREATE TABLE "campus_arrival" (
  "tokenHash" text PRIMARY KEY NOT NULL,
  "campusId" text NOT NULL,
  "launch" text NOT NULL,
  "framed" boolean NOT NULL,
  "chosen" text,
  "roleRead" boolean NOT NULL DEFAULT (0),
  "browserHash" text NOT NULL,
  "createdAt" integer NOT NULL,
  CONSTRAINT "FK_50527898553c5c84ea03bbea8e2" FOREIGN KEY ("campusId") REFERENCES "campus" ("id") ON DELETE CASCADE ON UPDATE CASCADE
)`,
  `CREATE TABLE "campus_person" (
  "campusId" text NOT NULL,
  "user" text NOT NULL,
  "personId" text NOT NULL,
  "createdAt" integer NOT NULL,
  CONSTRAINT "FK_edd2f0cf21e8f06ebf3f0bc8772" FOREIGN KEY ("campusId") REFERENCES "campus" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
  CONSTRAINT "FK_0e3cab2db937e8aaf37e35f5f90" FOREIGN KEY ("personId") REFERENCES "person" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
  PRIMARY KEY ("campusId", "user")
)`,
  `CREATE TABLE "campus_proof" (
  "tokenHash" text PRIMARY KEY NOT NULL,
  "campusId" text NOT NULL,
  "user" text NOT NULL,
  "personId" text NOT NULL,
  "createdAt" integer NOT NULL,
  CONSTRAINT "FK_b2153ec7bca25c78fe22a9fe797" FOREIGN KEY ("campusId") REFERENCES "campus" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
  CONSTRAINT "FK_2a26eabb7bf95f9b9d66ef8d113" FOREIGN KEY ("personId") REFERENCES "person" ("id") ON DELETE CASCADE ON UPDATE CASCADE
)`,
  `CREATE TABLE "campus_course" (
  "courseId" text PRIMARY KEY NOT NULL,
  "campusId" text NOT NULL,
  "deploymentId" text NOT NULL,
  "contextId" text NOT NULL,
  "title" text NOT NULL,
  "services" text NOT NULL,
  "nightly" text NOT NULL DEFAULT ('add'),
  "fetchedAt" integer,
  "missing" integer NOT NULL DEFAULT (0),
  "fault" text,
  CONSTRAINT "campus_course_there" UNIQUE ("campusId", "deploymentId", "contextId"),
  CONSTRAINT "FK_16e2bc630939e4dcbb89da6f144" FOREIGN KEY ("courseId") REFERENCES "course" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
  CONSTRAINT "FK_ad1766ea2bec2f07b2c6bde597d" FOREIGN KEY ("campusId") REFERENCES "campus" ("id") ON DELETE CASCADE ON UPDATE CASCADE
)`,
  `CREATE TABLE "campus_link" (
  "courseId" text NOT NULL,
  "linkId" text NOT NULL,
  "exchangeId" text NOT NULL,
  "columnUrl" text,
  CONSTRAINT "FK_4c12d756408f9c91292c820a2a1" FOREIGN KEY ("courseId") REFERENCES "campus_course" ("courseId") ON DELETE CASCADE ON UPDATE CASCADE,
  CONSTRAINT "FK_eecc0a7d1098952db6e433190d9" FOREIGN KEY ("exchangeId") REFERENCES "exchange" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
  PRIMARY KEY ("courseId", "linkId")
)`,
  `CREATE TABLE "campus_column" (
  "exchangeId" text NOT NULL,
  "part" text NOT NULL,
  "url" text,
  "label" text,
  "fault" text,
  "tries" integer NOT NULL DEFAULT (0),
  "nextTryAt" integer NOT NULL DEFAULT (0),
  CONSTRAINT "FK_fd02924eb0bf91bde95adbc3b42" FOREIGN KEY ("exchangeId") REFERENCES "exchange" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
  PRIMARY KEY ("exchangeId", "part")
)`,
  `CREATE TABLE "campus_score" (
  "participantId" text NOT NULL,
  "part" text NOT NULL,
  "exchangeId" text NOT NULL,
  "state" text NOT NULL,
  "kind" text NOT NULL,
  "value" real,
  "comment" text NOT NULL,
  "sentValue" real,
  "sentAt" integer,
  "unsure" boolean NOT NULL DEFAULT (0),
  "theirs" real,
  "tries" integer NOT NULL DEFAULT (0),
  "nextTryAt" integer NOT NULL DEFAULT (0),
  "error" text,
  CONSTRAINT "FK_ee9b9a6921e8ffa216c030a017b" FOREIGN KEY ("participantId") REFERENCES "participant" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
  CONSTRAINT "FK_43f68f43e3f257ee0796915e64d" FOREIGN KEY ("exchangeId") REFERENCES "exchange" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
  PRIMARY KEY ("participantId", "part")
)`,
];

const INDEXES = [
  `CREATE UNIQUE INDEX "enrolment_campus_user" ON "enrolment" ("courseId", "campusUser")`,
  `CREATE INDEX "campus_person_person" ON "campus_person" ("personId")`,
  `CREATE INDEX "campus_proof_person" ON "campus_proof" ("personId")`,
  `CREATE INDEX "campus_link_exchange" ON "campus_link" ("exchangeId")`,
  `CREATE INDEX "campus_score_exchange" ON "campus_score" ("exchangeId")`,
  `CREATE INDEX "campus_score_state" ON "campus_score" ("state", "nextTryAt")`,
];

/** In an order in which none is named by one that is still there. */
const DOWN = [
  'campus_score',
  'campus_column',
  'campus_link',
  'campus_course',
  'campus_proof',
  'campus_person',
  'campus_arrival',
  'campus_login',
  'campus_registration',
  'campus_key',
  'campus_deployment',
  'campus',
];

/** Campuses: who comes by them, courses and links of theirs, and what their gradebooks are told. */
export class Campuses1766188800000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "person" ADD COLUMN "runsCampuses" boolean NOT NULL DEFAULT (0)`);
    await runner.query(`ALTER TABLE "enrolment" ADD COLUMN "source" text NOT NULL DEFAULT ('hand')`);
    await runner.query(`ALTER TABLE "enrolment" ADD COLUMN "campusUser" text`);
    for (const query of [...TABLES, ...INDEXES]) await runner.query(query);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP INDEX "enrolment_campus_user"`);
    for (const table of DOWN) await runner.query(`DROP TABLE "${table}"`);
    await runner.query(`ALTER TABLE "enrolment" DROP COLUMN "campusUser"`);
    await runner.query(`ALTER TABLE "enrolment" DROP COLUMN "source"`);
    await runner.query(`ALTER TABLE "person" DROP COLUMN "runsCampuses"`);
  }
}
