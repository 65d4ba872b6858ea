import {
  GRADE_PARTS,
  GRADE_STEPS,
  GRADING_WORKS,
  ROUNDINGS,
  SCORE_METHODS,
  type GradeBand,
  type GradePartName,
  type GradeRule,
  type GradeScale,
  type GradeStep,
  type GradingWork,
  type PartRule,
  type QualityColumn,
  type Rounding,
  type ScoreMethod,
} from '@salt-circle/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsISO8601,
  IsNumber,
  IsObject,
  IsOptional,
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
import { say } from '../words/requests.js';

const NUMBER = { message: () => say('enterNumber') };

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
  @IsNumber({}, { message: () => say('sayOutOfHowMany') })
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
  staff!: number;

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

  @IsIn(GRADE_STEPS, { message: () => say('gradesAreRoundedTo1') })
  step!: number;

  @IsIn(ROUNDINGS)
  rounding!: Rounding;

  @IsIn(['zero', 'open'])
  missing!: GradeRule['missing'];

  @IsNumber({}, NUMBER)
  most!: number;

  @IsIn(SCORE_METHODS)
  score!: ScoreMethod;

  @IsBoolean()
  scoreTold!: boolean;

  @IsObject()
  @ValidateNested()
  @Type(() => QualityRequest)
  quality!: QualityRequest;
}

const REASON = { message: () => say('sayWhyInUpTo2') };

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

const WHO_GRADES = { message: () => say('sayWhoGrades') };

/** Who of the staff grades whom. */
export class GradingShareRequest {
  @IsArray()
  @ArrayMinSize(1, { message: () => say('sayWhatIsSharedOut') })
  @ArrayMaxSize(GRADING_WORKS.length)
  @IsIn(GRADING_WORKS, { each: true })
  works!: GradingWork[];

  /** Of persons; empty where what was shared out is taken back. */
  @IsArray()
  @ArrayMaxSize(LIMITS.chosen)
  @IsString({ each: true })
  graderIds!: string[];

  @IsIn(['evenly', 'sections', 'none'])
  how!: 'evenly' | 'sections' | 'none';

  /** What is graded, or begun, stays whose it is. */
  @IsBoolean()
  openOnly!: boolean;
}

/** Who grades one person. */
export class GraderRequest {
  @IsIn(GRADING_WORKS)
  work!: GradingWork;

  @ValidateIf(({ graderId }: GraderRequest) => graderId !== null)
  @IsString(WHO_GRADES)
  @Length(1, 64, WHO_GRADES)
  graderId!: string | null;
}

/** By what form reviewing is marked. */
/** Forms by which staff mark: of the course's library; left out, they stay as they are. */
export class MarkingFormsRequest {
  /** For drafts; null for the form of the exchange. */
  @IsOptional()
  @IsString()
  @MaxLength(64)
  draftFormId?: string | null;

  /** For reviewing; null for the ready one. */
  @IsOptional()
  @IsString()
  @MaxLength(64)
  reviewingFormId?: string | null;

  /** Reviewing is marked review by review, not once a person. */
  @IsBoolean()
  each!: boolean;
}
