import 'reflect-metadata';
import { at } from '../scripts/run.mjs';

const one = { description: '', required: false, families: [], maxMegabytes: 100 };
const DELIVERABLES = [
  { ...one, id: 'text', kind: 'text', title: 'Text', required: true },
  { ...one, id: 'files', kind: 'file', title: 'Files', families: ['pdf', 'document', 'plain-text', 'image'] },
];

const dist = (path) => import(at('apps', 'server', 'dist', ...path.split('/')));

/** Adds a course of 300 students with three reviews each, straight to the database. @returns ids to measure with */
export async function addBenchCourse(folder) {
  const [
    { Database },
    { Clock },
    { Ids },
    { insertAll },
    accounts,
    courses,
    exchanges,
    drafts,
    reviews,
    { PROPOSAL_FORM },
  ] = await Promise.all([
    dist('database/database.js'),
    dist('clock/clock.js'),
    dist('ids/ids.js'),
    dist('database/insert-all.js'),
    dist('accounts/entities.js'),
    dist('courses/entities.js'),
    dist('exchanges/entities.js'),
    dist('drafts/entities.js'),
    dist('reviews/entities.js'),
    dist('demo/form.js'),
  ]);
  const ids = new Ids();
  const now = Date.now();
  const day = 24 * 3_600_000;
  const people = Array.from({ length: 301 }, (_, index) => ({
    id: ids.uuid(),
    email: `bench${index}@example.org`,
    name: `Bench ${index}`,
    createsCourses: true,
    createdAt: now,
  }));
  const [instructor, ...students] = people;
  const courseId = ids.uuid();
  const formId = ids.uuid();
  const exchangeId = ids.uuid();
  const participants = students.map(({ id }, index) => ({
    id: ids.uuid(),
    exchangeId,
    personId: id,
    alias: `Alias ${index}`,
  }));
  const handedIn = participants.map(({ id }) => ({
    id: ids.uuid(),
    exchangeId,
    participantId: id,
    title: 'T',
    revision: 1,
    savedAt: now,
  }));
  const allocated = participants.flatMap(({ id }, index) =>
    [1, 2, 3].map((step) => ({
      id: ids.uuid(),
      exchangeId,
      reviewerId: id,
      draftId: handedIn[(index + step) % 300].id,
      position: step,
    })),
  );
  const database = await Database.open(folder, new Clock());
  await database.write(async (manager) => {
    await insertAll(manager, accounts.Person, people);
    await insertAll(manager, courses.Course, [{ id: courseId, title: 'Bench', timeZone: 'UTC', createdAt: now }]);
    await insertAll(
      manager,
      courses.Enrolment,
      people.map(({ id }) => ({
        id: ids.uuid(),
        courseId,
        personId: id,
        role: id === instructor.id ? 'instructor' : 'student',
        active: true,
      })),
    );
    await insertAll(manager, exchanges.ReviewFormRow, [{ id: formId, courseId, items: PROPOSAL_FORM, revision: 1 }]);
    const dates = {
      draftsOpen: now - 9 * day,
      draftsDue: now - 2 * day,
      reviewsOpen: now - day,
      reviewsDue: now + day,
      release: now + 2 * day,
    };
    const settings = {
      title: 'Bench',
      briefHtml: '<p>Brief</p>',
      guideHtml: '',
      reviewsPerStudent: 3,
      names: 'both-ways',
      deliverables: DELIVERABLES,
    };
    await insertAll(manager, exchanges.Exchange, [
      { id: exchangeId, courseId, formId, ...settings, ...dates, publishedAt: now, revision: 1, createdAt: now },
    ]);
    await insertAll(manager, exchanges.Participant, participants);
    await insertAll(manager, drafts.Draft, handedIn);
    const versions = handedIn.map(({ id }) => ({
      id: ids.uuid(),
      draftId: id,
      number: 1,
      title: 'T',
      words: 4,
      digest: 'x',
      handedInAt: now,
    }));
    await insertAll(manager, drafts.DraftVersion, versions);
    const part = { deliverableId: 'text', position: 0, kind: 'text', html: '<p>Text of a draft.</p>', hidden: [] };
    await insertAll(
      manager,
      drafts.DraftPart,
      versions.map(({ id, draftId }) => ({ ...part, id: ids.uuid(), draftId, versionId: id })),
    );
    await insertAll(manager, reviews.Review, allocated);
  });
  await database.onApplicationShutdown();
  return {
    instructorId: instructor.id,
    reviewerId: students[0].id,
    studentIds: students.map(({ id }) => id),
    exchangeId,
    reviewId: allocated[0].id,
  };
}
