import 'reflect-metadata';
import { at } from '../scripts/run.mjs';

const one = { description: '', required: false, families: [], maxMegabytes: 100 };
const DELIVERABLES = [
  { ...one, id: 'text', kind: 'text', title: 'Text', required: true },
  { ...one, id: 'files', kind: 'file', title: 'Files', families: ['pdf', 'document', 'plain-text', 'image'] },
];

const dist = (path) => import(at('apps', 'server', 'dist', ...path.split('/')));

const GIVEN =
  'Ada Bo Cleo Dan Eda Finn Gro Hari Ilse Jun Kaia Lev Mira Nils Oya Pia Ravi Siv Tove Ulf Vera Wim Xenia Yuri'.split(
    ' ',
  );
const FAMILY =
  'Aalto Berg Cerny Dahl Eken Falk Grau Holt Ito Jansen Kern Lund Moe Nagy Orr Pohl Quist Riis Saar Toft Ude Vik Wolf Yang Zink'.split(
    ' ',
  );
const nameOf = (index) =>
  `${GIVEN[index % GIVEN.length]} ${FAMILY[Math.floor(index / GIVEN.length) % FAMILY.length]}${index < GIVEN.length * FAMILY.length ? '' : ` ${index}`}`;

/**
 * Adds a course whose students have all handed in, straight to the database.
 *
 * @param options how many `students`; its `title`; the address of an `instructor` who exists, or null for a new one; and
 * whether drafts have been `allocated` and are being reviewed, three each, or wait for it
 * @returns ids to measure with
 */
export async function addBenchCourse(
  folder,
  { students: count = 300, title = 'Bench', instructor: address = null, allocated: isAllocated = true } = {},
) {
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
    dist('platform/database/database.js'),
    dist('platform/clock/clock.js'),
    dist('platform/ids/ids.js'),
    dist('platform/database/insert-all.js'),
    dist('model/person.js'),
    dist('model/course.js'),
    dist('model/exchange.js'),
    dist('model/draft.js'),
    dist('model/review.js'),
    dist('demo/form.js'),
  ]);
  const ids = new Ids();
  const now = Date.now();
  const day = 24 * 3_600_000;
  const database = await Database.open(folder, new Clock());
  const known = address === null ? null : await database.read.findOneByOrFail(accounts.Person, { email: address });
  const person = (email, name) => ({ id: ids.uuid(), email, name, createsCourses: true, createdAt: now });
  const mark = ids.uuid().slice(0, 8);
  const instructor = known ?? person(`${mark}@example.org`, `Instructor of ${title}`);
  const students = Array.from({ length: count }, (_, index) => person(`${mark}.${index}@example.org`, nameOf(index)));
  const people = [instructor, ...students];
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
      draftId: handedIn[(index + step) % count].id,
      position: step,
    })),
  );
  await database.write(async (manager) => {
    await insertAll(manager, accounts.Person, known === null ? people : students);
    await insertAll(manager, courses.Course, [{ id: courseId, title, timeZone: 'UTC', createdAt: now }]);
    await insertAll(
      manager,
      courses.Enrolment,
      people.map(({ id, name, email }) => ({
        id: ids.uuid(),
        courseId,
        personId: id,
        name,
        email,
        role: id === instructor.id ? 'instructor' : 'student',
        active: true,
      })),
    );
    await insertAll(manager, exchanges.ReviewFormRow, [{ id: formId, courseId, items: PROPOSAL_FORM, revision: 1 }]);
    const dates = {
      draftsOpen: now - 9 * day,
      draftsDue: now - 2 * day,
      reviewsOpen: isAllocated ? now - day : now + day,
      reviewsDue: now + 2 * day,
      release: now + 3 * day,
    };
    const settings = {
      title,
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
    if (isAllocated) await insertAll(manager, reviews.Review, allocated);
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
