import type {
  CourseInsightsView,
  DeskView,
  DraftFeedbackView,
  FeedbackView,
  FormView,
  GradeRow,
  GradesView,
  GradingCompanyView,
  InsightsView,
  LibraryFormView,
  LibraryView,
} from '@salt-circle/contracts';
import { USUAL_GRADE_RULE, type FormItem } from '@salt-circle/core';
import { strFromU8, unzipSync } from 'fflate';
import { Exchange, Participant } from '../../model/exchange.js';
import { PracticeTry } from '../../model/practice.js';
import { AnswerRow, Review } from '../../model/review.js';
import { Database } from '../../platform/database/database.js';
import { fillIn, leaveNote, reviewedExchange, submitFilled } from '../../testing/acts.js';
import { ANN, BEN, CHO, INES, PEOPLE, TOM } from '../../testing/people.js';
import { AT } from '../../testing/plan.js';
import { practiceOn, tryPractice } from '../../testing/practice.js';
import { World } from '../../testing/world.js';

let world: World;
let id: string;
let byAnn: string;
let byBen: string;

beforeEach(async () => {
  world = await World.open();
  ({ id, byAnn, byBen } = await reviewedExchange(world, {
    gradeParts: [
      { part: 'peer-score', weight: 2 },
      { part: 'review-quality', weight: 1 },
    ],
  }));
  await leaveNote(world, ANN, byAnn);
  await submitFilled(world, ANN, byAnn);
  world.clock.goTo(AT.checking);
});
afterEach(() => world.close());

const at = (path: string) => `/exchanges/${id}/grades${path}`;
const grades = () => world.do<GradesView>(INES, 'get', at(''));
const named = (who: number) => PEOPLE[who]?.name as string;
const rowOf = async (who: number) => (await grades()).rows.find(({ person }) => person.name === named(who)) as GradeRow;
const level = (item: FormItem | undefined, at: number) =>
  item?.kind === 'criterion' ? { levelId: item.levels[at]?.id } : {};
const mark = async (of: number, key: string, body: object, who: number = TOM) =>
  world.as(who, 'put', at(`/${(await rowOf(of)).id}/reviewing/${key}`), { revision: 0, ...body });
/** Writes the whole form for reviewing, at one level. */
async function markAll(of: number, prefix: string, which: number): Promise<void> {
  for (const item of (await grades()).reviewingForm) await mark(of, `${prefix}${item.id}`, level(item, which));
}

