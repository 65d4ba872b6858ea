import type { MigrationInterface, QueryRunner } from 'typeorm';

const NOTE = (name: string) => `CREATE TABLE "${name}" (
  "id" text PRIMARY KEY NOT NULL,
  "reviewId" text NOT NULL,
  "kind" text NOT NULL,
  "body" text NOT NULL,
  "versionId" text NOT NULL,
  "partId" text,
  "selector" text NOT NULL,
  "withheldAt" integer,
  "revision" integer NOT NULL,
  "createdAt" integer NOT NULL,
  CONSTRAINT "FK_f5949b1dc35141e5234ad711e13" FOREIGN KEY ("reviewId") REFERENCES "review" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
  CONSTRAINT "FK_7bef510f6b5872438ced6cbfa55" FOREIGN KEY ("versionId") REFERENCES "draft_version" ("id") ON DELETE CASCADE ON UPDATE CASCADE,
  CONSTRAINT "FK_1da0d4903b8a4932400e93efb7c" FOREIGN KEY ("partId") REFERENCES "draft_part" ("id") ON DELETE CASCADE ON UPDATE CASCADE
)`;

const OLD_NOTE = `CREATE TABLE "note_old" (
  "id" text PRIMARY KEY NOT NULL,
  "reviewId" text NOT NULL,
  "kind" text NOT NULL,
  "body" text NOT NULL,
  "anchor" text NOT NULL,
  "revision" integer NOT NULL,
  "createdAt" integer NOT NULL,
  CONSTRAINT "FK_f5949b1dc35141e5234ad711e13" FOREIGN KEY ("reviewId") REFERENCES "review" ("id") ON DELETE CASCADE ON UPDATE CASCADE
)`;

/** New columns of tables that exist: table, column, and the rest of its definition. */
const COLUMNS: ReadonlyArray<readonly [table: string, column: string, definition: string]> = [
  ['draft_version', 'purpose', "text NOT NULL DEFAULT ('draft')"],
  ['review', 'versionId', 'text'],
  ['review', 'withheldAt', 'integer'],
  ['answer', 'withheldAt', 'integer'],
];

/** The version that reviewers have read so far: the last one not taken back; else, for old work, the last one at all. */
const READ = `(SELECT version.id FROM draft_version version WHERE version.draftId = review.draftId
  ORDER BY version.withdrawnAt IS NULL DESC, version.number DESC LIMIT 1)`;

interface NoteToMove {
  readonly id: string;
  readonly anchor: string;
  readonly versionId: string;
  readonly deliverables: string;
}

interface PartRow {
  readonly id: string;
  readonly deliverableId: string;
  readonly position: number;
}

/** A review names the version it is of, and a note the part and the place in it. */
export class Places1764633600000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    for (const [table, column, definition] of COLUMNS) {
      await runner.query(`ALTER TABLE "${table}" ADD COLUMN "${column}" ${definition}`);
    }
    await runner.query(
      `UPDATE "review" SET "versionId" = ${READ}
        WHERE "begunAt" IS NOT NULL OR EXISTS (SELECT 1 FROM note WHERE note.reviewId = review.id)`,
    );
    await runner.query(NOTE('note_new'));
    const notes = (await runner.query(
      `SELECT note.id, note.anchor, review.versionId, exchange.deliverables FROM note
         JOIN review ON review.id = note.reviewId JOIN exchange ON exchange.id = review.exchangeId
        WHERE review.versionId IS NOT NULL`,
    )) as NoteToMove[];
    const parts = new Map<string, string | null>();
    for (const { id, anchor, versionId, deliverables } of notes) {
      if (!parts.has(versionId)) parts.set(versionId, await this.#annotated(runner, versionId, deliverables));
      const selector = JSON.stringify({ type: 'text', ...(JSON.parse(anchor) as object) });
      await runner.query(
        `INSERT INTO "note_new" SELECT "id", "reviewId", "kind", "body", ?, ?, ?, NULL, "revision", "createdAt" FROM "note" WHERE "id" = ?`,
        [versionId, parts.get(versionId) ?? null, selector, id],
      );
    }
    await this.#replaceNotes(runner, 'note_new');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(OLD_NOTE);
    // Before, a note could only be on a passage of the first text.
    await runner.query(
      `INSERT INTO "note_old" SELECT "id", "reviewId", "kind", "body", json_remove("selector", '$.type'), "revision", "createdAt"
         FROM "note" WHERE json_extract("selector", '$.type') = 'text'`,
    );
    await this.#replaceNotes(runner, 'note_old');
    for (const [table, column] of [...COLUMNS].reverse()) {
      await runner.query(`ALTER TABLE "${table}" DROP COLUMN "${column}"`);
    }
  }

  async #replaceNotes(runner: QueryRunner, by: string): Promise<void> {
    await runner.query(`DROP TABLE "note"`);
    await runner.query(`ALTER TABLE "${by}" RENAME TO "note"`);
    await runner.query(`CREATE INDEX "note_review" ON "note" ("reviewId")`);
  }

  /** The part that notes could stand on before: the first one that is read as text, in the order of the deliverables. */
  async #annotated(runner: QueryRunner, versionId: string, deliverables: string): Promise<string | null> {
    const order = (JSON.parse(deliverables) as Array<{ readonly id: string }>).map(({ id }) => id);
    const rows = (await runner.query(
      `SELECT part.id, part.deliverableId, part.position FROM draft_part part
         LEFT JOIN stored_file file ON file.digest = part.digest
        WHERE part.versionId = ? AND ((part.kind = 'text' AND part.html <> '') OR
              (file.copyState = 'ready' AND file.copyHtml IS NOT NULL AND file.family IN ('document', 'plain-text', 'captions')))`,
      [versionId],
    )) as PartRow[];
    const place = ({ deliverableId }: PartRow) => order.indexOf(deliverableId);
    const [first] = rows
      .filter((row) => place(row) !== -1)
      .sort((a, b) => place(a) - place(b) || a.position - b.position);
    return first?.id ?? null;
  }
}
