import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Files that are given with the brief and the guide. */
export class Attachments1765065600000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE "exchange_attachment" (
  "id" text PRIMARY KEY NOT NULL,
  "exchangeId" text NOT NULL,
  "place" text NOT NULL,
  "digest" text NOT NULL,
  "name" text NOT NULL,
  "uploadId" text,
  "addedAt" integer NOT NULL,
  CONSTRAINT "FK_846e17ed547b260c1e2210fee99" FOREIGN KEY ("exchangeId") REFERENCES "exchange" ("id") ON DELETE CASCADE ON UPDATE CASCADE
)`);
    await runner.query(`CREATE INDEX "exchange_attachment_exchange" ON "exchange_attachment" ("exchangeId")`);
    await runner.query(`CREATE INDEX "exchange_attachment_digest" ON "exchange_attachment" ("digest")`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "exchange_attachment"`);
  }
}
