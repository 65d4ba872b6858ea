import { TZDate } from '@date-fns/tz';
import type { INestApplication } from '@nestjs/common';
import type { FormRequest, PlanRequest } from '@salt-circle/contracts';
import { EMPTY_FORM, seededRandom, type Deliverable, type FormItem } from '@salt-circle/core';
import { Person } from '../model/person.js';
import { hashPassword } from '../platform/security/passwords.js';
import { AllocationService } from '../features/allocation/allocation.service.js';
import { PreviewsService } from '../features/allocation/previews.service.js';
import { Clock } from '../platform/clock/clock.js';
import { Course, Enrolment } from '../model/course.js';
import { QueueService } from '../features/check/queue.service.js';
import { CoursesService } from '../features/courses/courses.service.js';
import { NewExchangesService } from '../features/planning/new-exchanges.service.js';
import { Database } from '../platform/database/database.js';
import { insertAll } from '../platform/database/insert-all.js';
import { DraftsService } from '../features/drafts/drafts.service.js';
import { HandInService } from '../features/drafts/hand-in.service.js';
import { ExchangesService } from '../features/planning/exchanges.service.js';
import { PlanService } from '../features/planning/plan.service.js';
import { FormsService } from '../features/planning/forms.service.js';
import { Ids } from '../platform/ids/ids.js';
import { DESCRIPTION_FORM, MONITORING_FORM, PROPOSAL_FORM } from './form.js';
import { ASSISTANTS, DEMO_PASSWORD, INSTRUCTORS, SEMINAR_STUDENTS, STUDENTS } from './people.js';
import { attachFiles, giveFiles } from './attach.js';
import { furnish } from './furnish.js';
import { addPractice } from './seed-practice.js';
import { fillReviews } from './seed-reviews.js';
import type { Seeder } from './seeder.js';
import { SITES, type Site } from './sites.js';
import { monitoringPlan, proposal, siteDescription, type DemoText } from './texts.js';

const DAY = 24 * 3_600_000;
const TIME_ZONE = 'Europe/Tallinn';
const SECTIONS = ['Tuesday', 'Thursday'] as const;
const PROGRAMMES = ['Biology', 'Geography', 'Planning'] as const;

interface Planned {
  readonly title: string;
  readonly brief: string;
  readonly guide: string;
  readonly items: readonly FormItem[];
  /** What is handed in beside the text. */
  readonly more?: readonly Deliverable[];
  /** Days from the start: drafts open, drafts due, reviews open, reviews due, release. */
  readonly days: readonly [number, number, number, number, number];
}

/** A plan, and the shorthand set that its reviewers are offered. */
type PlannedWith = Planned & { readonly shorthandId: string | null };

const GUIDE =
  '<p>Read the whole draft once before you write anything. Then go through it again with notes: <strong>Keep</strong> what works, ask where you are lost, and say what you would change and how.</p><p>Be as exact as you would want others to be with your own text.</p>';

const DESCRIPTION: Planned = {
  title: 'Site description',
  brief:
    '<p>Describe the place you have chosen for your proposal so that somebody who has never been there could find their way. Two pages, with what you measured yourself.</p>',
  guide: GUIDE,
  items: DESCRIPTION_FORM,
  days: [-30, -20, -19, -10, -4],
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
    const [instructor] = await addPeople(database, app.get(Ids), INSTRUCTORS, true);
    const assistants = await addPeople(database, app.get(Ids), ASSISTANTS, false);
    const students = await addPeople(database, app.get(Ids), STUDENTS, false);
    const teacher = instructor as Person;
    const courseId = await addCourse(seeder, 'Coastal Restoration', teacher, assistants, students);
    await released(seeder, teacher, courseId, students, assistants);
    const { shorthandId } = await furnish(seeder, teacher, courseId);
    await underReview(seeder, teacher, courseId, students, shorthandId);
    await drafting(seeder, teacher, courseId, students);
    await unfinished(seeder, teacher, courseId);
    const seminar = await addPeople(database, app.get(Ids), SEMINAR_STUDENTS, false);
    await addCourse(seeder, 'Field Methods Seminar', teacher, [], seminar);
  } finally {
    clock.move(0);
  }
}

/** Moves the application's time to so many days from the start. */
function at({ app, start }: Seeder, days: number, hours = 0): void {
  app.get(Clock).move(start + days * DAY + hours * 3_600_000 - Date.now());
}

