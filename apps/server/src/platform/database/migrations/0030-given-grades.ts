import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A figure, as SQLite tells one from other text. */
const isFigure = (text: string) => `(${text} <> '' AND ${text} NOT GLOB '*[^0-9.]*')`;
const PERCENT = `rtrim("gradeTold", '%')`;
const POINTS = `substr("gradeTold", 1, instr("gradeTold", ' of ') - 1)`;
const MOST = `substr("gradeTold", instr("gradeTold", ' of ') + 4)`;

/** The grade that somebody was told is kept as a figure on its scale, no longer as the words in which it was told. */
export class GivenGrades1766793600000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`UPDATE "participant" SET "gradeTold" = CASE
      WHEN "gradeTold" = '' THEN json_object('scale', 'none')
      WHEN "gradeTold" GLOB '*%' AND ${isFigure(PERCENT)}
        THEN json_object('scale', 'percent', 'value', CAST(${PERCENT} AS REAL))
      WHEN instr("gradeTold", ' of ') > 0 AND ${isFigure(POINTS)} AND ${isFigure(MOST)}
        THEN json_object('scale', 'points', 'value', CAST(${POINTS} AS REAL), 'of', CAST(${MOST} AS REAL))
      ELSE json_object('scale', 'bands', 'name', "gradeTold") END
      WHERE "gradeTold" IS NOT NULL`);
  }

  async down(runner: QueryRunner): Promise<void> {
    const figure = (field: string) => `printf('%g', "gradeTold" ->> '$.${field}')`;
    await runner.query(`UPDATE "participant" SET "gradeTold" = CASE "gradeTold" ->> '$.scale'
      WHEN 'none' THEN ''
      WHEN 'percent' THEN ${figure('value')} || '%'
      WHEN 'points' THEN ${figure('value')} || ' of ' || ${figure('of')}
      ELSE "gradeTold" ->> '$.name' END
      WHERE "gradeTold" IS NOT NULL`);
  }
}
