import { Column, Entity, ForeignKey, Index, PrimaryColumn, Unique } from 'typeorm';
import { Exchange, Participant } from './exchange.js';
import { FileContent, StoredFile } from './stored-file.js';

/** What one student or one group writes for an exchange. */
@Entity('draft')
@Index('draft_group', ['exchangeId', 'groupId'], { unique: true })
export class Draft {
  @PrimaryColumn('text')
  id: string;

  @Index('draft_exchange')
  @Column('text')
  @ForeignKey(() => Exchange, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  exchangeId: string;

  /** The author; of a group's draft one of its members, and who the authors are follows from the group. */
  @Column('text', { unique: true })
  @ForeignKey(() => Participant, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  participantId: string;

  /** A group that has a draft cannot be removed. */
  @Column('text', { nullable: true })
  groupId: string | null;

  /** Of a group's draft; students have theirs as participants. */
  @Column('text', { nullable: true })
  alias: string | null;

  /** What is saved, handed in or not. */
  @Column('text')
  title: string;

  /** A few words for the reviewers. */
  @Column('text', { default: '' })
  context: string;

  /** Of title and context; each typed text has its own. */
  @Column('integer')
  revision: number;

  @Column('integer', { nullable: true })
  savedAt: number | null;

  /** The draft of an earlier exchange whose revision this is, reviewed once more; null for most. A plain value: drafts stay. */
  @Column('text', { nullable: true })
  followsId: string | null;
}

/** What was handed in at one moment. Its parts are rows of `draft_part`. */
@Entity('draft_version')
@Unique('draft_version_number', ['draftId', 'number'])
export class DraftVersion {
  @PrimaryColumn('text')
  id: string;

  @Column('text')
  @ForeignKey(() => Draft, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  draftId: string;

  /** From 1. */
  @Column('integer')
  number: number;

  @Column('text')
  title: string;

  @Column('text', { default: '' })
  context: string;

  /** For reviewing, or after feedback. Of both, what is handed in later never takes the place of the other. */
  @Column('text', { default: 'draft' })
  purpose: 'draft' | 'revision';

  /** What changed, for the instructor; of a revision. */
  @Column('text', { default: '' })
  changes: string;

  @Column('integer')
  words: number;

  @Column('text')
  digest: string;

  @Column('integer')
  handedInAt: number;

  /** The person who handed in; null for versions from before this was kept. */
  @Column('text', { nullable: true })
  handedInBy: string | null;

  /** Taken back by the author: it counts no longer, and is kept. */
  @Column('integer', { nullable: true })
  withdrawnAt: number | null;
}

/** One thing in a draft (`versionId` null) or in a version: typed text, a file, a link or a recording. */
@Entity('draft_part')
export class DraftPart {
  @PrimaryColumn('text')
  id: string;

  @Index('draft_part_draft')
  @Column('text')
  @ForeignKey(() => Draft, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  draftId: string;

  @Index('draft_part_version')
  @Column('text', { nullable: true })
  @ForeignKey(() => DraftVersion, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  versionId: string | null;

  @Column('text')
  deliverableId: string;

  /** Among the parts of the deliverable, from 0. */
  @Column('integer')
  position: number;

  @Column('text')
  kind: 'text' | 'file' | 'link' | 'recording';

  /** Of typed text. */
  @Column('text', { default: '' })
  html: string;

  /** Of typed text as it is saved. */
  @Column('integer', { default: 0 })
  revision: number;

  @Column('integer', { nullable: true })
  savedAt: number | null;

  /** Of a file or recording: SHA-256 of what was handed in, byte for byte. */
  @Index('draft_part_digest')
  @Column('text', { nullable: true })
  @ForeignKey(() => StoredFile)
  digest: string | null;

  /** Of a file: its name as it came. */
  @Column('text', { default: '' })
  name: string;

  /** Of a link. */
  @Column('text', { default: '' })
  url: string;

  /** Of a link: what it is called, and what to look at. */
  @Column('text', { default: '' })
  title: string;

  @Column('text', { default: '' })
  about: string;

  /** Of video and sound: SHA-256 of the captions (WebVTT). */
  @Index('draft_part_captions')
  @Column('text', { nullable: true })
  @ForeignKey(() => StoredFile)
  captions: string | null;

  /** Passages of the reading copy that reviewers do not get to see, UTF-16 code units of its plain text. */
  @Column('simple-json', { default: '[]' })
  hidden: Array<{ start: number; end: number }>;

  /** The upload that it came from, so that attaching it twice does no harm. */
  @Column('text', { nullable: true, unique: true })
  uploadId: string | null;
}

/** A picture that stands in a typed text of a draft. */
@Entity('draft_picture')
export class DraftPicture {
  @PrimaryColumn('text')
  @ForeignKey(() => Draft, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  draftId: string;

  @Index('draft_picture_digest')
  @PrimaryColumn('text')
  @ForeignKey(() => FileContent)
  digest: string;
}
