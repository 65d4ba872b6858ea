import { randomUUID } from 'node:crypto';
import type { MigrationInterface, QueryRunner } from 'typeorm';

const STORED_FILE = `CREATE TABLE "stored_file" (
  "digest" text PRIMARY KEY NOT NULL,
  "size" integer NOT NULL,
  "mime" text NOT NULL,
  "family" text NOT NULL,
  "createdAt" integer NOT NULL,
  "copyState" text NOT NULL,
  "copyProblem" text,
  "copyTries" integer NOT NULL DEFAULT (0),
  "facts" text NOT NULL DEFAULT ('{}'),
  "copyHtml" text,
  "copyText" text,
  "copyDigest" text,
  "pictures" text NOT NULL DEFAULT ('[]'),
  "metadata" text NOT NULL DEFAULT ('[]')
)`;

const DRAFT_PICTURE = `CREATE TABLE "draft_picture" (
  "draftId" text NOT NULL,
  "digest" text NOT NULL,
  CONSTRAINT "FK_4a66546ee00159b18e24c3d7367" FOREIGN KEY ("draftId") REFERENCES "draft" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
  PRIMARY KEY ("draftId", "digest")
)`;

const DRAFT_PART = `CREATE TABLE "draft_part" (
  "id" text PRIMARY KEY NOT NULL,
  "draftId" text NOT NULL,
  "versionId" text,
  "deliverableId" text NOT NULL,
  "position" integer NOT NULL,
  "kind" text NOT NULL,
  "html" text NOT NULL DEFAULT (''),
  "revision" integer NOT NULL DEFAULT (0),
  "savedAt" integer,
  "digest" text,
  "name" text NOT NULL DEFAULT (''),
  "url" text NOT NULL DEFAULT (''),
  "title" text NOT NULL DEFAULT (''),
  "about" text NOT NULL DEFAULT (''),
  "captions" text,
  "hidden" text NOT NULL DEFAULT ('[]'),
  "uploadId" text,
  CONSTRAINT "UQ_draft_part_upload" UNIQUE ("uploadId"),
  CONSTRAINT "FK_0cd400433d963a7e37dffd3223c" FOREIGN KEY ("draftId") REFERENCES "draft" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
  CONSTRAINT "FK_a451fbc4686efb6ac5653c4fe8d" FOREIGN KEY ("versionId") REFERENCES "draft_version" ("id") ON DELETE CASCADE ON UPDATE CASCADE
)`;

/** New columns of tables that exist: table, column, and the rest of its definition. */
const COLUMNS: ReadonlyArray<readonly [table: string, column: string, definition: string]> = [
  ['draft', 'groupId', 'text'],
  ['draft', 'alias', 'text'],
  ['draft', 'context', "text NOT NULL DEFAULT ('')"],
  ['draft_version', 'context', "text NOT NULL DEFAULT ('')"],
  ['draft_version', 'handedInBy', 'text'],
  ['draft_version', 'withdrawnAt', 'integer'],
];

const INDEXES = [
  `CREATE INDEX "draft_part_draft" ON "draft_part" ("draftId")`,
  `CREATE INDEX "draft_part_version" ON "draft_part" ("versionId")`,
  `CREATE INDEX "draft_part_digest" ON "draft_part" ("digest")`,
  `CREATE UNIQUE INDEX "draft_group" ON "draft" ("exchangeId", "groupId")`,
];

interface Deliverable {
  readonly id: string;
  readonly kind: string;
  readonly families: readonly string[];
}

interface TextRow {
  readonly draftId: string;
  readonly versionId: string | null;
  readonly html: string;
  readonly revision: number;
  readonly savedAt: number | null;
  readonly deliverables: string;
}

/** Slides, sheets and archives can no longer be handed in as such; a deliverable that took nothing else takes PDF. */
function cleaned(one: Deliverable): unknown {
  const families = one.families.filter((family) => !['slides', 'sheet', 'archive'].includes(family));
  const none = one.kind === 'file' && families.length === 0;
  return { ...one, families: none ? ['pdf'] : families, maxMegabytes: 50 };
}

