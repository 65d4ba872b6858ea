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

const COMMENTS: readonly CommentRule[] = ['none', 'optional', 'required'];
const NAME_MESSAGE = { message: `Keep a name under ${LIMITS.title} characters.` };
const DESCRIPTION_MESSAGE = { message: `Keep a description under ${LIMITS.levelDescription} characters.` };
const PARTS_MESSAGE = { message: `An item can have up to ${LIMITS.parts} levels, bands, entries or options.` };

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
  @IsNumber({}, { message: 'Points are a number, or left blank.' })
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

  @IsNumber({}, { message: 'A band begins at a number of points.' })
  from!: number;

  @IsNumber({}, { message: 'A band ends at a number of points.' })
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
  @IsNumber({}, { message: 'Points are a number, or left blank.' })
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
  @MaxLength(LIMITS.title, { message: `Keep a title under ${LIMITS.title} characters.` })
  title!: string;

  @IsString()
  @MaxLength(LIMITS.guidance, { message: `Keep the guidance under ${LIMITS.guidance} characters.` })
  guidance!: string;

  @IsBoolean()
  required!: boolean;

  @IsNumber({}, { message: 'A weight is a number, 0 for none.' })
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
  @IsNumber({}, { message: 'The step of a range is 1, 0.5 or 0.1.' })
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
  @IsNumber({}, { message: 'The least number of words is a number, 0 for none.' })
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
  @IsNumber({}, { message: 'The least value is a number, or left blank.' })
  minimum?: number | null;

  @ValidateIf((item: FormItemRequest) => item.kind === 'number' && item.maximum !== null)
  @IsNumber({}, { message: 'The greatest value is a number, or left blank.' })
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
  @ArrayMaxSize(LIMITS.items, { message: `A form can have up to ${LIMITS.items} items.` })
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => FormItemRequest)
  items!: FormItemRequest[];

  @IsIn(['points', 'weights'])
  weighting!: 'points' | 'weights';

  @IsIn(COMMENTS)
  overall!: CommentRule;

  @IsNumber({}, { message: 'The least number of words is a number, 0 for none.' })
  overallWords!: number;

  @IsNumber({}, { message: 'The least number of notes is a number, 0 for none.' })
  minimumNotes!: number;

  @IsNumber({}, { message: 'The number of notes hoped for is a number, 0 for none.' })
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
    message: 'A key is one letter, or a digit from 5 on: 1 to 4 are the kinds of notes.',
  })
  key!: string;

  @IsString()
  @Length(1, 60, { message: 'A label has 1 to 60 characters.' })
  @Matches(NOT_BLANK, { message: 'A label has 1 to 60 characters.' })
  label!: string;

  @IsString()
  @MaxLength(300, { message: 'Keep the meaning under 300 characters.' })
  meaning!: string;

  /** Pages from before there were groups leave it out. */
  @MayBeMissing()
  @IsString()
  @MaxLength(40, { message: 'Keep the name of a group under 40 characters.' })
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
  @ArrayMaxSize(LIMITS.shorthandEntries, { message: `A set can have up to ${LIMITS.shorthandEntries} labels.` })
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
