import type { AttachmentPlace } from '@salt-circle/contracts';
import { Column, Entity, ForeignKey, Index, PrimaryColumn } from 'typeorm';
import { Exchange } from './exchange.js';
import { StoredFile } from './stored-file.js';

/** A file that instructors give with the brief or the guide of an exchange. */
@Entity('exchange_attachment')
export class ExchangeAttachment {
  @PrimaryColumn('text')
  id: string;

  @Index('exchange_attachment_exchange')
  @Column('text')
  @ForeignKey(() => Exchange, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  exchangeId: string;

  @Column('text')
  place: AttachmentPlace;

  /** SHA-256 of the file, byte for byte. */
  @Index('exchange_attachment_digest')
  @Column('text')
  @ForeignKey(() => StoredFile)
  digest: string;

  /** As it came. */
  @Column('text')
  name: string;

  /** The upload that brought it, so that asking twice does no harm; null for a copied one. */
  @Column('text', { nullable: true })
  uploadId: string | null;

  @Column('integer')
  addedAt: number;
}