describe('grading by several', () => {
  const share = (part: object, who: number = INES) =>
    world.as(who, 'post', at('/graders'), {
      ...{ works: ['draft', 'reviewing'], graderIds: [], how: 'evenly', openOnly: true },
      ...part,
    });
  const graderOf = async (who: number, work: 'draft' | 'reviewing' = 'reviewing') =>
    (await rowOf(who)).work[work].grader?.name ?? null;

  it('shares people out, keeps what is graded where it is, and moves one by hand', async () => {
    const { graders } = await grades();
    expect(graders.map(({ name }) => name).sort()).toEqual([named(INES), named(TOM)].sort());
    const ids = graders.map((one) => one.id);
    await share({ graderIds: ids });
    const all = await Promise.all([ANN, BEN, CHO].map((who) => graderOf(who)));
    expect([...new Set(all)].sort()).toEqual([named(INES), named(TOM)].sort());
    const [ines, tom] = [named(INES), named(TOM)].map((name) => graders.find((one) => one.name === name)?.id);
    await markAll(ANN, '', 1);
    const before = await graderOf(ANN);
    const other = before === named(INES) ? tom : ines;
    await share({ graderIds: [other], works: ['reviewing'] });
    expect(await graderOf(ANN)).toBe(before);
    expect(await graderOf(BEN)).not.toBe(before);
    await world.do(TOM, 'put', at(`/${(await rowOf(ANN)).id}/grader`), { work: 'reviewing', graderId: other });
    expect(await graderOf(ANN)).not.toBe(before);
    await share({ how: 'none', openOnly: false });
    expect([await graderOf(ANN), await graderOf(BEN, 'draft')]).toEqual([null, null]);
  });

  it('is for staff alone, and nobody else is given anybody to grade', async () => {
    const { graders } = await grades();
    const ids = graders.map((one) => one.id);
    const student = PEOPLE[ANN]?.id;
    const refused = await Promise.all([
      share({ graderIds: ids }, TOM),
      share({ graderIds: [] }),
      share({ graderIds: [student] }),
      share({ graderIds: ids, works: [] }),
      share({ graderIds: ids, works: ['everything'] }),
    ]);
    expect(refused.map(({ status }) => status)).toEqual([403, 422, 422, 422, 422]);
    expect(await graderOf(BEN)).toBeNull();
  });

  it('tells two who are at the same person of each other, while they are', async () => {
    const { id: annId } = await rowOf(ANN);
    const here = (who: number, of = annId) => world.do<GradingCompanyView>(who, 'post', at(`/${of}/present`));
    expect(await here(INES)).toEqual({ others: [] });
    expect(await here(TOM)).toEqual({ others: [named(INES)] });
    expect(await here(TOM, (await rowOf(BEN)).id)).toEqual({ others: [] });
    world.clock.goTo(AT.checking + 60_000);
    expect(await here(TOM)).toEqual({ others: [] });
  });

  it('says what is graded, half graded and open, and by whom', async () => {
    const stateOf = async (who: number) => {
      const { draft, reviewing } = (await rowOf(who)).work;
      return [draft.state, reviewing.state, reviewing.by];
    };
    expect(await Promise.all([ANN, BEN, CHO].map(stateOf))).toEqual([
      ['open', 'open', null],
      ['open', 'none', null],
      ['none', 'none', null],
    ]);
    const [first] = (await grades()).reviewingForm;
    await mark(ANN, first?.id ?? '', level(first, 1));
    const draftId = (await rowOf(ANN)).draftId as string;
    const { id: own } = await world.do<{ id: string }>(INES, 'post', `/exchanges/${id}/drafts/${draftId}/reviews`);
    await fillIn(world, INES, own);
    expect(await stateOf(ANN)).toEqual(['half', 'half', named(TOM)]);
    await world.do(INES, 'post', `/reviews/${own}/submit`);
    await markAll(ANN, '', 1);
    expect(await stateOf(ANN)).toEqual(['done', 'done', named(TOM)]);
    expect((await rowOf(ANN)).work.draft.by).toBe(named(INES));
  });
});

describe('the forms for marking', () => {
  const choose = (body: object, who: number = INES) => world.as(who, 'put', at('/forms'), { each: false, ...body });

  it('is one of the library where that is chosen, and what was marked by another counts again once it is back', async () => {
    await markAll(ANN, '', 3);
    expect((await rowOf(ANN)).grounds.quality.mark).toBe(1);
    const course = '/courses/course/library';
    const { items } = await world.do<FormView>(INES, 'get', `/exchanges/${id}/form`);
    await world.do(INES, 'post', course, { kind: 'form', title: 'For reviews', exchangeId: id });
    const library = await world.do<LibraryView>(INES, 'get', course);
    const reviewingFormId = library.entries.find(({ title }) => title === 'For reviews')?.id;
    expect((await choose({ reviewingFormId }, TOM)).status).toBe(403);
    expect((await choose({ reviewingFormId })).status).toBe(204);
    expect((await grades()).reviewingForm.map(({ title }) => title)).toEqual(items.map(({ title }) => title));
    expect((await rowOf(ANN)).grounds.quality.mark).toBeNull();
    expect((await rowOf(ANN)).work.reviewing.state).toBe('open');
    expect((await choose({ reviewingFormId: null })).status).toBe(204);
    expect((await rowOf(ANN)).grounds.quality.mark).toBe(1);
    expect((await choose({ reviewingFormId: 'of another course' })).status).toBe(404);
  });

  it('weighs its items where it is one by weights', async () => {
    const course = '/courses/course/library';
    const { id: formId } = await world.do<{ id: string }>(INES, 'post', course, {
      ...{ kind: 'form', title: 'By weights', exchangeId: id },
    });
    const form = await world.do<LibraryFormView>(INES, 'get', `${course}/forms/${formId}`);
    const criterion = form.items.find(({ kind }) => kind === 'criterion');
    const item = (of: string, weight: number) => ({
      ...{ ...criterion, id: of, title: of, weight },
      levels: [0, 10].map((points) => ({ id: `${of}-${points}`, title: `${points}`, description: '', points })),
    });
    const { overall, overallWords, minimumNotes, targetNotes, revision } = form;
    await world.do(INES, 'put', `${course}/forms/${formId}`, {
      ...{ title: 'By weights', weighting: 'weights', items: [item('much', 3), item('little', 1)] },
      ...{ overall, overallWords, minimumNotes, targetNotes, revision },
    });
    expect((await choose({ reviewingFormId: formId })).status).toBe(204);
    await mark(ANN, 'much', { levelId: 'much-10' });
    await mark(ANN, 'little', { levelId: 'little-0' });
    // Three quarters, where points alone would be a half.
    expect((await rowOf(ANN)).grounds.quality.mark).toBe(0.75);
  });

  it('can be filled for each review, whose mean counts', async () => {
    expect((await choose({ each: true })).status).toBe(204);
    await markAll(ANN, `${byAnn}.`, 3);
    const ann = await rowOf(ANN);
    expect([ann.grounds.quality.mark, ann.work.reviewing.state]).toEqual([1, 'done']);
    // Neither of the whole person, nor of somebody else’s review.
    const [item] = (await grades()).reviewingForm;
    const wrong = [item?.id ?? '', `${byBen}.${item?.id}`, `${byAnn}.none`];
    const refused = await Promise.all(wrong.map((key) => mark(ANN, key, level(item, 0))));
    expect(refused.map(({ status }) => status)).toEqual([404, 404, 404]);
    await choose({ each: false });
    expect((await rowOf(ANN)).grounds.quality.mark).toBeNull();
  });
});

