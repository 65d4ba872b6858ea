import type { LtiServices, GradePartName, Launch } from '@salt-circle/core';
import { Column, Entity, ForeignKey, Index, PrimaryColumn, Unique } from 'typeorm';
import { Course } from './course.js';
import { Exchange, Participant } from './exchange.js';
import { Person } from './person.js';

/** A learning platform that people come from. */
@Entity('lti_platform')
@Unique('lti_platform_once', ['issuer', 'clientId'])
export class LtiPlatform {
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

/** A part of a platform in which we are at home. Seen first, allowed by whoever runs the platforms. */
@Entity('lti_deployment')
export class LtiDeployment {
  @PrimaryColumn('text')
  @ForeignKey(() => LtiPlatform, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  platformId: string;

  @PrimaryColumn('text')
  deploymentId: string;

  @Column('boolean')
  allowed: boolean;
}

/** What we sign with. */
@Entity('lti_key')
export class LtiKey {
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

  /** From then on it signs; until then it is only shown, so that platforms know it in time. */
  @Column('integer')
  signsFrom: number;

  /** From then on it is not shown any more; null for the last one. */
  @Column('integer', { nullable: true })
  endsAt: number | null;
}

/** Lets whoever runs a platform register us there by themselves, once. */
@Entity('lti_registration')
export class LtiRegistration {
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

/** A browser on its way to a platform to be told who it is. */
@Entity('lti_login')
export class LtiLogin {
  /** SHA-256 of what comes back with the browser. */
  @PrimaryColumn('text')
  stateHash: string;

  @Column('text')
  @ForeignKey(() => LtiPlatform, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  platformId: string;

  /** To be in what the platform signs. */
  @Column('text')
  nonce: string;

  /** SHA-256 of what the browser holds: what comes back with another one is not taken. */
  @Column('text')
  browserHash: string;

  /** What the platform sent the browser with, so that it can begin again in a window of its own. */
  @Column('simple-json')
  asked: Record<string, string>;

  @Column('integer')
  createdAt: number;
}

/** Somebody whom a platform has sent, and who has still to say something before going on. */
@Entity('lti_arrival')
export class LtiArrival {
  /** SHA-256 of the token in the address. */
  @PrimaryColumn('text')
  tokenHash: string;

  @Column('text')
  @ForeignKey(() => LtiPlatform, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  platformId: string;

  @Column('simple-json')
  launch: Launch;

  /** Inside a page of the platform. */
  @Column('boolean')
  framed: boolean;

  /** What goes back to the platform, once it is chosen: the exchange, and whether a column comes with it. */
  @Column('simple-json', { nullable: true })
  chosen: { readonly exchangeId: string | null; readonly column: boolean } | null;

  /** That the person has read that the platform gives another role than the course. */
  @Column('boolean', { default: false })
  roleRead: boolean;

  /** SHA-256 of what the browser holds that brought it: the address alone opens nothing. */
  @Column('text')
  browserHash: string;

  @Column('integer')
  createdAt: number;
}

/** Whose account stands behind an id of the platform. */
@Entity('lti_person')
export class LtiPerson {
  @PrimaryColumn('text')
  @ForeignKey(() => LtiPlatform, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  platformId: string;

  @PrimaryColumn('text')
  user: string;

  @Index('lti_person_person')
  @Column('text')
  @ForeignKey(() => Person, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  personId: string;

  @Column('integer')
  createdAt: number;
}

/** A link, sent by mail, by which the owner of an account or an address says that an id of the platform is theirs. */
@Entity('lti_proof')
export class LtiProof {
  /** SHA-256 of the token in the link. */
  @PrimaryColumn('text')
  tokenHash: string;

  @Column('text')
  @ForeignKey(() => LtiPlatform, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  platformId: string;

  @Column('text')
  user: string;

  @Index('lti_proof_person')
  @Column('text')
  @ForeignKey(() => Person, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  personId: string;

  @Column('integer')
  createdAt: number;
}

/** A course of the platform, and ours. One to one. */
@Entity('lti_course')
@Unique('lti_course_there', ['platformId', 'deploymentId', 'contextId'])
export class LtiCourse {
  @PrimaryColumn('text')
  @ForeignKey(() => Course, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  courseId: string;

  @Column('text')
  @ForeignKey(() => LtiPlatform, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  platformId: string;

  @Column('text')
  deploymentId: string;

  @Column('text')
  contextId: string;

  /** As the platform calls it. */
  @Column('text')
  title: string;

  /** As the last launch named them. */
  @Column('simple-json')
  services: LtiServices;

  /** `add`: whoever is new, or called otherwise, is taken over every night; nobody is dropped by itself. */
  @Column('text', { default: 'add' })
  nightly: 'off' | 'add';

  @Column('integer', { nullable: true })
  fetchedAt: number | null;

  /** Students whom the platform did not name any more when it was asked last. */
  @Column('integer', { default: 0 })
  missing: number;

  @Column('text', { nullable: true })
  fault: string | null;
}

/** A link on a page of the platform, and what it leads to. */
@Entity('lti_link')
export class LtiLink {
  @PrimaryColumn('text')
  @ForeignKey(() => LtiCourse, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  courseId: string;

  @PrimaryColumn('text')
  linkId: string;

  @Index('lti_link_exchange')
  @Column('text')
  @ForeignKey(() => Exchange, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  exchangeId: string;

  /** The column that the platform keeps for it, if any. */
  @Column('text', { nullable: true })
  columnUrl: string | null;
}

/** A column of the platform's gradebook. */
@Entity('lti_line_item')
export class LtiLineItem {
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
 * `waiting`: to be sent. `sent`: the platform has taken it. `refused`: the platform has said no, or has not answered too often. `changed`:
 * it holds something else than what was sent, which is not written over.
 */
export type ScoreState = 'waiting' | 'sent' | 'refused' | 'changed';

/** What a platform is told of somebody's grade, and how far that is. */
@Entity('lti_score')
@Index('lti_score_state', ['state', 'nextTryAt'])
export class LtiScoreRow {
  @PrimaryColumn('text')
  @ForeignKey(() => Participant, { onDelete: 'CASCADE', onUpdate: 'CASCADE' })
  participantId: string;

  @PrimaryColumn('text')
  part: GradePartName | '';

  @Index('lti_score_exchange')
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

  /** What the platform took last; null before that. */
  @Column('real', { nullable: true })
  sentValue: number | null;

  @Column('integer', { nullable: true })
  sentAt: number | null;

  /** Given away, and not known to have arrived: asked about before it is sent again. */
  @Column('boolean', { default: false })
  unsure: boolean;

  /** What the platform holds instead, where that is something else. */
  @Column('real', { nullable: true })
  theirs: number | null;

  @Column('integer', { default: 0 })
  tries: number;

  @Column('integer', { default: 0 })
  nextTryAt: number;

  /** In the platform's words, where it had some. */
  @Column('text', { nullable: true })
  error: string | null;
}
