import type {
  GradeMoveView,
  GradeRow,
  GradeRuleRequest,
  GradesView,
  InboxView,
  InsightsView,
  OwnGradeView,
} from '@salt-circle/contracts';
import { USUAL_GRADE_RULE, type GradePart, type GradeRule } from '@salt-circle/core';
import readXlsx from 'read-excel-file/node';
import { fillIn, leaveNote, reviewedExchange, submitFilled } from '../../testing/acts.js';
import { ANN, BEN, CHO, INES, PEOPLE, TOM } from '../../testing/people.js';
import { AT, DAY } from '../../testing/plan.js';
import { World } from '../../testing/world.js';
import { GradesNews } from './grades-news.service.js';

const PARTS: GradePart[] = [
  { part: 'handing-in', weight: 20 },
  { part: 'reviews-done', weight: 30 },
  { part: 'peer-score', weight: 40 },
  { part: 'review-quality', weight: 10 },
];

let world: World;
let id: string;
let byAnn: string;
let byBen: string;

beforeEach(async () => {
  world = await World.open();
  ({ id, byAnn, byBen } = await reviewedExchange(world, { gradeParts: PARTS }));
  await leaveNote(world, ANN, byAnn);
  await submitFilled(world, ANN, byAnn);
  world.clock.goTo(AT.checking);
});
afterEach(() => world.close());

const grades = (who: number = INES) => world.do<GradesView>(who, 'get', `/exchanges/${id}/grades`);
const rowOf = async (who: number) =>
  (await grades()).rows.find(({ person }) => person.name === PEOPLE[who]?.name) as GradeRow;
const own = (who: number) => world.as(who, 'get', `/exchanges/${id}/grade`);
const override = async (
  of: number,
  part: string,
  value: number | null,
  reason = 'Talked it over.',
  who: number = INES,
) => world.as(who, 'put', `/exchanges/${id}/grades/${(await rowOf(of)).id}/override`, { part, value, reason });
const release = (part: object = {}, who: number = INES) =>
  world.as(who, 'post', `/exchanges/${id}/grades/release`, { how: 'all', at: null, participantIds: [], ...part });
const shares = ({ grade }: GradeRow) =>
  Object.fromEntries(grade.lines.map(({ part, state, share }) => [part, state === 'counts' ? share : state]));

function asked(revision: number, parts: readonly GradePart[], rule: Partial<GradeRule> = {}): GradeRuleRequest {
  const { parts: named, ...all } = { ...USUAL_GRADE_RULE, ...rule };
  const list = Object.entries(named).map(([part, one]) => ({ part, ...one }));
  return { ...all, revision, gradeParts: [...parts], parts: list } as unknown as GradeRuleRequest;
}

