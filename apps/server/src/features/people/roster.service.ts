import { createHash } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import {
  LIMITS,
  type RosterApplied,
  type RosterApplyRequest,
  type RosterPreview,
  type RosterProblemView,
  type RosterRequest,
} from '@salt-circle/contracts';
import {
  compareRoster,
  listed,
  rosterOfClasses,
  shownAddress,
  type Bundle,
  type Enrolled,
  type RosterChanges,
  type RosterColumn,
  type RosterEntry,
  type RosterField,
  wordsBy,
} from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import type { CurrentUser } from '../../auth/view-as.js';
import { Clock } from '../../platform/clock/clock.js';
import { Enrolment } from '../../model/course.js';
import { Database } from '../../platform/database/database.js';
import { Access, assertCan, type CourseContext } from '../../permissions/access.js';
import { Ids } from '../../platform/ids/ids.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { bundleProblem, clashProblem, rosterProblem, told } from '../../platform/problems/roster-sentences.js';
import { Tables } from '../../platform/tables/tables.js';
import type { ReadRoster } from '../../platform/tables/worker/tables.js';
import { enrolledOf } from '../../queries/course-people.js';
import { Invitations } from './invitations.service.js';
import { addPlaces, type NewPlace } from '../../queries/add-places.js';
import { takeIntoRunningExchanges } from '../../queries/running-exchanges.js';
import { say } from '../../words/people.js';

/** A roster as it was read, and what it would change. */
interface Reading {
  readonly entries: readonly RosterEntry[];
  readonly changes: RosterChanges;
  readonly problems: readonly RosterProblemView[];
  readonly read: string;
  readonly unknownColumns: readonly string[];
  readonly classes: RosterPreview['classes'];
  readonly text: string | null;
}

const FIELD_WORDS: Readonly<Record<RosterField, string>> = wordsBy(say, {
  name: 'name',
  email: 'address',
  campusId: 'campusId',
  section: 'section',
  trait: 'mixingColumn',
});

@Injectable()
export class RosterService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly clock: Clock,
    private readonly ids: Ids,
    private readonly invitations: Invitations,
    private readonly tables: Tables,
  ) {}

  async preview(person: CurrentUser, courseId: string, request: RosterRequest): Promise<RosterPreview> {
    const context = await this.#place(person, courseId);
    const file = await this.tables.roster(request, request.traitColumn ?? null);
    const people = await enrolledOf(this.database.read, context.course.id);
    const reading = read(file, request, people);
    const { add, update, missing, unchanged } = reading.changes;
    return {
      fingerprint: fingerprint(reading.changes),
      read: [reading.read, stays(reading.changes)].filter((one) => one !== '').join(' '),
      add: add.map(({ row, name, email, role, campusId, section }) => ({ row, name, email, role, campusId, section })),
      update: update.map(({ entry, enrolled, fields, rejoins }) => ({
        row: entry.row,
        name: enrolled.name,
        changes: [
          ...(rejoins ? [say('comesBackWithAllEarlier')] : []),
          ...fields.map(({ field, from, to }) =>
            say('fieldChanges', { field: FIELD_WORDS[field], from: from ?? say('none'), to: to ?? say('none') }),
          ),
        ],
      })),
      missing: missing.map(({ id, name, email }) => ({ id, name, email: shownAddress(email) })),
      unchanged,
      problems: told(reading.problems),
      unknownColumns: reading.unknownColumns,
      classes: reading.classes,
      text: reading.text,
    };
  }

  /** All of it, or nothing: with a single error in it, a roster is not applied. */
  async apply(person: CurrentUser, courseId: string, request: RosterApplyRequest): Promise<RosterApplied> {
    await this.#place(person, courseId);
    const file = await this.tables.roster(request, request.traitColumn ?? null);
    return this.database.write(async (manager, emit) => {
      // Once more: a large file takes a while to read.
      await this.#place(person, courseId);
      const people = await enrolledOf(manager, courseId);
      const { changes, problems } = read(file, request, people);
      assertRight(problems);
      if (fingerprint(changes) !== request.fingerprint) {
        throw new ProblemError({
          code: 'conflict',
          sentence: say('peopleOfCourseHaveChanged'),
          whatToDo: say('lookAtWhatItWould'),
        });
      }
      await this.#update(manager, changes.update);
      const added = await addPlaces(manager, this.ids, this.clock.now(), courseId, changes.add, 'roster');
      const dropped = request.dropMissing ? changes.missing : [];
      for (const { id } of dropped) await manager.update(Enrolment, { id }, { active: false });
      await this.invitations.end(
        manager,
        dropped.map(({ id }) => id),
      );
      await takeIntoRunningExchanges(manager, courseId, this.clock.now(), this.ids);
      const counts = { added: added.length, updated: changes.update.length, dropped: dropped.length };
      emit({ action: 'roster-applied', actorId: person.id, courseId, details: counts });
      const invited = request.invite ? await this.invitations.send(manager, emit, person, courseId, added) : 0;
      return { ...counts, invited };
    });
  }

  async #place(person: CurrentUser, courseId: string): Promise<CourseContext> {
    const context = await this.access.course(person, courseId);
    assertCan(context, { kind: 'manage-course' });
    return context;
  }

  /** An address that somebody else of the course has is a clash, and comes never so far. */
  async #update(manager: EntityManager, updates: RosterChanges['update']): Promise<void> {
    for (const { enrolled, fields } of updates) {
      const changed = Object.fromEntries(fields.map(({ field, to }) => [field, to])) as Partial<NewPlace>;
      const source = fields.length > 0 ? { source: 'roster' as const } : {};
      await manager.update(Enrolment, { id: enrolled.id }, { ...changed, ...source, active: true });
      if (changed.email !== undefined) await this.invitations.end(manager, [enrolled.id]);
    }
  }
}