/** A time of day in the time zone of the course, so many days from the start, in ISO 8601. */
function localTime(start: number, days: number, hours: number, minutes: number): string {
  const day = new TZDate(start + days * DAY, TIME_ZONE);
  return new Date(
    new TZDate(day.getFullYear(), day.getMonth(), day.getDate(), hours, minutes, TIME_ZONE).getTime(),
  ).toISOString();
}

async function addPeople(
  database: Database,
  ids: Ids,
  people: ReadonlyArray<{ readonly name: string; readonly email: string }>,
  createsCourses: boolean,
): Promise<Person[]> {
  const passwordHash = await hashPassword(DEMO_PASSWORD);
  const rows = people.map(({ name, email }) => ({
    id: ids.uuid(),
    name,
    email,
    passwordHash,
    addressConfirmedAt: Date.now(),
    createsCourses,
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

async function planned(seeder: Seeder, teacher: Person, courseId: string, plan: PlannedWith): Promise<string> {
  const { app, start } = seeder;
  at(seeder, plan.days[0] - 2);
  const { id } = await app.get(NewExchangesService).create(teacher, courseId, plan.title, 'none');
  const [draftsOpen, draftsDue, reviewsOpen, reviewsDue, release] = plan.days;
  const morning = (day: number) => localTime(start, day, 8, 0);
  const midnight = (day: number) => localTime(start, day, 23, 59);
  const plans = app.get(PlanService);
  const now = structuredClone(await plans.one(teacher, id)) as unknown as PlanRequest;
  await plans.save(teacher, id, {
    ...now,
    briefHtml: plan.brief,
    guideHtml: plan.guide,
    deliverables: [...now.deliverables, ...(plan.more ?? [])] as PlanRequest['deliverables'],
    dates: {
      ...now.dates,
      draftsOpen: morning(draftsOpen),
      draftsDue: midnight(draftsDue),
      reviewsOpen: morning(reviewsOpen),
      reviewsDue: midnight(reviewsDue),
      release: localTime(start, release, 12, 0),
    },
    shorthandId: plan.shorthandId,
  });
  const form = { ...EMPTY_FORM, overall: 'none' as const, items: plan.items };
  await app.get(FormsService).save(teacher, id, { ...(structuredClone(form) as unknown as FormRequest), revision: 1 });
  await plans.publish(teacher, id);
  return id;
}

function siteOf(index: number): { site: Site; variant: 0 | 1 } {
  return { site: SITES[index % SITES.length] as Site, variant: index < SITES.length ? 0 : 1 };
}

async function save(seeder: Seeder, student: Person, exchangeId: string, { title, html }: DemoText): Promise<void> {
  const drafts = seeder.app.get(DraftsService);
  const { revision, context, texts } = await drafts.mine(student, exchangeId);
  await drafts.save(student, exchangeId, { revision, title, context });
  const { deliverables } = await seeder.app.get(ExchangesService).one(student, exchangeId);
  const [text] = deliverables.filter(({ kind }) => kind === 'text');
  if (text === undefined) return;
  await drafts.saveText(student, exchangeId, text.id, { revision: texts[text.id]?.revision ?? 0, html });
}

async function handIn(seeder: Seeder, student: Person, exchangeId: string, text: DemoText): Promise<void> {
  await save(seeder, student, exchangeId, text);
  const handing = seeder.app.get(HandInService);
  const { fingerprint } = await handing.check(student, exchangeId);
  await handing.handIn(student, exchangeId, { fingerprint, namesSeen: true });
}

async function allocateAll(seeder: Seeder, teacher: Person, exchangeId: string): Promise<void> {
  const allocation = seeder.app.get(AllocationService);
  const previews = seeder.app.get(PreviewsService);
  let job = await previews.start(teacher, exchangeId, { kind: 'new', seed: 1962, wishes: null });
  while (job.state === 'running') {
    await new Promise((resolve) => setTimeout(resolve, 20));
    job = await previews.job(teacher, exchangeId, job.id);
  }
  if (job.preview === null) throw new Error(job.problem?.sentence ?? 'the demo could not be allocated');
  await allocation.apply(teacher, exchangeId, job.preview.id);
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
  const queue = seeder.app.get(QueueService);
  const { rows } = await queue.queue(teacher, id);
  for (const { reviewId } of rows) await queue.mark(assistant ?? teacher, reviewId, { looked: true, dismissed: [] });
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
