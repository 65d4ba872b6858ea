import { Type } from 'class-transformer';
import {
  IsDefined,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsString,
  Length,
  Max,
  MaxLength,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { LIMITS } from '../limits.js';
import { say } from '../words/requests.js';

export class QuoteRequest {
  @IsIn(['TextQuoteSelector'])
  type!: 'TextQuoteSelector';

  @IsString()
  @Length(1, LIMITS.quote, { message: () => say('selectShorterPassageNoteIs') })
  exact!: string;

  @IsString()
  @MaxLength(LIMITS.context)
  prefix!: string;

  @IsString()
  @MaxLength(LIMITS.context)
  suffix!: string;
}

export class PositionRequest {
  @IsIn(['TextPositionSelector'])
  type!: 'TextPositionSelector';

  @IsInt()
  @Min(0)
  start!: number;

  @IsInt()
  @Min(1)
  end!: number;
}

const SELECTOR_TYPES = ['text', 'page', 'passage', 'region', 'moment', 'whole'] as const;
const WITHIN = () => say('regionLiesInsideOfIts');
const PAGE = () => say('pagesAreCountedFrom1');
const TIME = () => say('momentIsGivenInSeconds');

/** What all selectors have. An unknown one is held against this, and so told. */
export class SelectorRequest {
  @IsIn(SELECTOR_TYPES, {
    message: () => say('noteStandsOnPassagePage'),
  })
  type!: (typeof SELECTOR_TYPES)[number];
}

export class WholeSelectorRequest extends SelectorRequest {
  declare type: 'whole';
}

export class TextSelectorRequest extends SelectorRequest {
  declare type: 'text';

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

export class PassageSelectorRequest extends SelectorRequest {
  declare type: 'passage';

  @IsInt({ message: PAGE })
  @Min(1, { message: PAGE })
  page!: number;

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

export class PageSelectorRequest extends SelectorRequest {
  declare type: 'page';

  @IsInt({ message: PAGE })
  @Min(1, { message: PAGE })
  page!: number;
}

export class RegionSelectorRequest extends SelectorRequest {
  declare type: 'region';

  /** Null for a picture. */
  @ValidateIf(({ page }: RegionSelectorRequest) => page !== null)
  @IsInt({ message: PAGE })
  @Min(1, { message: PAGE })
  page!: number | null;

  @IsNumber({}, { message: WITHIN })
  @Min(0, { message: WITHIN })
  @Max(1, { message: WITHIN })
  x!: number;

  @IsNumber({}, { message: WITHIN })
  @Min(0, { message: WITHIN })
  @Max(1, { message: WITHIN })
  y!: number;

  @IsNumber({}, { message: WITHIN })
  @Min(0, { message: WITHIN })
  @Max(1, { message: WITHIN })
  width!: number;

  @IsNumber({}, { message: WITHIN })
  @Min(0, { message: WITHIN })
  @Max(1, { message: WITHIN })
  height!: number;
}

export class MomentSelectorRequest extends SelectorRequest {
  declare type: 'moment';

  @IsNumber({}, { message: TIME })
  @Min(0, { message: TIME })
  start!: number;

  /** Null for a single moment. */
  @ValidateIf(({ end }: MomentSelectorRequest) => end !== null)
  @IsNumber({}, { message: TIME })
  @Min(0, { message: TIME })
  end!: number | null;
}

export type AnySelectorRequest =
  | TextSelectorRequest
  | PageSelectorRequest
  | PassageSelectorRequest
  | RegionSelectorRequest
  | MomentSelectorRequest
  | WholeSelectorRequest;

export class PlaceRequest {
  /** Of the draft, from 1: the one that is read. */
  @IsInt()
  @Min(1)
  version!: number;

  /** Null for the draft as a whole. */
  @ValidateIf(({ partId }: PlaceRequest) => partId !== null)
  @IsString()
  @MaxLength(64)
  partId!: string | null;

  @IsDefined({ message: () => say('noteNeedsPlaceInDraft') })
  @IsObject()
  @ValidateNested()
  @Type(() => SelectorRequest, {
    discriminator: {
      property: 'type',
      subTypes: [
        { value: TextSelectorRequest, name: 'text' },
        { value: PageSelectorRequest, name: 'page' },
        { value: PassageSelectorRequest, name: 'passage' },
        { value: RegionSelectorRequest, name: 'region' },
        { value: MomentSelectorRequest, name: 'moment' },
        { value: WholeSelectorRequest, name: 'whole' },
      ],
    },
    keepDiscriminatorProperty: true,
  })
  selector!: AnySelectorRequest;
}
