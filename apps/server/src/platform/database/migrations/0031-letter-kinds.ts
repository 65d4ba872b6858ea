import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What a letter tells of is kept beside its words: whether it was told already no longer depends on how it is put. */
export class LetterKinds1766880000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    for (const table of ['mail', 'news'])
      await runner.query(`ALTER TABLE "${table}" ADD COLUMN "kind" text NOT NULL DEFAULT ('')`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['mail', 'news']) await runner.query(`ALTER TABLE "${table}" DROP COLUMN "kind"`);
  }
}
