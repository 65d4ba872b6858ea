import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
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
import { ITEM_KINDS, type CommentRule, type ItemKind } from '@salt-circle/core';
import { LIMITS } from '../limits.js';
import { NOT_BLANK, TITLE_MESSAGE } from './exchange.js';
import { MayBeMissing } from './mayBeMissing.js';
import { say } from '../words/requests.js';

const COMMENTS: readonly CommentRule[] = ['none', 'optional', 'required'];
const NAME_MESSAGE = { message: () => say('keepNameUnderCharacters', { title: LIMITS.title }) };
const DESCRIPTION_MESSAGE = {
  message: () => say('keepDescriptionUnderCharacters', { levelDescription: LIMITS.levelDescription }),
};
const PARTS_MESSAGE = { message: () => say('itemCanHaveUpTo', { parts: LIMITS.parts }) };

const of =
  (...kinds: ItemKind[]) =>
  (item: FormItemRequest) =>
    kinds.includes(item.kind);

export class LevelRequest {
  @IsString()
  @Length(1, 64)
  id!: string;

  @IsString()
  @MaxLength(LIMITS.title, NAME_MESSAGE)
  title!: string;

  @IsString()
  @MaxLength(LIMITS.levelDescription, DESCRIPTION_MESSAGE)
  description!: string;

  @ValidateIf((_, value) => value !== null)
  @IsNumber({}, { message: () => say('pointsAreNumberOrLeft') })
  points!: number | null;
}

export class BandRequest {
  @IsString()
  @Length(1, 64)
  id!: string;

  @IsString()
  @MaxLength(LIMITS.title, NAME_MESSAGE)
  title!: string;

  @IsString()
  @MaxLength(LIMITS.levelDescription, DESCRIPTION_MESSAGE)
  description!: string;

  @IsNumber({}, { message: () => say('bandBeginsAtNumberOf') })
  from!: number;

  @IsNumber({}, { message: () => say('bandEndsAtNumberOf') })
  to!: number;
}

export class EntryRequest {
  @IsString()
  @Length(1, 64)
  id!: string;

  @IsString()
  @MaxLength(LIMITS.levelDescription, DESCRIPTION_MESSAGE)
  text!: string;

  @ValidateIf((_, value) => value !== null)
  @IsNumber({}, { message: () => say('pointsAreNumberOrLeft') })
  points!: number | null;
}

export class OptionRequest {
  @IsString()
  @Length(1, 64)
  id!: string;

  @IsString()
  @MaxLength(LIMITS.title, NAME_MESSAGE)
  title!: string;
}

/** An item of any kind; which fields belong to it follows from the kind. */
export class FormItemRequest {
  @IsIn(ITEM_KINDS)
  kind!: ItemKind;

  @IsString()
  @Length(1, 64)
  id!: string;

  @IsString()
  @MaxLength(LIMITS.title, { message: () => say('keepTitleUnderCharactersOf', { title: LIMITS.title }) })
  title!: string;

  @IsString()
  @MaxLength(LIMITS.guidance, { message: () => say('keepGuidanceUnderCharacters', { guidance: LIMITS.guidance }) })
  guidance!: string;

  @IsBoolean()
  required!: boolean;

  @IsNumber({}, { message: () => say('weightIsNumber0For') })
  weight!: number;

  @ValidateIf(of('criterion'))
  @IsArray()
  @ArrayMaxSize(LIMITS.parts, PARTS_MESSAGE)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => LevelRequest)
  levels?: LevelRequest[];

  @ValidateIf(of('range'))
  @IsArray()
  @ArrayMaxSize(LIMITS.parts, PARTS_MESSAGE)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => BandRequest)
  bands?: BandRequest[];

  @ValidateIf(of('range'))
  @IsNumber({}, { message: () => say('stepOfRangeIs1') })
  step?: number;

  @ValidateIf(of('checklist'))
  @IsArray()
  @ArrayMaxSize(LIMITS.parts, PARTS_MESSAGE)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => EntryRequest)
  entries?: EntryRequest[];

  /** Pages from before there was the choice leave it out. */
  @ValidateIf(of('checklist'))
  @MayBeMissing()
  @IsBoolean()
  cannotTell?: boolean;

  @ValidateIf(of('choice'))
  @IsArray()
  @ArrayMaxSize(LIMITS.parts, PARTS_MESSAGE)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => OptionRequest)
  options?: OptionRequest[];

  @ValidateIf(of('choice'))
  @IsBoolean()
  multiple?: boolean;

  @ValidateIf(of('criterion', 'range', 'checklist', 'choice'))
  @IsIn(COMMENTS)
  comment?: CommentRule;

  @ValidateIf(of('prompt', 'pair'))
  @IsNumber({}, { message: () => say('leastNumberOfWordsIs') })
  minimumWords?: number;

  @ValidateIf(of('pair'))
  @IsString()
  @MaxLength(LIMITS.title, NAME_MESSAGE)
  worksLabel?: string;

  @ValidateIf(of('pair'))
  @IsString()
  @MaxLength(LIMITS.title, NAME_MESSAGE)
  nextLabel?: string;

  @ValidateIf((item: FormItemRequest) => item.kind === 'number' && item.minimum !== null)
  @IsNumber({}, { message: () => say('leastValueIsNumberOr') })
  minimum?: number | null;

  @ValidateIf((item: FormItemRequest) => item.kind === 'number' && item.maximum !== null)
  @IsNumber({}, { message: () => say('greatestValueIsNumberOr') })
  maximum?: number | null;

  @ValidateIf(of('number'))
  @IsBoolean()
  whole?: boolean;

  @ValidateIf(of('number'))
  @IsString()
  @MaxLength(LIMITS.title, NAME_MESSAGE)
  unit?: string;
}