describe('scores of peers', () => {
  const rule = async (part: object) => {
    const { rule: known, parts, revision } = await grades();
    const { parts: _, ...rest } = known;
    await world.do(INES, 'put', at('/rule'), { ...rest, revision, gradeParts: parts, parts: [], ...part });
  };
  const scoreOf = async (who: number) => (await rowOf(who)).grade.lines[0]?.share ?? null;

  it('count as much as their reviewers came near the key in practice, where that is chosen', async () => {
    await rule({ score: 'practice' });
    expect((await grades()).problem).toContain('Nobody has submitted a practice draft');
    await rule({ score: 'mean' });
    const { practiceId } = await practiceOn(world, id);
    world.clock.goTo(AT.reviewing);
    const database = world.app.get(Database);
    const tries = [await tryPractice(world, ANN, practiceId), await tryPractice(world, CHO, practiceId)];
    // A second reviewer, who gave nothing.
    const ofAnn = await database.read.findOneByOrFail(Review, { id: byAnn });
    const cho = await database.read.findOneByOrFail(Participant, { exchangeId: id, personId: PEOPLE[CHO]?.id });
    const near = async (ann: number, other: number) => {
      await database.write(async (writing, emit) => {
        await writing.save(Review, { ...ofAnn, id: 'r-cho', reviewerId: cho.id, position: 0 });
        const [answer] = await writing.findBy(AnswerRow, { reviewId: byAnn });
        const [item] = (await world.do<FormView>(INES, 'get', `/exchanges/${id}/form`)).items;
        await writing.save(AnswerRow, { ...answer, reviewId: 'r-cho', ...level(item, 0) } as AnswerRow);
        await writing.update(PracticeTry, { reviewId: tries[0] }, { share: ann });
        await writing.update(PracticeTry, { reviewId: tries[1] }, { share: other });
        emit.quietly({ topic: 'grades', courseId: 'course', exchangeId: id });
      });
    };
    await near(0.75, 0.25);
    expect(await scoreOf(BEN)).toBeCloseTo(0.5, 12);
    await rule({ score: 'practice' });
    expect(await scoreOf(BEN)).toBeCloseTo(0.75, 12);
    await near(0, 0);
    expect(await scoreOf(BEN)).toBeCloseTo(0.5, 12);
  });

  it('are without what is withheld from the author', async () => {
    expect(await scoreOf(BEN)).toBe(1);
    const [item] = (await world.do<FormView>(INES, 'get', `/exchanges/${id}/form`)).items;
    await world.do(INES, 'put', `/reviews/${byAnn}/withheld`, {
      ...{ kind: 'answer', targetId: item?.id, reason: 'Wrong.', told: false, counts: true },
    });
    // It was all that gave points.
    expect(await scoreOf(BEN)).toBeNull();
  });

  it('tell how close a reviewer is to the staff', async () => {
    const { draftId } = await rowOf(BEN);
    const { id: own } = await world.do<{ id: string }>(INES, 'post', `/exchanges/${id}/drafts/${draftId}/reviews`);
    await submitFilled(world, INES, own);
    expect((await rowOf(ANN)).grounds.quality).toMatchObject({ closeness: null, staff: 1 });
    const view = await world.do<InsightsView>(TOM, 'get', `/exchanges/${id}/insights`);
    expect(view.drafts[0]).toMatchObject({ staff: 1, self: null, items: [1] });
  });
});

