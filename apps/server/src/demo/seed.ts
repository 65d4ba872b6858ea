import type { INestApplication } from '@nestjs/common';
import { seededRandom, type AfterRule } from '@salt-circle/core';
import { ReviewQueue } from '../features/moderation/review-queue.service.js';
import { CoursesService } from '../features/courses/courses.service.js';
import { NewExchangesService } from '../features/planning/new-exchanges.service.js';
import { Course, Enrolment } from '../model/course.js';
import { Person } from '../model/person.js';
import { Clock } from '../platform/clock/clock.js';
import { Database } from '../platform/database/database.js';
import { insertAll } from '../platform/database/insert-all.js';
import { Ids } from '../platform/ids/ids.js';
import { hashPassword } from '../platform/security/passwords.js';
import { attachFiles, giveFiles } from './attach.js';
import { DESCRIPTION_FORM, MONITORING_FORM, PROPOSAL_FORM } from './form.js';
import { furnish } from './furnish.js';
import { ASSISTANTS, DEMO_PASSWORD, INSTRUCTORS, SEMINAR_STUDENTS, STUDENTS } from './people.js';
import { afterRelease } from './seed-after.js';
import { grade, GRADE_PARTS } from './seed-grades.js';
import { addPractice } from './seed-practice.js';
import { fillReviews } from './seed-reviews.js';
import type { Seeder } from './seeder.js';
import { SITES, type Site } from './sites.js';
import { allocateAll, at, handIn, planned, save, siteOf, TIME_ZONE, type Planned } from './steps.js';
import { monitoringPlan, proposal, siteDescription } from './texts.js';

const SECTIONS = ['Tuesday', 'Thursday'] as const;
const PROGRAMMES = ['Biology', 'Geography', 'Planning'] as const;

const GUIDE =
  '<p>Read the whole draft once before you write anything. Then go through it again with notes: <strong>Keep</strong> what works, ask where you are lost, and say what you would change and how.</p><p>Be as exact as you would want others to be with your own text.</p>';

const AFTER: AfterRule = {
  ratings: 'at-end',
  reflection: {
    prompts: ['What did your reviewers see that you had not seen?', 'What will you look for in your next draft?'],
    minimumWords: 60,
  },
  othersReviews: false,
  revisionShown: true,
};

const DESCRIPTION: Planned = {
  title: 'Site description',
  brief:
    '<p>Describe the place you have chosen for your proposal so that somebody who has never been there could find their way. Two pages, with what you measured yourself.</p>',
  guide: GUIDE,
  items: DESCRIPTION_FORM,
  days: [-30, -20, -19, -10, -4],
  later: [3, 7],
  after: AFTER,
  gradeParts: GRADE_PARTS,
};
const PROPOSAL: Planned = {
  title: 'Salt-marsh restoration proposal',
  brief:
    '<p>Write a proposal of 600 to 1,500 words to the district’s coast fund. It must say</p><ul><li><p>what has been lost, and how you know;</p></li><li><p>what you would do, step by step;</p></li><li><p>what it would cost;</p></li><li><p>what could go wrong.</p></li></ul><p>The fund’s readers are parish councillors, not biologists.</p>',
  guide: GUIDE,
  items: PROPOSAL_FORM,
  more: [
    {
      id: 'figures',
      kind: 'file',
      title: 'Figures',
      description: 'Readings, maps and sketches that your text speaks of.',
      required: false,
      families: ['pdf', 'image'],
      maxMegabytes: 20,
    },
    {
      id: 'shore',
      kind: 'recording',
      title: 'What it sounds like',
      description: 'Half a minute at the place, if you have it.',
      required: false,
      families: [],
      maxMegabytes: 50,
    },
  ],
  days: [-14, -4, -3, 2, 4],
};
const MONITORING: Planned = {
  title: 'Monitoring plan',
  brief:
    '<p>Say how you would find out whether your proposal worked: what is read, when, by whom, and what would make you stop. One page.</p>',
  guide: GUIDE,
  items: MONITORING_FORM,
  more: [
    {
      id: 'sheets',
      kind: 'file',
      title: 'Readings and sketches',
      description: 'What you have measured so far, as you have it.',
      required: false,
      families: ['pdf', 'document', 'plain-text', 'image', 'audio', 'video'],
      maxMegabytes: 20,
    },
    {
      id: 'talk',
      kind: 'recording',
      title: 'Two minutes at the site',
      description: 'Say where you would stand, and what you would read there.',
      required: false,
      families: [],
      maxMegabytes: 50,
    },
    {
      id: 'map',
      kind: 'link',
      title: 'Map',
      description: '',
      required: false,
      families: [],
      maxMegabytes: 50,
    },
  ],
  days: [-3, 1, 2, 8, 10],
};

