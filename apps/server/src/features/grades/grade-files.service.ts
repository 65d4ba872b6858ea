import { Injectable } from '@nestjs/common';
import type { GradeRow, GradesView } from '@salt-circle/contracts';
import {
  MISSING_WORDS,
  partRuleWords,
  PART_WORDS,
  QUALITY_COLUMNS,
  QUALITY_WORDS,
  ROUNDING_WORDS,
  SCORE_WORDS,
  type GradePartName,
} from '@salt-circle/core';
import writeXlsx, { type Row } from 'write-excel-file/node';
import { Access, see } from '../../access/access.js';
import type { Asker } from '../../access/seeing.js';
import { csvOf } from '../../platform/tables/cells.js';
import { Grades } from './grades.service.js';

/** Grades as files: one row a person, and, as a workbook, a sheet with the rules. */
@Injectable()
export class GradeFiles {
  constructor(
    private readonly access: Access,
    private readonly grades: Grades,
  ) {}

  async csv(person: Asker, exchangeId: string): Promise<{ readonly name: string; readonly csv: string }> {
    const { name, view } = await this.#view(person, exchangeId);
    const rows = view.rows.map((row) => cellsOf(row, view).map((cell) => (cell === null ? '' : String(cell))));
    return { name: `${name} grades.csv`, csv: csvOf([headOf(view), ...rows]) };
  }

  /** Every cell is text or a number, never a formula, whatever people wrote. */
  async xlsx(person: Asker, exchangeId: string): Promise<{ readonly name: string; readonly bytes: Buffer }> {
    const { name, view } = await this.#view(person, exchangeId);
    const cell = (value: string | number | null) =>
      value === null ? null : typeof value === 'number' ? { type: Number, value } : { type: String, value };
    const head = (words: string) => ({ type: String, value: words, fontWeight: 'bold' as const });
    const sheets = [
      [headOf(view).map(head), ...view.rows.map((row) => cellsOf(row, view).map(cell))],
      [[head('Rule'), head('Value')], ...rulesOf(view).map((row) => row.map(cell))],
    ] as Row[][];
    const bytes = await writeXlsx([
      { sheet: 'Grades', data: sheets[0] ?? [], stickyRowsCount: 1 },
      { sheet: 'Rules', data: sheets[1] ?? [] },
    ]).toBuffer();
    return { name: `${name} grades.xlsx`, bytes };
  }

  async #view(person: Asker, exchangeId: string): Promise<{ readonly name: string; readonly view: GradesView }> {
    const place = await this.access.exchange(person, exchangeId);
    see(place, { kind: 'workspace' });
    return { name: place.exchange.title, view: await this.grades.view(person, exchangeId, true) };
  }
}

function headOf({ parts }: GradesView): string[] {
  const ofParts = parts.flatMap(({ part }) => [`${PART_WORDS[part]}, percent`, `${PART_WORDS[part]}, worked out`]);
  return [
    'name',
    'alias',
    'section',
    ...ofParts,
    'late, percentage points',
    'worked out, percent',
    'grade, percent',
    'grade',
    'overridden',
    'reasons',
  ];
}

function percent(share: number | null): number | null {
  return share === null ? null : Math.round(share * 10_000) / 100;
}

function cellsOf({ person, section, grade }: GradeRow, { parts }: GradesView): Array<string | number | null> {
  const lineOf = new Map(grade.lines.map((line) => [line.part, line]));
  const overridden = [
    ...grade.lines.flatMap(({ part, override }) =>
      override === null ? [] : [[PART_WORDS[part], override.reason] as const],
    ),
    ...(grade.override === null ? [] : [['the whole', grade.override.reason] as const]),
  ];
  const rounded = (value: number | null) => (value === null ? null : Math.round(value * 100) / 100);
  return [
    ...[person.name ?? '', person.alias ?? '', section ?? ''],
    ...parts.flatMap(({ part }) => {
      const line = lineOf.get(part);
      return [line?.state === 'excused' ? 'excused' : percent(line?.share ?? null), percent(line?.computed ?? null)];
    }),
    ...[grade.lateLoses, rounded(grade.computed), rounded(grade.percent), grade.words ?? ''],
    overridden.map(([what]) => what).join('; '),
    overridden.map(([what, why]) => `${what}: ${why}`).join('; '),
  ];
}

function rulesOf({ parts, rule }: GradesView): Array<Array<string | number>> {
  const of = (part: GradePartName) => rule.parts[part];
  const { scale } = rule;
  return [
    ...parts.map(({ part, weight }) => [
      `weight of ${PART_WORDS[part]}${of(part)?.bonus === true ? ' (bonus)' : ''}`,
      weight,
    ]),
    ...parts.flatMap(({ part }) => {
      const own = of(part);
      if (own === undefined) return [];
      return [[`how ${PART_WORDS[part]} counts`, partRuleWords(own)]];
    }),
    [
      'scale',
      scale.kind === 'points'
        ? `points of ${scale.of}`
        : scale.kind === 'percent'
          ? 'percent'
          : scale.bands.map(({ name, from }) => `${name} from ${from}%`).join(', '),
    ],
    ['rounded to', rule.step],
    ['rounding', ROUNDING_WORDS[rule.rounding]],
    ['what is not there', MISSING_WORDS[rule.missing]],
    ['at most, percent', rule.most],
    ['score of peers', SCORE_WORDS[rule.score]],
    ...QUALITY_COLUMNS.map((column) => [`weight of “${QUALITY_WORDS[column]}”`, rule.quality[column]]),
  ];
}
