import { Injectable } from '@nestjs/common';
import { gradeOf, type Grade, type GradeRule } from '@salt-circle/core';
import { gradeIsReleased } from '../../permissions/exchange-facts.js';
import { ruleOf } from '../../queries/grade-rule.js';
import type { Exchange } from '../../model/exchange.js';
import { KeptEvidence } from './kept-evidence.js';

/** Grades for who passes them on. */
@Injectable()
export class ReleasedGrades {
  constructor(private readonly kept: KeptEvidence) {}

  /** Of those who see their own, by participant, with the rule that made them. @param now milliseconds */
  async of(
    exchange: Exchange,
    now: number,
  ): Promise<{ readonly rule: GradeRule; readonly grades: ReadonlyMap<string, Grade> }> {
    const rule = ruleOf(exchange);
    const { people } = await this.kept.of({ exchange, now });
    const released = people.filter(({ participant }) => gradeIsReleased(exchange, participant, now));
    const grades = released.map(
      ({ participant, evidence }) => [participant.id, gradeOf(exchange.gradeParts, rule, evidence)] as const,
    );
    return { rule, grades: new Map(grades) };
  }
}