describe('grades', () => {
  it('are worked out from what everybody did', async () => {
    // Ann reviewed and gave all points; Ben has not submitted by now; Cho handed in nothing, and was given nothing.
    const [ann, ben, cho] = [await rowOf(ANN), await rowOf(BEN), await rowOf(CHO)];
    expect(shares(ann)).toEqual({ 'handing-in': 1, 'reviews-done': 1, 'peer-score': 'open', 'review-quality': 'open' });
    expect(shares(ben)).toEqual({ 'handing-in': 1, 'reviews-done': 0, 'peer-score': 1, 'review-quality': 'open' });
    expect(shares(cho)).toEqual({
      'handing-in': 0,
      'reviews-done': 'excused',
      'peer-score': 'open',
      'review-quality': 'excused',
    });
    // 20 of 20, 0 of 30 and 40 of 40, of 90.
    expect([ann.grade.words, ben.grade.words, cho.grade.words]).toEqual(['100%', '67%', '0%']);
    expect(ben.grounds.scores).toEqual([1]);
  });

  it('leave out what is withheld and does not count, and count what does', async () => {
    const keep = (counts: boolean) =>
      world.do(INES, 'put', `/reviews/${byAnn}/withheld`, {
        kind: 'review',
        targetId: '',
        reason: 'Harsh.',
        told: false,
        counts,
      });
    await keep(true);
    expect(shares(await rowOf(ANN))).toMatchObject({ 'reviews-done': 1 });
    expect(shares(await rowOf(BEN))).toMatchObject({ 'peer-score': 'open' });
    await world.do(INES, 'post', `/reviews/${byAnn}/given-back`, { kind: 'review', targetId: '' });
    await keep(false);
    expect(shares(await rowOf(ANN))).toMatchObject({ 'reviews-done': 0 });
  });

  it('take marks of drafts from own reviews, and marks of reviewing from their form', async () => {
    await world.do(
      INES,
      'put',
      `/exchanges/${id}/grades/rule`,
      asked((await grades()).revision, [
        { part: 'instructor-mark', weight: 1 },
        { part: 'review-quality', weight: 1 },
      ]),
    );
    const draftId = (await rowOf(BEN)).draftId as string;
    const { id: ownId } = await world.do<{ id: string }>(INES, 'post', `/exchanges/${id}/drafts/${draftId}/reviews`);
    await fillIn(world, INES, ownId);
    expect(shares(await rowOf(BEN))).toMatchObject({ 'instructor-mark': 'open' });
    await world.do(INES, 'post', `/reviews/${ownId}/submit`);
    expect(shares(await rowOf(BEN))).toMatchObject({ 'instructor-mark': 1 });
    // What is half filled in says nothing yet.
    const { reviewingForm } = await grades();
    const ann = await rowOf(ANN);
    for (const item of reviewingForm) {
      expect((await rowOf(ANN)).grade.lines[1]?.share).toBeNull();
      if (item.kind !== 'criterion') throw new Error('the ready form has criteria alone');
      const body = { revision: 0, levelId: item.levels[2]?.id };
      await world.do(TOM, 'put', `/exchanges/${id}/grades/${ann.id}/reviewing/${item.id}`, body);
      // Saved again, it is the same; on an older state it is a conflict.
      expect((await world.as(TOM, 'put', `/exchanges/${id}/grades/${ann.id}/reviewing/${item.id}`, body)).status).toBe(
        200,
      );
    }
    const last = await rowOf(ANN);
    expect(last.grade.lines[1]?.share).toBeCloseTo(2 / 3, 12);
    expect(last.mark.by).toBe(PEOPLE[TOM]?.name);
    const late = {
      revision: 0,
      levelId: (reviewingForm[0] as unknown as { levels: Array<{ id: string }> }).levels[0]?.id,
    };
    expect(
      (await world.as(INES, 'put', `/exchanges/${id}/grades/${ann.id}/reviewing/${reviewingForm[0]?.id}`, late)).status,
    ).toBe(409);
  });

  it('can be overridden with a reason, keep what was worked out, and say when that changed', async () => {
    expect((await override(BEN, 'reviews-done', 0.5)).status).toBe(204);
    expect((await override(BEN, '', 80, 'Ill in the last week.', TOM)).status).toBe(204);
    const ben = await rowOf(BEN);
    expect(ben.grade).toMatchObject({
      words: '80%',
      changed: false,
      override: { value: 80, reason: 'Ill in the last week.' },
    });
    expect(ben.grade.lines[1]).toMatchObject({ computed: 0, share: 0.5, changed: false });
    world.clock.goTo(AT.reviewing);
    await submitFilled(world, BEN, byBen);
    world.clock.goTo(AT.checking);
    const later = await rowOf(BEN);
    // The whole was worked out with the part as it was given, which has not moved.
    expect(later.grade).toMatchObject({ words: '80%', changed: false });
    expect(later.grade.lines[1]).toMatchObject({ computed: 1, share: 0.5, changed: true });
    await override(BEN, 'reviews-done', null);
    expect((await rowOf(BEN)).grade).toMatchObject({ words: '80%', changed: true });
    await override(BEN, '', null);
    expect((await rowOf(BEN)).grade).toMatchObject({ words: '100%', override: null });
    const refused = await Promise.all([
      override(BEN, '', 101),
      override(BEN, 'reviews-done', -0.1),
      override(BEN, '', 50, ' '),
      override(BEN, 'reflection', 1),
      override(BEN, '', 50, 'Because.', ANN),
    ]);
    expect(refused.map(({ status }) => status)).toEqual([422, 422, 422, 404, 403]);
  });

  it('show who moves before weights are changed, and are changed by instructors alone', async () => {
    const { revision } = await grades();
    const request = asked(revision, [
      { part: 'handing-in', weight: 60 },
      { part: 'reviews-done', weight: 40 },
    ]);
    const moves = await world.do<GradeMoveView[]>(INES, 'post', `/exchanges/${id}/grades/preview`, request);
    expect(moves[0]).toMatchObject({ person: { name: PEOPLE[BEN]?.name }, before: '67%', after: '60%' });
    expect((await rowOf(BEN)).grade.words).toBe('67%');
    for (const who of [TOM, ANN])
      expect((await world.as(who, 'put', `/exchanges/${id}/grades/rule`, request)).status).toBe(403);
    expect((await world.as(INES, 'put', `/exchanges/${id}/grades/rule`, request)).status).toBe(204);
    expect((await rowOf(BEN)).grade.words).toBe('60%');
    expect((await world.as(INES, 'put', `/exchanges/${id}/grades/rule`, request)).status).toBe(409);
    const wrong = asked(revision + 1, [], { scale: { kind: 'bands', bands: [] } });
    expect((await world.as(INES, 'put', `/exchanges/${id}/grades/rule`, wrong)).body.fields[0].sentence).toContain(
      'from 0 on',
    );
    expect((await world.do<InboxView>(ANN, 'get', '/inbox')).news[0]?.words).toContain(
      'rules of “Field report” have changed',
    );
  });

  it('reach students when they are released, each their own, and corrections are told with what changed', async () => {
    expect([(await own(BEN)).status, (await own(INES)).status]).toEqual([403, 403]);
    const ben = await rowOf(BEN);
    await release({ how: 'some', participantIds: [ben.id] });
    expect([(await own(BEN)).status, (await own(ANN)).status]).toEqual([200, 403]);
    const sheet = (await own(BEN)).body as OwnGradeView;
    expect(sheet.grade).toEqual(ben.grade);
    expect(JSON.stringify(sheet)).not.toContain((await rowOf(ANN)).id);
    // Single scores come with the feedback, and what does not count is the staff’s to look at.
    expect(sheet.grounds).toMatchObject({ reviews: 1, scores: [], quality: { closeness: null, helpfulness: null } });
    const told = async (who: number) =>
      (await world.do<InboxView>(who, 'get', '/inbox')).news
        .map(({ words }) => words)
        .filter((words) => words.includes('your grade'));
    expect([(await told(BEN)).length, (await told(ANN)).length]).toEqual([1, 0]);
    await override(BEN, '', 75);
    expect((await rowOf(BEN)).correction).toBe('67%');
    // Worked out once for all who look, and anew once something has changed.
    expect(((await own(BEN)).body as OwnGradeView).grade.words).toBe('75%');
    const news = world.app.get(GradesNews);
    world.clock.goTo(AT.checking + 3_600_000);
    await news.look();
    expect((await told(BEN))[0]).toContain('has been corrected');
    await news.look();
    expect((await told(BEN)).length).toBe(2);
    // For all at a time, and taken back again.
    await release({ at: new Date(AT.checking + DAY).toISOString() });
    expect((await own(ANN)).status).toBe(403);
    world.clock.goTo(AT.checking + 2 * DAY);
    await news.look();
    expect([(await own(ANN)).status, (await told(ANN)).length]).toEqual([200, 1]);
    expect((await release({ how: 'none' }, TOM)).status).toBe(403);
    await release({ how: 'none' });
    expect([(await own(ANN)).status, (await own(BEN)).status]).toEqual([403, 403]);
  });

  it('stay released once somebody has looked, and looking through somebody’s eyes is not that', async () => {
    const looked = (who: number) => world.as(who, 'post', `/exchanges/${id}/grade/read`);
    // There is nothing to look at before.
    expect((await looked(BEN)).status).toBe(403);
    await release();
    expect((await looked(INES)).status).toBe(403);
    await release({ how: 'none' });
    await release();
    for (const _ of [1, 2]) expect((await looked(BEN)).status).toBe(204);
    const refused = await release({ how: 'none' });
    expect([refused.status, refused.body.code]).toEqual([409, 'already-read']);
    expect(refused.body.sentence).toBe('One student has looked at the grade, so the release cannot be taken back.');
    expect((await own(BEN)).status).toBe(200);
    // A wrong one is put right, and told.
    await override(BEN, '', 75);
    world.clock.goTo(AT.checking + 3_600_000);
    await world.app.get(GradesNews).look();
    const { news } = await world.do<InboxView>(BEN, 'get', '/inbox');
    expect(news[0]?.words).toContain('has been corrected');
  });

  it('are read out as CSV and as a workbook, in which nothing is a formula', async () => {
    await override(BEN, '', 75, '=HYPERLINK("http://evil.example";"look")');
    const csv = await world.as(INES, 'get', `/exchanges/${id}/grades.csv`);
    const line = csv.text.split('\r\n').find((one) => one.includes(PEOPLE[BEN]?.name ?? '')) ?? '';
    expect(line).toContain('75%');
    expect(line).not.toMatch(/(^|,)"?=/);
    const { body: file } = await world.file(INES, `/exchanges/${id}/grades.xlsx`);
    const sheets = new Map((await readXlsx(file as Buffer)).map(({ sheet, data }) => [sheet, data]));
    const [first, rules] = [sheets.get('Grades') ?? [], sheets.get('Rules') ?? []];
    const head = first[0] ?? [];
    const row = first.find(([name]) => name === PEOPLE[BEN]?.name) ?? [];
    expect([
      row[head.indexOf('grade')],
      row[head.indexOf('grade, percent')],
      row[head.indexOf('worked out, percent')],
    ]).toEqual(['75%', 75, 66.67]);
    expect(row[head.indexOf('reasons')]).toContain('=HYPERLINK');
    expect(first).toHaveLength(4);
    expect(rules.map(([rule]) => rule)).toContain('weight of reviews done');
    for (const who of [ANN, BEN]) expect((await world.as(who, 'get', `/exchanges/${id}/grades.xlsx`)).status).toBe(403);
  });

  it('come with what the reviews say together', async () => {
    const view = await world.do<InsightsView>(TOM, 'get', `/exchanges/${id}/insights`);
    expect(view.items.map(({ title, counts, answers }) => [title, counts, answers])).toEqual([
      ['Evidence', [0, 0, 0, 0, 1], 1],
    ]);
    expect(view.drafts).toMatchObject([
      { author: { name: PEOPLE[BEN]?.name }, mean: 1, reviews: 1, less: 0, more: 0, forHalf: null, staff: null },
    ]);
    expect(view.reviewers).toMatchObject([{ person: { name: PEOPLE[ANN]?.name }, severity: 0, reviews: 1 }]);
    expect(view.days.map(({ reviews }) => reviews)).toEqual([1]);
    expect(view.problem).toContain('too few');
  });

  it('take severity out where that is chosen, and say why it cannot be', async () => {
    await world.do(
      INES,
      'put',
      `/exchanges/${id}/grades/rule`,
      asked((await grades()).revision, PARTS, { score: 'adjusted' }),
    );
    const { problem, rows } = await grades();
    expect(problem).toContain('too few scores');
    expect(rows.find(({ person }) => person.name === PEOPLE[BEN]?.name)?.grounds.interval).not.toBeNull();
  });
});
