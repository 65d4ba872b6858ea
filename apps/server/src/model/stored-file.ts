import type { FileFacts } from '@salt-circle/contracts';
import type { FileFamily } from '@salt-circle/core';
import { Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';

/** Something that a file says of itself apart from what it shows. */
export interface FoundMetadata {
  /** E.g. "author", "camera owner". */
  readonly where: string;
  readonly value: string;
  /** It is in the copy as well: links, bookmarks, descriptions. Otherwise the copy is without it. */
  readonly inCopy?: boolean;
}

/** Bytes in the file store. Every row that names a digest refers to one of these, so the schema says what is still needed. */
@Entity('file_content')
export class FileContent {
  /** SHA-256 in hexadecimal; also its place in the file store. */
  @PrimaryColumn('text')
  digest: string;
}

/** A file that was handed in, known by its content: the same bytes are kept once. */
@Entity('stored_file')
export class StoredFile {
  /** SHA-256 in hexadecimal; also its place in the file store. */
  @PrimaryColumn('text')
  @ForeignKey(() => FileContent)
  digest: string;

  /** Bytes. */
  @Column('integer')
  size: number;

  @Column('text')
  mime: string;

  @Column('text')
  family: FileFamily | 'captions';

  @Column('integer')
  createdAt: number;

  /** How far the reading copy is. */
  @Column('text')
  copyState: 'waiting' | 'ready' | 'failed';

  /** Why it failed, for people. */
  @Column('text', { nullable: true })
  copyProblem: string | null;

  @Column('integer', { default: 0 })
  copyTries: number;

  @Column('simple-json', { default: '{}' })
  facts: FileFacts;

  /** The reading copy of a document. */
  @Column('text', { nullable: true })
  copyHtml: string | null;

  /** Plain text of a PDF or of captions, in which names are looked for; of other documents it follows from `copyHtml`. */
  @Column('text', { nullable: true })
  copyText: string | null;

  /** The reading copy of a PDF, picture, video or sound: the content without metadata, in the file store. */
  @Index('stored_file_copy')
  @Column('text', { nullable: true })
  @ForeignKey(() => FileContent)
  copyDigest: string | null;

  @Column('simple-json', { default: '[]' })
  metadata: FoundMetadata[];

  /** What the copy does not show of the file, for its author; each a sentence. */
  @Column('simple-json', { default: '[]' })
  remarks: string[];
}

/** A picture in the reading copy of a document. */
@Entity('file_picture')
export class FilePicture {
  /** Of the document. */
  @PrimaryColumn('text')
  @ForeignKey(() => StoredFile, { onDelete: 'CASCADE' })
  fileDigest: string;

  /** Of the picture. */
  @Index('file_picture_digest')
  @PrimaryColumn('text')
  @ForeignKey(() => FileContent)
  digest: string;
}