describe('what is read beside a grade', () => {
  it('is all that was submitted of a draft, withheld or not, for staff', async () => {
    const { draftId } = await rowOf(BEN);
    await world.do(INES, 'put', `/reviews/${byAnn}/withheld`, {
      ...{ kind: 'review', targetId: '', reason: 'Harsh.', told: false, counts: true },
    });
    const path = `/exchanges/${id}/drafts/${draftId}/feedback`;
    const view = await world.do<DraftFeedbackView>(TOM, 'get', path);
    expect(view.reviews.map(({ id: one, reviewer }) => [one, reviewer.name])).toEqual([[byAnn, named(ANN)]]);
    expect(view.reviews[0]?.notes).toHaveLength(1);
    expect(view.withheld).toEqual([{ reviewId: byAnn, kind: 'review', targetId: '', reason: 'Harsh.' }]);
    expect([view.author.name, view.ownId, view.mayReview]).toEqual([named(BEN), null, true]);
    for (const who of [ANN, BEN]) expect((await world.as(who, 'get', path)).status).toBe(403);
  });

  it('is where notes stand, who wrote how much, and how a course comes along', async () => {
    const view = await world.do<InsightsView>(TOM, 'get', `/exchanges/${id}/insights`);
    const placed = view.notes.flatMap(({ counts, elsewhere }) => [...counts, elsewhere]);
    expect(placed.reduce((sum, one) => sum + one, 0)).toBe(1);
    expect(view.reviews).toMatchObject([
      {
        id: byAnn,
        person: { name: named(ANN) },
        author: { name: named(BEN) },
        notes: 1,
        along: [[expect.any(String), expect.any(Number)]],
      },
    ]);
    // Before the release nobody has decided on anything.
    expect([view.uptake, view.reliability]).toEqual([[], null]);
    const course = await world.do<CourseInsightsView>(TOM, 'get', '/courses/course/insights');
    expect(course.exchanges).toMatchObject([{ id, reviews: 1, items: [{ title: 'Evidence', mean: 1, answers: 1 }] }]);
    const ben = course.people.find(({ name }) => name === named(BEN));
    expect([ben?.scores, ben?.given]).toEqual([[1], [{ submitted: 0, of: 1 }]]);
    expect((await world.as(ANN, 'get', '/courses/course/insights')).status).toBe(403);
  });

  it('is what became of remarks, once feedback is out', async () => {
    world.clock.goTo(AT.closed);
    const { draftId } = await rowOf(BEN);
    const { reviews } = await world.do<DraftFeedbackView>(INES, 'get', `/exchanges/${id}/drafts/${draftId}/feedback`);
    const noteId = reviews[0]?.notes[0]?.id ?? '';
    const kind = reviews[0]?.notes[0]?.kind;
    const remarks = async () =>
      (await world.do<InsightsView>(INES, 'get', `/exchanges/${id}/insights`)).uptake.find((one) => one.kind === kind);
    expect(await remarks()).toMatchObject({ remarks: 1, done: 0, toDo: 0, wont: 0, undecided: 1 });
    const decide = (decision: string, done: boolean, revision: number) =>
      world.as(BEN, 'put', `/exchanges/${id}/decisions/note.${noteId}`, { decision, why: 'So.', done, revision });
    expect((await decide('will-not', false, 0)).status).toBeLessThan(300);
    expect(await remarks()).toMatchObject({ wont: 1, undecided: 0 });
  });
});

