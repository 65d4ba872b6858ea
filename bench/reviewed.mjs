import { at } from '../scripts/run.mjs';

const dist = (path) => import(at('apps', 'server', 'dist', ...path.split('/')));

/** The same row of numbers each time, 0 to 1 (Lehmer's generator as Park and Miller have it). */
function numbers(seed) {
  let state = seed;
  return () => {
    state = (state * 48_271) % 2_147_483_647;
    return state / 2_147_483_647;
  };
}

/**
 * Fills in and submits all reviews of a course made by `addBenchCourse`, straight in the database: drafts of different worth, reviewers
 * of different severity, a note in each review, a section for every 25 students; staff review every tenth draft.
 */
export async function submitAll(folder, { exchangeId, instructorId }) {
  const [{ Database }, { Clock }, { Ids }, { insertAll }, core, courses, exchanges, drafts, reviews] =
    await Promise.all([
      dist('platform/database/database.js'),
      dist('platform/clock/clock.js'),
      dist('platform/ids/ids.js'),
      dist('platform/database/insert-all.js'),
      import(at('packages', 'core', 'dist', 'index.js')),
      dist('model/course.js'),
      dist('model/exchange.js'),
      dist('model/draft.js'),
      dist('model/review.js'),
    ]);
  const database = await Database.open(folder, new Clock());
  const ids = new Ids();
  const now = Date.now();
  const next = numbers(7);
  const exchange = await database.read.findOneByOrFail(exchanges.Exchange, { id: exchangeId });
  const { items } = await database.read.findOneByOrFail(exchanges.ReviewFormRow, { id: exchange.formId });
  const all = await database.read.findBy(reviews.Review, { exchangeId });
  const every = await database.read.findBy(drafts.Draft, { exchangeId });
  const versions = await database.read.find(drafts.DraftVersion);
  const parts = await database.read.find(drafts.DraftPart);
  const versionOf = new Map(versions.map((one) => [one.draftId, one.id]));
  const partOf = new Map(parts.map((one) => [one.versionId, one.id]));
  const worth = new Map(every.map(({ id }) => [id, next()]));
  const severity = new Map();
  const severe = (id) => {
    if (!severity.has(id)) severity.set(id, (next() - 0.5) * 0.5);
    return severity.get(id);
  };
  await database.write(async (manager) => {
    const staff = { id: ids.uuid(), exchangeId, personId: instructorId, alias: 'Staff', extraReviews: 0 };
    await insertAll(manager, exchanges.Participant, [staff]);
    const own = every
      .filter((_, index) => index % 10 === 0)
      .map(({ id }) => ({
        id: ids.uuid(),
        exchangeId,
        reviewerId: staff.id,
        draftId: id,
        position: 0,
        voice: 'instructor',
      }));
    await insertAll(
      manager,
      reviews.Review,
      own.map((one) => ({ ...one, begunAt: now, submittedAt: now, toldAt: now })),
    );
    const answers = [...all, ...own].flatMap(({ id, draftId, reviewerId }) =>
      items.map((item) => {
        const share = Math.min(0.999, Math.max(0, worth.get(draftId) - severe(reviewerId) + (next() - 0.5) * 0.3));
        const text = 'Say who measured it, and with what.';
        const level = item.kind === 'criterion' ? item.levels[Math.floor(share * item.levels.length)].id : null;
        return {
          reviewId: id,
          itemId: item.id,
          levelId: level,
          text,
          next: '',
          value: null,
          checks: {},
          choices: [],
          revision: 1,
          savedAt: now,
        };
      }),
    );
    await insertAll(manager, reviews.AnswerRow, answers);
    const exact = 'Text';
    await insertAll(
      manager,
      reviews.NoteRow,
      all.map(({ id, draftId }) => ({
        ...{ id: ids.uuid(), reviewId: id, kind: ['keep', 'change', 'ask', 'fix'][Math.floor(next() * 4)] },
        ...{ body: 'Which one?', versionId: versionOf.get(draftId), partId: partOf.get(versionOf.get(draftId)) },
        selector: {
          type: 'text',
          quote: { type: 'TextQuoteSelector', exact, prefix: '', suffix: ' of a draft.' },
          position: { type: 'TextPositionSelector', start: 0, end: exact.length },
        },
        ...{ revision: 1, createdAt: now },
      })),
    );
    for (const { id } of all) {
      const words = 20 + Math.floor(next() * 300);
      await manager.update(
        reviews.Review,
        { id },
        {
          begunAt: now - 3_600_000,
          submittedAt: now - Math.floor(next() * 5) * 86_400_000,
          answered: items.length,
          required: items.length,
          words,
          noteCount: 1,
        },
      );
    }
    const enrolled = await manager.findBy(courses.Enrolment, { courseId: exchange.courseId, role: 'student' });
    for (const [index, { id }] of enrolled.entries()) {
      await manager.update(
        courses.Enrolment,
        { id },
        { section: String(1 + Math.floor(index / Math.max(25, enrolled.length / 12))) },
      );
    }
    const gradeParts = ['reviews-done', 'peer-score', 'review-quality', 'instructor-mark'].map((part) => ({
      part,
      weight: 1,
    }));
    const gradeRule = { ...core.USUAL_GRADE_RULE, score: 'adjusted' };
    await manager.update(exchanges.Exchange, { id: exchangeId }, { gradeParts, gradeRule });
  });
  await database.onApplicationShutdown();
}
