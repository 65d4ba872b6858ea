import type { CampusServices, GradePartName, Launch } from '@salt-circle/core';
import { Column, Entity, ForeignKey, Index, PrimaryColumn, Unique } from 'typeorm';
import { Course } from './course.js';
import { Exchange, Participant } from './exchange.js';
import { Person } from './person.js';

/** A learning platform that people come from. */
@Entity('campus')
@Unique('campus_once', ['issuer', 'clientId'])
export class Campus {
  @PrimaryColumn('text')
  id: string;

  @Column('text')
  name: string;

  /** As it calls itself in what it signs. */
  @Column('text')
  issuer: string;

  /** As it calls us. */
  @Column('text')
  clientId: string;

  /** Where somebody's browser is sent to be told who it is, where we ask for tokens, and where its keys are. */
  @Column('text')
  authUrl: string;

  @Column('text')
  tokenUrl: string;

  @Column('text')
  keysUrl: string;

  /** Whom our statements are for when we ask for a token, where that is not the address itself. */
  @Column('text', { nullable: true })
  tokenAudience: string | null;

  /** Origins of pages that may show us inside of them. */
  @Column('simple-json')
  pages: string[];

  /** False: nobody comes in by it, and nothing is asked of it. */
  @Column('boolean', { default: true })
  active: boolean;

  /** Whether instructors who come by it may make courses. */
  @Column('boolean', { default: true })
  makesCourses: boolean;

  @Column('integer')
  createdAt: number;

  /** When somebody last came by it, and when it last answered us. Milliseconds of real time. */
  @Column('integer', { nullable: true })
  arrivedAt: number | null;

  @Column('integer', { nullable: true })
  answeredAt: number | null;

  /** What went wrong last, in a sentence; null once something went right again. */
  @Column('text', { nullable: true })
  fault: string | null;

  @Column('integer', { nullable: true })
  faultAt: number | null;

  /** Why somebody whom it sent did not come in, where that was its doing; null once somebody came in again. */
  @Column('text', { nullable: true })
  arrivalFault: string | null;

  @Column('integer', { nullable: true })
  arrivalFaultAt: number | null;
}

/** A part of a campus in which we are at home. Seen first, allowed by whoever runs the campuses. */
@Entity('campus_deployment')
export class CampusDeployment {
  @PrimaryColumn('text')
  @ForeignKey(() => Campus, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  campusId: string;

  @PrimaryColumn('text')
  deploymentId: string;

  @Column('boolean')
  allowed: boolean;
}

/** What we sign with. */
@Entity('campus_key')
export class CampusKey {
  /** By which it is found among those that we publish. */
  @PrimaryColumn('text')
  id: string;

  /** A JSON Web Key, encrypted with what the server's secret gives. */
  @Column('text')
  sealed: string;

  /** The public half. */
  @Column('simple-json')
  shown: Record<string, string>;

  @Column('integer')
  createdAt: number;

  /** From then on it signs; until then it is only shown, so that campuses know it in time. */
  @Column('integer')
  signsFrom: number;

  /** From then on it is not shown any more; null for the last one. */
  @Column('integer', { nullable: true })
  endsAt: number | null;
}

/** Lets whoever runs a campus register us there by themselves, once. */
@Entity('campus_registration')
export class CampusRegistration {
  /** SHA-256 of the token in the link. */
  @PrimaryColumn('text')
  tokenHash: string;

  @Column('text')
  @ForeignKey(() => Person, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  byId: string;

  @Column('text')
  name: string;

  @Column('integer')
  createdAt: number;
}

/** A browser on its way to a campus to be told who it is. */
@Entity('campus_login')
export class CampusLogin {
  /** SHA-256 of what comes back with the browser. */
  @PrimaryColumn('text')
  stateHash: string;

  @Column('text')
  @ForeignKey(() => Campus, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  campusId: string;

  /** To be in what the campus signs. */
  @Column('text')
  nonce: string;

  /** SHA-256 of what the browser holds: what comes back with another one is not taken. */
  @Column('text')
  browserHash: string;

  /** What the campus sent the browser with, so that it can begin again in a window of its own. */
  @Column('simple-json')
  asked: Record<string, string>;

  @Column('integer')
  createdAt: number;
}

/** Somebody whom a campus has sent, and who has still to say something before going on. */
@Entity('campus_arrival')
export class CampusArrival {
  /** SHA-256 of the token in the address. */
  @PrimaryColumn('text')
  tokenHash: string;