/** Fills an empty database with the demo course, through the services that real people use. */
export async function seedDemo(app: INestApplication): Promise<void> {
  const database = app.get(Database);
  if (await database.read.exists(Course)) return;
  const clock = app.get(Clock);
  const hour = 3_600_000;
  const seeder: Seeder = { app, random: seededRandom(1962), start: Math.floor(clock.real() / hour) * hour };
  try {
    at(seeder, -40, 9);
    // All of the demo have one password, so it is hashed once.
    const password = await hashPassword(DEMO_PASSWORD);
    const add = (people: Parameters<typeof addPeople>[2], createsCourses = false) =>
      addPeople(database, app.get(Ids), people, password, createsCourses);
    const [instructor] = await add(INSTRUCTORS, true);
    const assistants = await add(ASSISTANTS);
    const students = await add(STUDENTS);
    const teacher = instructor as Person;
    const courseId = await addCourse(seeder, 'Coastal Restoration', teacher, assistants, students);
    await released(seeder, teacher, courseId, students, assistants);
    const { shorthandId } = await furnish(seeder, teacher, courseId);
    await underReview(seeder, teacher, courseId, students, shorthandId);
    await drafting(seeder, teacher, courseId, students);
    await unfinished(seeder, teacher, courseId);
    const seminar = await add(SEMINAR_STUDENTS);
    const seminarId = await addCourse(seeder, 'Field Methods Seminar', teacher, assistants, seminar);
    await seminarExchanges(seeder, teacher, seminarId, seminar);
  } finally {
    clock.move(0);
  }
}

async function addPeople(
  database: Database,
  ids: Ids,
  people: ReadonlyArray<{ readonly name: string; readonly email: string }>,
  passwordHash: string,
  createsCourses: boolean,
): Promise<Person[]> {
  const rows = people.map(({ name, email }) => ({
    id: ids.uuid(),
    name,
    email,
    passwordHash,
    addressConfirmedAt: Date.now(),
    createsCourses,
    // In the demo, whoever teaches sees to platforms as well.
    runsPlatforms: createsCourses,
    mailWish: 'at-once' as const,
    createdAt: Date.now(),
  }));
  await database.write((manager) => insertAll(manager, Person, rows));
  return rows;
}

async function addCourse(
  { app }: Seeder,
  title: string,
  teacher: Person,
  assistants: readonly Person[],
  students: readonly Person[],
): Promise<string> {
  const { id: courseId } = await app.get(CoursesService).create(teacher, { title, timeZone: TIME_ZONE });
  const campusIds = new Map([...STUDENTS, ...SEMINAR_STUDENTS].map(({ email, campusId }) => [email, campusId]));
  const enrol = (person: Person, role: Enrolment['role'], index: number) => ({
    id: app.get(Ids).uuid(),
    courseId,
    personId: person.id,
    name: person.name,
    email: person.email as string,
    role,
    active: true,
    campusId: campusIds.get(person.email as string) ?? null,
    section: role === 'student' ? SECTIONS[index % SECTIONS.length] : null,
    trait: role === 'student' ? PROGRAMMES[(index * 5) % PROGRAMMES.length] : null,
  });
  const rows = [
    ...assistants.map((one, index) => enrol(one, 'assistant', index)),
    ...students.map((one, index) => enrol(one, 'student', index)),
  ];
  await app.get(Database).write((manager) => insertAll(manager, Enrolment, rows));
  return courseId;
}

