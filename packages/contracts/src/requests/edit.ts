import { Type } from 'class-transformer';
import { IsDefined, IsIn, IsObject, IsString, Length, ValidateNested } from 'class-validator';
import { LIMITS } from '../limits.js';
import { PositionRequest, QuoteRequest } from './place.js';
import { say } from '../words/requests.js';

const EDIT_TYPES = ['insert', 'delete', 'replace', 'move', 'split', 'join'] as const;
const SIDES = ['before', 'after'] as const;
const TEXT = {
  message: () => say('proposedTextHas1To', { noteBody: LIMITS.noteBody }),
};

/** What all proposed edits have. An unknown one is held against this, and so told. */
export class EditRequest {
  @IsIn(EDIT_TYPES, {
    message: () => say('editInsertsDeletesReplacesOr'),
  })
  type!: (typeof EDIT_TYPES)[number];
}

export class DeleteEditRequest extends EditRequest {
  declare type: 'delete';
}

export class SplitEditRequest extends EditRequest {
  declare type: 'split';
}

export class JoinEditRequest extends EditRequest {
  declare type: 'join';
}

export class ReplaceEditRequest extends EditRequest {
  declare type: 'replace';

  @IsString()
  @Length(1, LIMITS.noteBody, TEXT)
  text!: string;
}

export class InsertEditRequest extends EditRequest {
  declare type: 'insert';

  @IsIn(SIDES)
  side!: (typeof SIDES)[number];

  @IsString()
  @Length(1, LIMITS.noteBody, TEXT)
  text!: string;
}

export class AnchorRequest {
  @IsDefined()
  @IsObject()
  @ValidateNested()
  @Type(() => QuoteRequest)
  quote!: QuoteRequest;

  @IsDefined()
  @IsObject()
  @ValidateNested()
  @Type(() => PositionRequest)
  position!: PositionRequest;
}

export class MoveEditRequest extends EditRequest {
  declare type: 'move';

  @IsIn(SIDES)
  side!: (typeof SIDES)[number];

  @IsDefined()
  @IsObject()
  @ValidateNested()
  @Type(() => AnchorRequest)
  to!: AnchorRequest;
}

export type AnyEditRequest =
  InsertEditRequest | DeleteEditRequest | ReplaceEditRequest | MoveEditRequest | SplitEditRequest | JoinEditRequest;

/** By their types, for the transformer. */
export const EDIT_REQUESTS = [
  { value: InsertEditRequest, name: 'insert' },
  { value: DeleteEditRequest, name: 'delete' },
  { value: ReplaceEditRequest, name: 'replace' },
  { value: MoveEditRequest, name: 'move' },
  { value: SplitEditRequest, name: 'split' },
  { value: JoinEditRequest, name: 'join' },
];
