import { join } from 'node:path';
import { DataSource } from 'typeorm';
import { ExchangeAttachment } from '../../model/attachment.js';
import { AddressChange, PasswordLink, Person, Session } from '../../model/person.js';
import { AllocationPlan, AllocationPreview, AllocationStep, ForbiddenPair } from '../../model/allocation.js';
import {
  LtiPlatform,
  LtiArrival,
  LtiLineItem,
  LtiCourse,
  LtiDeployment,
  LtiKey,
  LtiLink,
  LtiLogin,
  LtiPerson,
  LtiProof,
  LtiRegistration,
  LtiScoreRow,
} from '../../model/lti.js';
import { CalendarLink } from '../../model/calendar.js';
import { Course, Enrolment } from '../../model/course.js';
import { Draft, DraftPart, DraftPicture, DraftVersion } from '../../model/draft.js';
import { Exchange, PersonalDatesRow, Participant, ReviewFormRow } from '../../model/exchange.js';
import { FileContent, FilePicture, StoredFile } from '../../model/stored-file.js';
import { GroupMemberRow, GroupSet, StudentGroup } from '../../model/group.js';
import { LibraryItem } from '../../model/library.js';
import { Mail } from '../../model/mail.js';
import { Invitation } from '../../model/invitation.js';
import { LookRequestRow, ReviewCheck, Withheld } from '../../model/moderation.js';
import { News } from '../../model/news.js';
import { PracticeTry } from '../../model/practice.js';
import { ReviewFile } from '../../model/review-file.js';
import { OwnRemark } from '../../model/own-remark.js';
import { RatingRow, ReplyRow } from '../../model/reply.js';
import { AccessToken } from '../../model/access-token.js';
import { GradeOverrideRow, GradingTask, ReviewingMark } from '../../model/grade.js';
import { AdoptionRow, DecisionRow, ReflectionRow } from '../../model/revision.js';
import { AuditEntry, Setting } from '../../model/audit-entry.js';
import { AnswerRow, NoteRow, Review, SubmittedReview } from '../../model/review.js';
import { privateFolder } from '../config/private-folder.js';
import { MIGRATIONS } from './migrations/index.js';

export const ENTITIES = [
  Person,
  Session,
  PasswordLink,
  AddressChange,
  Course,
  Enrolment,
  ReviewFormRow,
  Exchange,
  Participant,
  Draft,
  DraftVersion,
  DraftPart,
  DraftPicture,
  FileContent,
  StoredFile,
  FilePicture,
  Review,
  AnswerRow,
  NoteRow,
  SubmittedReview,
  OwnRemark,
  ReviewFile,
  PracticeTry,
  ReviewCheck,
  Withheld,
  LookRequestRow,
  ReplyRow,
  RatingRow,
  DecisionRow,
  AdoptionRow,
  ReflectionRow,
  GradeOverrideRow,
  ReviewingMark,
  GradingTask,
  AccessToken,
  News,
  AuditEntry,
  Setting,
  GroupSet,
  StudentGroup,
  GroupMemberRow,
  PersonalDatesRow,
  ExchangeAttachment,
  LibraryItem,
  Mail,
  Invitation,
  CalendarLink,
  AllocationPlan,
  ForbiddenPair,
  AllocationPreview,
  AllocationStep,
  LtiPlatform,
  LtiDeployment,
  LtiKey,
  LtiRegistration,
  LtiLogin,
  LtiArrival,
  LtiPerson,
  LtiProof,
  LtiCourse,
  LtiLink,
  LtiLineItem,
  LtiScoreRow,
];

/** In the folder of the data. */
export const DATABASE_FILE = 'salt-circle.sqlite';

/**
 * How long a connection waits for another one's lock, in milliseconds. The driver waits on the main thread, so it is short; `Database.write`
 * tries again without blocking.
 */
const BUSY_TIMEOUT = 20;

interface Pragmas {
  pragma(text: string): unknown;
}

/** The one connection that writes. Also the one that migrates. */
export function writerSource(folder: string): DataSource {
  privateFolder(folder);
  return new DataSource({
    type: 'better-sqlite3',
    database: join(folder, DATABASE_FILE),
    entities: ENTITIES,
    migrations: [...MIGRATIONS],
    migrationsTransactionMode: 'each',
    synchronize: false,
    enableWAL: true,
    prepareDatabase: (database: Pragmas) => {
      database.pragma('foreign_keys = ON');
      database.pragma(`busy_timeout = ${BUSY_TIMEOUT}`);
      // With write-ahead logging, NORMAL would lose what was confirmed last when the power goes; FULL waits for the disk each time.
      database.pragma('synchronous = FULL');
    },
  });
}

/** Reads only: sees what is committed, never the middle of a transaction. */
export function readerSource(folder: string): DataSource {
  return new DataSource({
    type: 'better-sqlite3',
    database: join(folder, DATABASE_FILE),
    entities: ENTITIES,
    synchronize: false,
    readonly: true,
    prepareDatabase: (database: Pragmas) => {
      database.pragma(`busy_timeout = ${BUSY_TIMEOUT}`);
    },
  });
}
