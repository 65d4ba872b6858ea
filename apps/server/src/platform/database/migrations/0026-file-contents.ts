import { TableForeignKey, type MigrationInterface, type QueryRunner } from 'typeorm';

const CONTENT = { referencedTableName: 'file_content', referencedColumnNames: ['digest'] };
const FILE = { referencedTableName: 'stored_file', referencedColumnNames: ['digest'] };

const CONTENT_INDEXES = [
  `CREATE INDEX "stored_file_copy" ON "stored_file" ("copyDigest")`,
  `CREATE INDEX "draft_part_captions" ON "draft_part" ("captions")`,
  `CREATE INDEX "draft_picture_digest" ON "draft_picture" ("digest")`,
];

/** Which columns of which tables refer to a file or its bytes. */
const REFERENCES: ReadonlyArray<readonly [table: string, columns: Readonly<Record<string, typeof FILE>>]> = [
  ['stored_file', { digest: CONTENT, copyDigest: CONTENT }],
  ['draft_part', { digest: FILE, captions: FILE }],
  ['draft_picture', { digest: CONTENT }],
  ['exchange_attachment', { digest: FILE }],
  ['review_file', { digest: FILE }],
];

/**
 * Every digest that a row holds becomes a foreign key. What names a file that has gone is mended first: a part loses the digest that leads
 * nowhere, and a row that is nothing but a file goes.
 */
export class FileContents1766448000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await stopWatchingReferences(runner);
    await runner.query(`CREATE TABLE "file_content" ("digest" text PRIMARY KEY NOT NULL)`);
    await runner.query(`INSERT INTO "file_content"
      SELECT "digest" FROM "stored_file"
      UNION SELECT "copyDigest" FROM "stored_file" WHERE "copyDigest" IS NOT NULL
      UNION SELECT picture.value FROM "stored_file", json_each("stored_file"."pictures") picture
      UNION SELECT "digest" FROM "draft_picture"`);
    for (const column of ['digest', 'captions'])
      await runner.query(`UPDATE "draft_part" SET "${column}" = NULL
        WHERE "${column}" NOT IN (SELECT "digest" FROM "stored_file")`);
    for (const table of ['exchange_attachment', 'review_file'])
      await runner.query(`DELETE FROM "${table}" WHERE "digest" NOT IN (SELECT "digest" FROM "stored_file")`);
    await runner.query(`CREATE TABLE "file_picture" (
      "fileDigest" text NOT NULL,
      "digest" text NOT NULL,
      CONSTRAINT "FK_d98c224e4cd07ccd68568aa6d34" FOREIGN KEY ("fileDigest") REFERENCES "stored_file" ("digest") ON DELETE CASCADE ON UPDATE NO ACTION,
      CONSTRAINT "FK_b53a534954861e0bf7410058466" FOREIGN KEY ("digest") REFERENCES "file_content" ("digest") ON DELETE NO ACTION ON UPDATE NO ACTION,
      PRIMARY KEY ("fileDigest", "digest")
    )`);
    await runner.query(`CREATE INDEX "file_picture_digest" ON "file_picture" ("digest")`);
    await runner.query(`INSERT INTO "file_picture"
      SELECT DISTINCT "stored_file"."digest", picture.value FROM "stored_file", json_each("stored_file"."pictures") picture`);
    await runner.query(`ALTER TABLE "stored_file" DROP COLUMN "pictures"`);
    for (const [table, columns] of REFERENCES) {
      const keys = Object.entries(columns).map(([column, to]) => new TableForeignKey({ columnNames: [column], ...to }));
      await runner.createForeignKeys(table, keys);
    }
    for (const statement of CONTENT_INDEXES) await runner.query(statement);
    const broken = (await runner.query(
      `SELECT * FROM pragma_foreign_key_check WHERE "parent" IN ('stored_file', 'file_content')`,
    )) as unknown[];
    if (broken.length > 0) throw new Error(`${broken.length} rows refer to nothing`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await stopWatchingReferences(runner);
    for (const [, name] of CONTENT_INDEXES.map((statement) => /INDEX ("\w+")/.exec(statement) as RegExpExecArray))
      await runner.query(`DROP INDEX ${name}`);
    for (const [table, columns] of REFERENCES) {
      const known = await runner.getTable(table);
      const keys = known?.foreignKeys.filter(({ columnNames }) => (columnNames[0] as string) in columns) ?? [];
      await runner.dropForeignKeys(table, keys);
    }
    await runner.query(`ALTER TABLE "stored_file" ADD COLUMN "pictures" text NOT NULL DEFAULT ('[]')`);
    await runner.query(`UPDATE "stored_file" SET "pictures" =
      (SELECT json_group_array("digest") FROM "file_picture" WHERE "fileDigest" = "stored_file"."digest")`);
    await runner.query(`DROP TABLE "file_picture"`);
    await runner.query(`DROP TABLE "file_content"`);
  }
}

/**
 * A table that others refer to can only be built anew while nothing watches over references, and that cannot be switched off within a
 * transaction. They are watched again when all migrations have run.
 */
async function stopWatchingReferences(runner: QueryRunner): Promise<void> {
  await runner.commitTransaction();
  await runner.query('PRAGMA foreign_keys = OFF');
  await runner.startTransaction();
}