  @Column('text')
  @ForeignKey(() => Campus, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  campusId: string;

  @Column('simple-json')
  launch: Launch;

  /** Inside a page of the campus. */
  @Column('boolean')
  framed: boolean;

  /** What goes back to the campus, once it is chosen: the exchange, and whether a column comes with it. */
  @Column('simple-json', { nullable: true })
  chosen: { readonly exchangeId: string | null; readonly column: boolean } | null;

  /** That the person has read that the campus gives another role than the course. */
  @Column('boolean', { default: false })
  roleRead: boolean;

  /** SHA-256 of what the browser holds that brought it: the address alone opens nothing. */
  @Column('text')
  browserHash: string;

  @Column('integer')
  createdAt: number;
}

/** Whose account stands behind an id of the campus. */
@Entity('campus_person')
export class CampusPerson {
  @PrimaryColumn('text')
  @ForeignKey(() => Campus, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  campusId: string;

  @PrimaryColumn('text')
  user: string;

  @Index('campus_person_person')
  @Column('text')
  @ForeignKey(() => Person, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  personId: string;

  @Column('integer')
  createdAt: number;
}

/** A link, sent by mail, by which the owner of an account or an address says that an id of the campus is theirs. */
@Entity('campus_proof')
export class CampusProof {
  /** SHA-256 of the token in the link. */
  @PrimaryColumn('text')
  tokenHash: string;

  @Column('text')
  @ForeignKey(() => Campus, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  campusId: string;

  @Column('text')
  user: string;

  @Index('campus_proof_person')
  @Column('text')
  @ForeignKey(() => Person, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  personId: string;

  @Column('integer')
  createdAt: number;
}

/** A course of the campus, and ours. One to one. */
@Entity('campus_course')
@Unique('campus_course_there', ['campusId', 'deploymentId', 'contextId'])
export class CampusCourse {
  @PrimaryColumn('text')
  @ForeignKey(() => Course, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  courseId: string;

  @Column('text')
  @ForeignKey(() => Campus, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  campusId: string;

  @Column('text')
  deploymentId: string;

  @Column('text')
  contextId: string;

  /** As the campus calls it. */
  @Column('text')
  title: string;

  /** As the last launch named them. */
  @Column('simple-json')
  services: CampusServices;

  /** `add`: whoever is new, or called otherwise, is taken over every night; nobody is dropped by itself. */
  @Column('text', { default: 'add' })
  nightly: 'off' | 'add';

  @Column('integer', { nullable: true })
  fetchedAt: number | null;

  /** Students whom the campus did not name any more when it was asked last. */
  @Column('integer', { default: 0 })
  missing: number;

  @Column('text', { nullable: true })
  fault: string | null;
}

/** A link on a page of the campus, and what it leads to. */
@Entity('campus_link')
export class CampusLink {
  @PrimaryColumn('text')
  @ForeignKey(() => CampusCourse, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  courseId: string;

  @PrimaryColumn('text')
  linkId: string;

  @Index('campus_link_exchange')
  @Column('text')
  @ForeignKey(() => Exchange, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  exchangeId: string;

  /** The column that the campus keeps for it, if any. */
  @Column('text', { nullable: true })
  columnUrl: string | null;
}

/** A column of the campus's gradebook. */
@Entity('campus_column')
export class CampusColumn {
  @PrimaryColumn('text')
  @ForeignKey(() => Exchange, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  exchangeId: string;

  /** Empty for the grade as a whole. */
  @PrimaryColumn('text')
  part: GradePartName | '';

  /** Null until it has been made there. */
  @Column('text', { nullable: true })
  url: string | null;

  /** As it was last called there. */
  @Column('text', { nullable: true })
  label: string | null;

  @Column('text', { nullable: true })
  fault: string | null;

  @Column('integer', { default: 0 })
  tries: number;

  @Column('integer', { default: 0 })
  nextTryAt: number;
}

/**
 * `waiting`: to be sent. `sent`: the campus has taken it. `refused`: the campus has said no, or has not answered too often. `changed`:
 * it holds something else than what was sent, which is not written over.
 */
export type ScoreState = 'waiting' | 'sent' | 'refused' | 'changed';

/** What a campus is told of somebody's grade, and how far that is. */
@Entity('campus_score')
@Index('campus_score_state', ['state', 'nextTryAt'])
export class CampusScoreRow {
  @PrimaryColumn('text')
  @ForeignKey(() => Participant, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  participantId: string;

  @PrimaryColumn('text')
  part: GradePartName | '';

  @Index('campus_score_exchange')
  @Column('text')
  @ForeignKey(() => Exchange, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  exchangeId: string;

  @Column('text')
  state: ScoreState;

  /** What is to be there: `graded`, with a value in percent; `excused` or `open` without. */
  @Column('text')
  kind: 'graded' | 'excused' | 'open';

  @Column('real', { nullable: true })
  value: number | null;

  @Column('text')
  comment: string;

  /** What the campus took last; null before that. */
  @Column('real', { nullable: true })
  sentValue: number | null;

  @Column('integer', { nullable: true })
  sentAt: number | null;

  /** Given away, and not known to have arrived: asked about before it is sent again. */
  @Column('boolean', { default: false })
  unsure: boolean;

  /** What the campus holds instead, where that is something else. */
  @Column('real', { nullable: true })
  theirs: number | null;

  @Column('integer', { default: 0 })
  tries: number;

  @Column('integer', { default: 0 })
  nextTryAt: number;

  /** In the campus's words, where it had some. */
  @Column('text', { nullable: true })
  error: string | null;
}
