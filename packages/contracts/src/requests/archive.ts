import { IsIn, IsString, Length, Matches } from 'class-validator';
import { LIMITS } from '../limits.js';
import { MayBeMissing } from './mayBeMissing.js';
import { say } from '../words/requests.js';

/** How an exchange is taken along. */
export class ArchiveQuery {
  /** `names` unless said otherwise. */
  @MayBeMissing()
  @IsIn(['names', 'aliases'])
  people?: 'names' | 'aliases';

  /** `yes` unless said otherwise. */
  @MayBeMissing()
  @IsIn(['yes', 'no'])
  drafts?: 'yes' | 'no';
}

/** An archive, as it was uploaded. */
export class ArchiveRequest {
  @Matches(/^[0-9a-f-]{36}$/, { message: () => say('notAnUpload') })
  uploadId!: string;
}

export class ReadArchiveRequest extends ArchiveRequest {
  /** Of the course that is made for it. */
  @IsString()
  @Matches(/\S/, { message: () => say('courseNeedsTitle') })
  @Length(1, LIMITS.title, { message: () => say('keepTitleUnderCharacters', { title: LIMITS.title }) })
  courseTitle!: string;
}