describe('a form of the library for marking drafts', () => {
  const library = '/courses/course/library';
  const beginOwn = async (who: number, of: number) =>
    (await world.do<{ id: string }>(who, 'post', `/exchanges/${id}/drafts/${(await rowOf(of)).draftId}/reviews`)).id;
  const desk = (who: number, reviewId: string) => world.do<DeskView>(who, 'get', `/reviews/${reviewId}`);
  const choose = (body: object, who: number = INES) => world.as(who, 'put', at('/forms'), { each: false, ...body });

  /** The form of the exchange with other levels under the same id, kept in the library. */
  async function keepForm(points: readonly [number | null, number | null], title: string): Promise<string> {
    const { id: formId } = await world.do<{ id: string }>(INES, 'post', library, {
      kind: 'form',
      title,
      exchangeId: id,
    });
    const form = await world.do<LibraryFormView>(INES, 'get', `${library}/forms/${formId}`);
    const levels = points.map((of, index) => ({
      id: `staff-${index}`,
      title: `Level ${index}`,
      description: '',
      points: of,
    }));
    const items = form.items.map((item) => (item.id === 'evidence' ? { ...item, title: 'Method', levels } : item));
    const { weighting, overall, overallWords, minimumNotes, targetNotes, revision } = form;
    const whole = { items, weighting, overall, overallWords, minimumNotes, targetNotes };
    await world.do(INES, 'put', `${library}/forms/${formId}`, { ...whole, title, revision });
    return formId;
  }

  it('is what staff fill in from then on, and goes with each review to whoever reads it', async () => {
    const unanswered = await beginOwn(TOM, BEN);
    const ofPeers = await beginOwn(INES, ANN);
    await fillIn(world, INES, ofPeers);
    const draftFormId = await keepForm([0, 8], 'Of the staff');
    expect((await choose({ draftFormId }, TOM)).status).toBe(403);
    expect((await choose({ draftFormId })).status).toBe(204);
    expect((await grades()).draftForm?.map(({ title }) => title)).toContain('Method');
    // One in which nothing is answered takes it; one that is begun stays with its own.
    const { form } = await desk(TOM, unanswered);
    expect(form.items.find((item) => item.id === 'evidence')?.title).toBe('Method');
    expect((await desk(INES, ofPeers)).form.items.map(({ title }) => title)).not.toContain('Method');

    const answer = (levelId: string) =>
      world.as(TOM, 'put', `/reviews/${unanswered}/answers/evidence`, { revision: 0, levelId, text: '' });
    // A level of the peers' form is none of this one.
    expect((await answer('high')).status).toBe(422);
    expect((await answer('staff-1')).status).toBe(200);
    await world.do(TOM, 'post', `/reviews/${unanswered}/submit`);
    const { drafts } = await world.do<InsightsView>(INES, 'get', `/exchanges/${id}/insights`);
    expect(drafts.map(({ staff }) => staff).filter((share) => share !== null)).toEqual([1]);
    world.clock.goTo(AT.closed);
    const feedback = await world.do<FeedbackView>(BEN, 'get', `/exchanges/${id}/feedback`);
    const shown = feedback.reviews.map((review) => [
      review.reviewer.role ?? 'peer',
      (review.form ?? feedback.form).items.map(({ title }) => title).includes('Method'),
    ]);
    expect(shown.sort()).toEqual([
      ['assistant', true],
      ['peer', false],
    ]);
    const paper = await world.file(BEN, `/exchanges/${id}/feedback/draft.docx`);
    const words = Object.values(unzipSync(new Uint8Array(paper.body as Buffer))).map((file) => strFromU8(file));
    expect(words.join('\n')).toContain('Method');
  });

  it('gives points where the grade rests on them', async () => {
    const draftFormId = await keepForm([null, null], 'Words alone');
    expect((await choose({ draftFormId })).status).toBe(204);
    await world.app.get(Database).write(async (manager) => {
      await manager.update(Exchange, { id }, { gradeParts: [{ part: 'instructor-mark', weight: 1 }] });
    });
    expect((await choose({ draftFormId })).body.sentence).toContain(
      'gives no points, but the mark of the draft is part',
    );
    expect((await choose({ draftFormId: null })).status).toBe(204);
    expect((await grades()).draftForm).toBeNull();
    // The other way round: chosen while it did not count, and then the grade shall rest on it.
    const set = (part: string) =>
      world.as(INES, 'put', `/exchanges/${id}/rules`, { gradeParts: [{ part, weight: 1 }], tell: false });
    expect((await set('handing-in')).status).toBe(200);
    expect((await choose({ draftFormId })).status).toBe(204);
    expect((await set('instructor-mark')).body).toMatchObject({ fields: [{ code: 'mark-needs-points' }] });
    const { revision } = await grades();
    const rule = { ...USUAL_GRADE_RULE, parts: [], revision, gradeParts: [{ part: 'instructor-mark', weight: 1 }] };
    const saved = await world.as(INES, 'put', `/exchanges/${id}/grades/rule`, rule);
    expect(saved.body).toMatchObject({ fields: [{ code: 'mark-needs-points' }] });
  });
});
