import { Column, Entity, Index, PrimaryGeneratedColumn } from 'typeorm';

/**
 * Who did what, when, on what. Append-only: triggers of the database refuse to change or delete a row.
 * Ids are plain values, not references, so that the record outlives what it speaks of.
 */
@Entity('audit_entry')
@Index('audit_entry_exchange', ['exchangeId', 'id'])
export class AuditEntry {
  @PrimaryGeneratedColumn()
  id: number;

  @Column('integer')
  at: number;

  @Column('text', { nullable: true })
  actorId: string | null;

  @Column('text')
  action: string;

  @Column('text', { nullable: true })
  courseId: string | null;

  @Column('text', { nullable: true })
  exchangeId: string | null;

  /** The event's payload; its shape goes by action and version. */
  @Column('simple-json')
  details: Record<string, unknown>;

  /** Of the payload: see `platform/events/past-events.ts`. */
  @Column('integer', { default: 1 })
  version: number;
}

@Entity('setting')
export class Setting {
  @Column('text', { primary: true })
  key: string;

  @Column('text')
  value: string;
}
