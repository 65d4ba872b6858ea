import {
  GRADE_PARTS,
  GRADE_STEPS,
  ROUNDINGS,
  SCORE_METHODS,
  type GradeBand,
  type GradePartName,
  type GradeRule,
  type GradeScale,
  type GradeStep,
  type PartRule,
  type QualityColumn,
  type Rounding,
  type ScoreMethod,
} from '@salt-circle/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsISO8601,
  IsNumber,
  IsObject,
  IsString,
  Length,
  Matches,
  MaxLength,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { LIMITS } from '../limits.js';
import { NOT_BLANK } from './exchange.js';
import { GradePartRequest } from './plan.js';

const NUMBER = { message: 'Enter a number.' };

class GradeStepRequest implements GradeStep {
  @IsNumber({}, NUMBER)
  from!: number;

  @IsNumber({}, NUMBER)
  gives!: number;
}

class PartRuleRequest implements PartRule {
  @IsIn(['all', 'proportion', 'steps'])
  how!: PartRule['how'];

  @IsArray()
  @ArrayMaxSize(20)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => GradeStepRequest)
  steps!: GradeStepRequest[];

  @IsNumber({}, NUMBER)
  minimum!: number;

  @IsBoolean()
  bonus!: boolean;
}

class NamedPartRuleRequest extends PartRuleRequest {
  @IsIn(GRADE_PARTS)
  part!: GradePartName;
}

class GradeBandRequest implements GradeBand {
  @IsString()
  @MaxLength(60)
  name!: string;

  @IsNumber({}, NUMBER)
  from!: number;
}

class GradeScaleRequest {
  @IsIn(['percent', 'points', 'bands'])
  kind!: GradeScale['kind'];

  @ValidateIf(({ kind }: GradeScaleRequest) => kind === 'points')
  @IsNumber({}, { message: 'Say out of how many points the grade is.' })
  of?: number;

  @ValidateIf(({ kind }: GradeScaleRequest) => kind === 'bands')
  @IsArray()
  @ArrayMaxSize(20)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => GradeBandRequest)
  bands?: GradeBandRequest[];
}

class QualityRequest implements Record<QualityColumn, number> {
  @IsNumber({}, NUMBER)
  closeness!: number;

  @IsNumber({}, NUMBER)
  substance!: number;

  @IsNumber({}, NUMBER)
  helpfulness!: number;

  @IsNumber({}, NUMBER)
  mark!: number;
}

/** Weights and rules of a grade, to be looked at or kept. */
export class GradeRuleRequest {
  /** Of the plan, as it was read. */
  @IsInt()
  @Min(0)
  revision!: number;

  @IsArray()
  @ArrayMaxSize(GRADE_PARTS.length)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => GradePartRequest)
  gradeParts!: GradePartRequest[];

  /** Of the parts that do not go by the usual rule. */
  @IsArray()
  @ArrayMaxSize(GRADE_PARTS.length)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => NamedPartRuleRequest)
  parts!: NamedPartRuleRequest[];

  @IsObject()
  @ValidateNested()
  @Type(() => GradeScaleRequest)
  scale!: GradeScaleRequest;

  @IsIn(GRADE_STEPS, { message: 'Grades are rounded to 1, 0.5, 0.1 or 0.01.' })
  step!: number;

  @IsIn(ROUNDINGS)
  rounding!: Rounding;

  @IsIn(['zero', 'open'])
  missing!: GradeRule['missing'];

  @IsNumber({}, NUMBER)
  most!: number;

  @IsIn(SCORE_METHODS)
  score!: ScoreMethod;

  @IsObject()
  @ValidateNested()
  @Type(() => QualityRequest)
  quality!: QualityRequest;
}

const REASON = { message: 'Say why, in up to 2,000 characters: it stays on record, and the student reads it.' };

/** Something else than what is worked out, or that again. */
export class GradeOverrideRequest {
  /** Empty for the whole grade. */
  @IsIn([...GRADE_PARTS, ''])
  part!: GradePartName | '';

  /** 0 to 1 of a part, percent of the whole; null to take it back. */
  @ValidateIf(({ value }: GradeOverrideRequest) => value !== null)
  @IsNumber({}, NUMBER)
  value!: number | null;

  @ValidateIf(({ value }: GradeOverrideRequest) => value !== null)
  @IsString(REASON)
  @Length(1, 2_000, REASON)
  @Matches(NOT_BLANK, REASON)
  reason!: string;
}

/** Of grades, apart from feedback. */
export class GradesReleaseRequest {
  /** `all`: from `at` on, or now; `some`: these, now; `none`: taken back. */
  @IsIn(['all', 'some', 'none'])
  how!: 'all' | 'some' | 'none';

  @ValidateIf(({ at }: GradesReleaseRequest) => at !== null)
  @IsISO8601({ strict: true })
  at!: string | null;

  @IsArray()
  @ArrayMaxSize(LIMITS.chosen)
  @IsString({ each: true })
  participantIds!: string[];
}
