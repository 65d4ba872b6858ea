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
import { Access, assertCanSee } from '../../permissions/access.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { csvOf } from '../../platform/tables/cells.js';
import { Grades } from './grades.service.js';
import { say } from '../../words/grades.js';

/** Grades as files: one row a person, and, as a workbook, a sheet with the rules. */
@Injectable()
export class GradeFiles {
  constructor(
    private readonly access: Access,
    private readonly grades: Grades,
  ) {}

  async csv(person: CurrentUser, exchangeId: string): Promise<{ readonly name: string; readonly csv: string }> {
    const { name, view } = await this.#view(person, exchangeId);
    const rows = view.rows.map((row) => cellsOf(row, view).map((cell) => (cell === null ? '' : String(cell))));
    return { name: say('gradesCsv', { name }), csv: csvOf([headOf(view), ...rows]) };
  }

  /** Every cell is text or a number, never a formula, whatever people wrote. */
  async xlsx(person: CurrentUser, exchangeId: string): Promise<{ readonly name: string; readonly bytes: Buffer }> {
    const { name, view } = await this.#view(person, exchangeId);
    const cell = (value: string | number | null) =>
      value === null ? null : typeof value === 'number' ? { type: Number, value } : { type: String, value };
    const head = (words: string) => ({ type: String, value: words, fontWeight: 'bold' as const });
    const sheets = [
      [headOf(view).map(head), ...view.rows.map((row) => cellsOf(row, view).map(cell))],
      [[head(say('rule')), head(say('value'))], ...rulesOf(view).map((row) => row.map(cell))],
    ] as Row[][];
    const bytes = await writeXlsx([
      { sheet: say('grades'), data: sheets[0] ?? [], stickyRowsCount: 1 },
      { sheet: say('rules'), data: sheets[1] ?? [] },
    ]).toBuffer();
    return { name: say('gradesXlsx', { name }), bytes };
  }

  async #view(person: CurrentUser, exchangeId: string): Promise<{ readonly name: string; readonly view: GradesView }> {
    const context = await this.access.exchange(person, exchangeId);
    assertCanSee(context, { kind: 'workspace' });
    return { name: context.exchange.title, view: await this.grades.view(person, exchangeId, true) };
  }
}

function headOf({ parts }: GradesView): string[] {
  const ofParts = parts.flatMap(({ part }) => [
    say('percent', { partWords: PART_WORDS[part] }),
    say('workedOut', { partWords: PART_WORDS[part] }),
  ]);
  return [
    'name',
    'alias',
    'section',
    ...ofParts,
    say('latePercentagePoints'),
    say('workedOutPercent'),
    say('gradePercent'),
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
    ...(grade.override === null ? [] : [[say('whole'), grade.override.reason] as const]),
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
      of(part)?.bonus === true
        ? say('weightOfBonus', { partWords: PART_WORDS[part] })
        : say('weightOf', { partWords: PART_WORDS[part] }),
      weight,
    ]),
    ...parts.flatMap(({ part }) => {
      const own = of(part);
      if (own === undefined) return [];
      return [[say('howCounts', { partWords: PART_WORDS[part] }), partRuleWords(own)]];
    }),
    [
      'scale',
      scale.kind === 'points'
        ? say('pointsOf', { of: scale.of })
        : scale.kind === 'percent'
          ? say('percentWord')
          : scale.bands.map(({ name, from }) => say('from', { name, from })).join(', '),
    ],
    [say('roundedTo'), rule.step],
    ['rounding', ROUNDING_WORDS[rule.rounding]],
    [say('whatIsNotThere'), MISSING_WORDS[rule.missing]],
    [say('atMostPercent'), rule.most],
    [say('scoreOfPeers'), SCORE_WORDS[rule.score]],
    ...QUALITY_COLUMNS.map((column) => [
      say('weightOfOf', { qualityWords: QUALITY_WORDS[column] }),
      rule.quality[column],
    ]),
  ];
}