export class HandingIn1764288000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await this.#rewriteDeliverables(runner, cleaned);
    const texts = (await runner.query(`
      SELECT draft.id AS draftId, NULL AS versionId, draft.html, draft.revision, draft.savedAt, exchange.deliverables
        FROM draft JOIN exchange ON exchange.id = draft.exchangeId
      UNION ALL
      SELECT version.draftId, version.id, version.html, 0, version.handedInAt, exchange.deliverables
        FROM draft_version version JOIN draft ON draft.id = version.draftId
        JOIN exchange ON exchange.id = draft.exchangeId`)) as TextRow[];
    for (const statement of [STORED_FILE, DRAFT_PART, DRAFT_PICTURE]) await runner.query(statement);
    for (const [table, column, definition] of COLUMNS) {
      await runner.query(`ALTER TABLE "${table}" ADD COLUMN "${column}" ${definition}`);
    }
    for (const statement of INDEXES) await runner.query(statement);
    for (const table of ['draft', 'draft_version']) await runner.query(`ALTER TABLE "${table}" DROP COLUMN "html"`);
    for (const text of texts) await this.#addText(runner, text);
  }

  async down(runner: QueryRunner): Promise<void> {
    const html = (where: string) =>
      `COALESCE((SELECT html FROM draft_part part WHERE ${where} AND part.kind = 'text' ORDER BY part.position LIMIT 1), '')`;
    for (const table of ['draft_version', 'draft'])
      await runner.query(`ALTER TABLE "${table}" ADD COLUMN "html" text NOT NULL DEFAULT ('')`);
    await runner.query(`UPDATE "draft_version" SET "html" = ${html('part.versionId = draft_version.id')}`);
    await runner.query(`UPDATE "draft" SET "html" = ${html('part.draftId = draft.id AND part.versionId IS NULL')}`);
    await runner.query(`DROP INDEX "draft_group"`);
    for (const [table, column] of [...COLUMNS].reverse())
      await runner.query(`ALTER TABLE "${table}" DROP COLUMN "${column}"`);
    for (const table of ['draft_picture', 'draft_part', 'stored_file']) await runner.query(`DROP TABLE "${table}"`);
    await this.#rewriteDeliverables(runner, (one) => {
      const { maxMegabytes: _, ...rest } = one as Deliverable & { maxMegabytes: number };
      return rest;
    });
  }

  async #addText(runner: QueryRunner, text: TextRow): Promise<void> {
    const deliverables = JSON.parse(text.deliverables) as Deliverable[];
    const target = deliverables.find(({ kind }) => kind === 'text') ?? deliverables[0];
    if (target === undefined) return;
    await runner.query(
      `INSERT INTO "draft_part" ("id", "draftId", "versionId", "deliverableId", "position", "kind", "html", "revision", "savedAt")
       VALUES (?, ?, ?, ?, 0, 'text', ?, ?, ?)`,
      [randomUUID(), text.draftId, text.versionId, target.id, text.html, text.revision, text.savedAt],
    );
  }

  async #rewriteDeliverables(runner: QueryRunner, rewrite: (one: Deliverable) => unknown): Promise<void> {
    const exchanges = (await runner.query(`SELECT "id", "deliverables" FROM "exchange"`)) as Array<{
      id: string;
      deliverables: string;
    }>;
    for (const { id, deliverables } of exchanges) {
      const next = (JSON.parse(deliverables) as Deliverable[]).map(rewrite);
      await runner.query(`UPDATE "exchange" SET "deliverables" = ? WHERE "id" = ?`, [JSON.stringify(next), id]);
    }
    const templates = (await runner.query(
      `SELECT "id", "content" FROM "library_item" WHERE "kind" = 'template'`,
    )) as Array<{
      id: string;
      content: string;
    }>;
    for (const { id, content } of templates) {
      const template = JSON.parse(content) as Record<string, unknown>;
      const settings = template['settings'] as { deliverables: unknown[] };
      settings.deliverables = (settings.deliverables as Deliverable[]).map(rewrite);
      await runner.query(`UPDATE "library_item" SET "content" = ? WHERE "id" = ?`, [JSON.stringify(template), id]);
    }
  }
}