async function released(
  seeder: Seeder,
  teacher: Person,
  courseId: string,
  students: readonly Person[],
  [assistant]: readonly Person[],
): Promise<void> {
  const id = await planned(seeder, teacher, courseId, { ...DESCRIPTION, shorthandId: null });
  for (const [index, student] of students.entries()) {
    const { site, variant } = siteOf(index);
    at(seeder, -21 - (index % 6), index % 9);
    await handIn(seeder, student, id, siteDescription(site, variant));
  }
  at(seeder, -19, 1);
  await allocateAll(seeder, teacher, id);
  await fillReviews(seeder, students, id, { from: -18, days: 7.5, unfinishedShare: 0.04 });
  // By now somebody has looked through all of them.
  at(seeder, -6);
  const queue = seeder.app.get(ReviewQueue);
  const { rows } = await queue.queue(teacher, id);
  for (const { reviewId } of rows) await queue.mark(assistant ?? teacher, reviewId, { looked: true, dismissed: [] });
  await afterRelease(seeder, teacher, students, id, { from: -3.5, revised: 3 });
  await grade(seeder, teacher, id, { day: -0.5, marked: 9, released: false });
}

async function underReview(
  seeder: Seeder,
  teacher: Person,
  courseId: string,
  students: readonly Person[],
  shorthandId: string,
): Promise<void> {
  const id = await planned(seeder, teacher, courseId, { ...PROPOSAL, shorthandId });
  for (const [index, student] of students.entries()) {
    const { site, variant } = siteOf(index);
    const text = proposal(site, variant);
    at(seeder, -5 - (index % 5), index % 11);
    if (index % 4 === 2) await attachFiles(seeder, student, id, { sheets: 'figures', map: null, talk: 'shore' }, site);
    // One began and never handed in; one never began. Every course has them.
    if (index === 16) await save(seeder, student, id, text);
    else if (index !== 19) await handIn(seeder, student, id, text);
    if (index % 7 === 3)
      await handIn(seeder, student, id, { ...text, html: `${text.html}<p>We thank the warden for the boat.</p>` });
  }
  at(seeder, -3, 1);
  await allocateAll(seeder, teacher, id);
  await fillReviews(seeder, students, id, { from: -2, days: 1.9, unfinishedShare: 0.36 });
}

async function drafting(seeder: Seeder, teacher: Person, courseId: string, students: readonly Person[]): Promise<void> {
  const id = await planned(seeder, teacher, courseId, { ...MONITORING, shorthandId: null });
  await giveFiles(seeder, teacher, id);
  at(seeder, -2.5);
  await addPractice(seeder, teacher, id, students);
  for (const [index, student] of students.entries()) {
    const { site } = siteOf(index);
    const text = monitoringPlan(site);
    at(seeder, -2, (index * 5) % 44);
    if (index % 4 === 0) await attachFiles(seeder, student, id, { sheets: 'sheets', map: 'map', talk: null }, site);
    if (index % 2 === 0) await handIn(seeder, student, id, text);
    else if (index % 3 === 0) await save(seeder, student, id, text);
  }
}

async function unfinished(seeder: Seeder, teacher: Person, courseId: string): Promise<void> {
  at(seeder, -1);
  await seeder.app.get(NewExchangesService).create(teacher, courseId, 'Creek survey report', 'none');
}

/** Two small ones: one that is being checked, and one that is being revised. */
async function seminarExchanges(
  seeder: Seeder,
  teacher: Person,
  courseId: string,
  students: readonly Person[],
): Promise<void> {
  const plans: ReadonlyArray<readonly [string, Planned['days'], Planned['later']]> = [
    ['Field notebook', [-24, -16, -15, -9, -6], [-2, 5]],
    ['Sampling question', [-12, -6, -5, -1, 2], [5, 9]],
  ];
  for (const [title, days, later] of plans) {
    const plan = { ...DESCRIPTION, title, days, later, after: { ...AFTER, reflection: null }, shorthandId: null };
    const id = await planned(seeder, teacher, courseId, plan);
    const [opens, due, reviewsOpen, reviewsDue, release] = days;
    for (const [index, student] of students.entries()) {
      at(seeder, due - 1, index);
      await handIn(seeder, student, id, siteDescription(SITES[(index + opens + 30) % SITES.length] as Site, 0));
    }
    at(seeder, reviewsOpen, 1);
    await allocateAll(seeder, teacher, id);
    // Of the one that is being checked, one reviewer has not written anything.
    const writing = release < 0 ? students : students.slice(0, -1);
    await fillReviews(seeder, writing, id, {
      from: reviewsOpen + 0.5,
      days: reviewsDue - reviewsOpen - 1,
      unfinishedShare: 0,
    });
    if (release < 0) {
      await afterRelease(seeder, teacher, students, id, { from: release + 1, revised: 1 });
      await grade(seeder, teacher, id, { day: -0.4, marked: students.length, released: true });
    }
  }
}