/** A form as a whole, wherever it is kept. */
export class FormContent {
  @IsArray()
  @ArrayMaxSize(LIMITS.items, { message: () => say('formCanHaveUpTo', { items: LIMITS.items }) })
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => FormItemRequest)
  items!: FormItemRequest[];

  @IsIn(['points', 'weights'])
  weighting!: 'points' | 'weights';

  @IsIn(COMMENTS)
  overall!: CommentRule;

  @IsNumber({}, { message: () => say('leastNumberOfWordsIs') })
  overallWords!: number;

  @IsNumber({}, { message: () => say('leastNumberOfNotesIs') })
  minimumNotes!: number;

  @IsNumber({}, { message: () => say('numberOfNotesHopedFor') })
  targetNotes!: number;
}

export class FormRequest extends FormContent {
  @IsInt()
  @Min(0)
  revision!: number;
}

export class LibraryFormRequest extends FormRequest {
  @IsString(TITLE_MESSAGE)
  @Length(1, LIMITS.title, TITLE_MESSAGE)
  @Matches(NOT_BLANK, TITLE_MESSAGE)
  title!: string;
}

export class ShorthandEntryRequest {
  @IsString()
  @Matches(/^(?![1-4])[\p{L}\p{N}]$/u, {
    message: () => say('keyOfShorthand'),
  })
  key!: string;

  @IsString()
  @Length(1, 60, { message: () => say('labelHas1To60') })
  @Matches(NOT_BLANK, { message: () => say('labelHas1To60') })
  label!: string;

  @IsString()
  @MaxLength(300, { message: () => say('keepMeaningUnder300Characters') })
  meaning!: string;

  /** Pages from before there were groups leave it out. */
  @MayBeMissing()
  @IsString()
  @MaxLength(40, { message: () => say('keepNameOfGroupUnder') })
  group?: string;
}

export class ShorthandRequest {
  @IsInt()
  @Min(0)
  revision!: number;

  @IsString(TITLE_MESSAGE)
  @Length(1, LIMITS.title, TITLE_MESSAGE)
  @Matches(NOT_BLANK, TITLE_MESSAGE)
  title!: string;

  @IsArray()
  @ArrayMaxSize(LIMITS.shorthandEntries, {
    message: () => say('setCanHaveUpTo', { shorthandEntries: LIMITS.shorthandEntries }),
  })
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => ShorthandEntryRequest)
  entries!: ShorthandEntryRequest[];
}

/** A new entry of the library: empty, or from what is in use in an exchange. */
export class LibraryAddRequest {
  @IsIn(['form', 'shorthand', 'template'])
  kind!: 'form' | 'shorthand' | 'template';

  @IsString(TITLE_MESSAGE)
  @Length(1, LIMITS.title, TITLE_MESSAGE)
  @Matches(NOT_BLANK, TITLE_MESSAGE)
  title!: string;

  /** The exchange whose form or settings are kept; needed for a template. */
  @IsOptional()
  @IsString()
  @Length(1, 64)
  exchangeId!: string | null;
}

/** Where a library entry goes: another course, or the form of an exchange. */
export class LibraryCopyRequest {
  @IsString()
  @Length(1, 64)
  courseId!: string;
}

export class UseFormRequest {
  @IsInt()
  @Min(0)
  revision!: number;

  @IsString()
  @Length(1, 64)
  libraryId!: string;
}
