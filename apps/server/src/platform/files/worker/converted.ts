import type { FileFacts } from '@salt-circle/contracts';
import type { FoundMetadata } from '../../../model/stored-file.js';

/** What making a reading copy gives. Files lie in the folder of the task, under their digest. */
export interface Converted {
  readonly facts: FileFacts;
  readonly copyHtml?: string;
  readonly copyText?: string;
  /** Name of the cleaned file in the folder of the task. */
  readonly copyFile?: string;
  readonly pictures?: string[];
  readonly metadata: FoundMetadata[];
  /** What the copy does not show of the file, for its author; each a sentence. */
  readonly remarks?: readonly string[];
}

/** Tells how far a conversion is, 0 to 1. */
export type Tell = (share: number) => void;