/** People of the platform are no business of a file. */
function stays({ ofPlatform }: RosterChanges): string {
  if (ofPlatform === 0) return '';
  return say('studentsCameByPlatformAnd', { ofPlatform });
}

function assertRight(problems: readonly RosterProblemView[]): void {
  const errors = problems.filter(({ warning }) => !warning);
  if (errors.length === 0) return;
  throw new ProblemError({
    code: 'import-wrong',
    sentence: say('thingsAreWrongInRoster', { errors: errors.length }),
    whatToDo: say('mendWhatIsListedThen'),
    fields: errors
      .slice(0, LIMITS.problems)
      .map(({ row, sentence }) => ({ path: `rows.${row}`, code: 'row', sentence })),
  });
}

function read(source: ReadRoster, request: RosterRequest, people: readonly Enrolled[]): Reading {
  if (source.kind === 'bundle') return readBundle(source.bundle, request, people);
  const { roster } = source;
  const has = (column: 'campusId' | 'section' | 'trait') => roster.header.columns[column] !== undefined;
  const columns = { campusId: has('campusId'), section: has('section'), trait: has('trait') };
  const changes = compareRoster(people, roster.entries, columns);
  const count = roster.entries.length;
  return {
    entries: roster.entries,
    changes,
    problems: [...roster.problems.map(rosterProblem), ...changes.clashes.map(clashProblem)],
    read: [say('peopleFound', { count }), columnWords(roster.header.titles), guessed(source.encoding)]
      .filter((sentence) => sentence !== '')
      .join(' '),
    unknownColumns: roster.header.unknown,
    classes: [],
    text: source.text,
  };
}

const COLUMN_WORDS: Readonly<Record<RosterColumn, string>> = wordsBy(say, {
  name: 'name',
  given: 'givenName',
  family: 'familyName',
  email: 'address',
  campusId: 'campusId',
  section: 'section',
  role: 'role',
  trait: 'whatGroupsAreMixedBy',
});

/** Which column became what: "“Full name” was taken as name, “E-mail” as address." */
function columnWords(titles: Readonly<Partial<Record<RosterColumn, string>>>): string {
  const [first, ...more] = (Object.keys(COLUMN_WORDS) as RosterColumn[]).flatMap((column) => {
    const title = titles[column];
    return title === undefined ? [] : [[title, COLUMN_WORDS[column]] as const];
  });
  if (first === undefined) return '';
  const others = more.map(([title, word]) => say('as', { title, word }));
  return say('wasTakenAs', {
    title: first[0],
    word: first[1],
    more: others.length === 0 ? 'none' : listed(others, 'comma'),
  });
}

/** Of an encoding that a file does not tell by itself, so that names are looked at. */
function guessed(encoding: string): string {
  if (encoding.startsWith('UTF-')) return '';
  return say('fileWasTakenToBe', { encoding });
}

function readBundle(bundle: Bundle, { classIds }: RosterRequest, people: readonly Enrolled[]): Reading {
  const chosen = classIds.length > 0 ? classIds : bundle.classes.map(({ id }) => id);
  const entries = rosterOfClasses(bundle, chosen);
  const several = chosen.length > 1;
  const changes = compareRoster(people, entries, { campusId: true, section: several, trait: false });
  return {
    entries,
    changes,
    problems: [...bundle.problems.map(bundleProblem), ...changes.clashes.map(clashProblem)],
    read: say('onerosterBundleWithClassesPeople', { classes: bundle.classes.length, entries: entries.length }),
    unknownColumns: [],
    classes: bundle.classes.map(({ id, title, course, term, school, students }) => ({
      id,
      title,
      about: [course, term, school].filter((part) => part !== '').join(', '),
      students,
    })),
    text: null,
  };
}

/** Two rosters that would change the same have the same one; so has one roster as long as the people stay. */
function fingerprint({ add, update, missing, unchanged }: RosterChanges): string {
  const outline = {
    add: add.map(({ email, role, campusId, section, trait, name }) => [email, role, campusId, section, trait, name]),
    update: update.map(({ enrolled, fields, rejoins }) => [enrolled.id, fields, rejoins]),
    missing: missing.map(({ id }) => id),
    unchanged,
  };
  return createHash('sha256').update(JSON.stringify(outline)).digest('base64url');
}
