import { Column, Entity, ForeignKey, PrimaryColumn, Unique } from 'typeorm';
import { Person } from './person.js';

/** The private address of somebody's calendar feed. One at a time: a new one ends the one before. */
@Entity('calendar_link')
@Unique('calendar_link_person', ['personId'])
export class CalendarLink {
  /** SHA-256 of the token in the address. */
  @PrimaryColumn('text')
  tokenHash: string;

  @Column('text')
  @ForeignKey(() => Person, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  personId: string;

  @Column('integer')
  createdAt: number;
}
