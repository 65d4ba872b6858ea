import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Access tokens for scripts. */
export class AccessTokens1766016000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE "access_token" (
  "tokenHash" text PRIMARY KEY NOT NULL,
  "id" text NOT NULL,
  "personId" text NOT NULL,
  "name" text NOT NULL,
  "scope" text NOT NULL,
  "createdAt" integer NOT NULL,
  "endsAt" integer NOT NULL,
  "usedAt" integer,
  CONSTRAINT "UQ_TOKEN_ID" UNIQUE ("id"),
  CONSTRAINT "FK_a1afd0d760cef0eac45cab7d7e3" FOREIGN KEY ("personId") REFERENCES "person" ("id") ON DELETE CASCADE ON UPDATE CASCADE
)`);
    await runner.query(`CREATE INDEX "access_token_person" ON "access_token" ("personId")`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "access_token"`);
  }
}
