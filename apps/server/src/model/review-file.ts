import { Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import { Review } from './review.js';
import { StoredFile } from './stored-file.js';

/** A file or a spoken remark that a reviewer has put to a note, an answer or the overall comment. */
@Entity('review_file')
export class ReviewFile {
  @PrimaryColumn('text')
  id: string;

  @Index('review_file_review')
  @Column('text')
  @ForeignKey(() => Review, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  reviewId: string;

  /** What it belongs to: one of the two. An item that is answered, or a note. */
  @Column('text', { nullable: true })
  itemId: string | null;

  @Column('text', { nullable: true })
  noteId: string | null;

  /** SHA-256 of the file, byte for byte. */
  @Index('review_file_digest')
  @Column('text')
  @ForeignKey(() => StoredFile)
  digest: string;

  /** As it came; told to its reviewer and to staff alone. */
  @Column('text')
  name: string;

  /** The upload that brought it, so that asking twice does no harm. */
  @Column('text')
  uploadId: string;

  @Column('integer')
  addedAt: number;

  /** Taken away; it counts until the review is submitted again, where it was submitted before. */
  @Column('integer', { nullable: true })
  removedAt: number | null;

  /** As with the review. */
  @Column('integer', { nullable: true })
  withheldAt: number | null;
}
