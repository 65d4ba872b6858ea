import type { CopyPreview, ExchangeView, GradesView, PlanView } from '@salt-circle/contracts';
import { handIn, publishedExchange, reviewedExchange } from '../../testing/acts.js';
import { ANN, BEN, INES } from '../../testing/people.js';
import { AT, DATES, DAY, FORM, PLAN } from '../../testing/plan.js';
import { World } from '../../testing/world.js';
import { Mail } from '../../model/mail.js';

let world: World;
beforeEach(async () => {
  world = await World.open();
});
afterEach(() => world.close());

const plan = (id: string) => world.do<PlanView>(INES, 'get', `/exchanges/${id}/plan`);
const mails = async () =>
  (await world.do<{ mails: Array<{ to: string; subject: string }> }>(INES, 'get', '/courses/course/outbox')).mails;

describe('a plan', () => {
  it('gives back every setting as it was saved', async () => {
    const { id } = await world.do(INES, 'post', '/courses/course/exchanges', { title: 'Field report' });
    const settings = {
      ...PLAN,
      dates: {
        ...DATES,
        lateUntil: DATES.reviewsOpen,
        checkUntil: DATES.release,
        revisionDue: '2026-04-02T12:00:00.000Z',
      },
      late: { amount: 5, unit: 'percent', per: 'day', cap: 20, graceMinutes: 15 },
      deliverables: [
        ...PLAN.deliverables,
        {
          id: 'talk',
          kind: 'recording',
          title: 'Talk',
          description: 'Five minutes.',
          required: false,
          families: [],
          maxMegabytes: 50,
        },
        {
          id: 'data',
          kind: 'file',
          title: 'Data',
          description: '',
          required: true,
          families: ['pdf', 'document'],
          maxMegabytes: 50,
        },
      ],
      takesPart: { kind: 'except', sections: ['A'], groupIds: [], studentIds: ['e-4'] },
      selfReview: 'with',
      ownHandInFirst: false,
      names: 'reviewers-only',
      showNamesAtRelease: true,
      gradeParts: [
        { part: 'peer-score', weight: 60 },
        { part: 'reviews-done', weight: 40 },
      ],
    };
    await world.do(INES, 'put', `/exchanges/${id}/plan`, { ...settings, revision: 1 });
    expect(await plan(id)).toMatchObject(settings);
  });

  it('lists everything that is missing at once, in the order of the page', async () => {
    const { id } = await world.do(INES, 'post', '/courses/course/exchanges', { title: 'Field report' });
    await world.do(INES, 'put', `/exchanges/${id}/plan`, {
      ...PLAN,
      briefHtml: '',
      deliverables: [
        { id: 'a', kind: 'file', title: '', description: '', required: true, families: [], maxMegabytes: 50 },
      ],
      dates: { ...DATES, reviewsDue: null, release: null },
      late: { amount: 0, unit: 'points', per: 'once', cap: null, graceMinutes: 0 },
      whom: 'other-groups',
      gradeParts: [{ part: 'replies', weight: 1 }],
      revision: 1,
    });
    expect((await plan(id)).missing.map(({ code }) => code)).toEqual([
      'brief-missing',
      'deliverable-untitled',
      'deliverable-no-family',
      'date-missing',
      'late-amount',
      'late-without-window',
      'group-set-missing',
      'form-empty',
      'part-needs-replies',
    ]);
  });

  it('keeps what people have been told, and what work hangs on', async () => {
    const { id } = await reviewedExchange(world);
    const { revision, fixed } = await plan(id);
    const tries: Array<[Partial<typeof PLAN>, string]> = [
      [{ names: 'open' }, 'names'],
      [{ handInAs: 'group' }, 'handInAs'],
      [{ reviewsPerStudent: 2 }, 'reviewsPerStudent'],
      [{ selfReview: 'with' }, 'selfReview'],
      [{ deliverables: [] }, 'deliverables'],
    ];
    for (const [part, path] of tries) {
      const { status, body } = await world.as(INES, 'put', `/exchanges/${id}/plan`, { ...PLAN, ...part, revision });
      expect([path, status, body.code, body.fields[0].path]).toEqual([path, 409, 'plan-fixed', path]);
    }
    expect(fixed.reviewsPerStudent).toContain('2 reviews, 0 begun');
    const late = { amount: 5, unit: 'points', per: 'once', cap: null, graceMinutes: 0 };
    for (const part of [{ late }, { gradeParts: [{ part: 'reviews-done', weight: 1 }] }]) {
      const { body } = await world.as(INES, 'put', `/exchanges/${id}/plan`, { ...PLAN, ...part, revision });
      expect([body.code, body.fields[0].path]).toEqual(['plan-fixed', Object.keys(part)[0]]);
    }
    const deliverables = PLAN.deliverables.map((one) => ({ ...one, title: 'Field report, two pages' }));
    await world.do(INES, 'put', `/exchanges/${id}/plan`, { ...PLAN, deliverables, revision });
  });
});

describe('dates of a published exchange', () => {
  it('are moved by a step of their own, and those concerned are told when asked to', async () => {
    const id = await publishedExchange(world);
    const later = { ...DATES, draftsDue: '2026-03-13T00:00:00.000Z' };
    const { revision } = await plan(id);
    expect((await world.as(INES, 'put', `/exchanges/${id}/plan`, { ...PLAN, dates: later, revision })).body.code).toBe(
      'plan-fixed',
    );
    await world.do(INES, 'put', `/exchanges/${id}/dates`, { dates: later, tell: true });
    expect((await plan(id)).dates.draftsDue).toBe(later.draftsDue);
    const told = (await mails()).filter(({ subject }) => subject.includes('have moved'));
    expect(told.map(({ to }) => to).sort()).toEqual(['ann@example.org', 'ben@example.org', 'cho@example.org']);
    await world.do(INES, 'put', `/exchanges/${id}/dates`, { dates: DATES, tell: false });
    expect((await mails()).filter(({ subject }) => subject.includes('have moved'))).toHaveLength(3);
  });

  it('leave rules to a step of their own: what it concerns is counted, and those concerned are told', async () => {
    const lateUntil = '2026-03-14T00:00:00.000Z';
    const id = await publishedExchange(world, { dates: { ...DATES, lateUntil } });
    world.clock.goTo(Date.parse(DATES.draftsDue ?? '') + DAY / 2);
    await handIn(world, ANN, id, 'Late, but here.');
    expect((await plan(id)).lateHandIns).toBe(1);
    const set = (body: object) => world.as(INES, 'put', `/exchanges/${id}/rules`, { tell: true, ...body });
    const late = { amount: 10, unit: 'percent', per: 'day', cap: 30, graceMinutes: 0 };
    expect((await set({ late: { ...late, amount: 0 } })).body.fields[0].path).toBe('late.amount');
    await set({ late, gradeParts: [{ part: 'reviews-done', weight: 1 }] });
    const after = await plan(id);
    expect([after.late, after.gradeParts]).toEqual([late, [{ part: 'reviews-done', weight: 1 }]]);
    const told = (await mails()).filter(({ subject }) => subject.includes('rules of'));
    expect(told).toHaveLength(3);
    const letter = await world.database.read.findOneByOrFail(Mail, { subject: told[0]?.subject ?? '' });
    expect(letter.text).toContain('Late work loses 10 percentage points for each day or part of a day');
    expect(letter.text).toContain('The grade: reviews done 100%.');
    // The same again is no change, and tells nobody.
    await set({ late });
    expect((await mails()).filter(({ subject }) => subject.includes('rules of'))).toHaveLength(3);
  });

  it('says when drafts are allocated, before publishing too', async () => {
    const { id } = await world.do(INES, 'post', '/courses/course/exchanges', { title: 'Rolling' });
    const at = `/exchanges/${id}/allocation/schedule`;
    const body = { revision: 0, schedule: 'nightly', at: null, party: 4, patience: 1 };
    await world.do(INES, 'put', at, body);
    expect((await plan(id)).allocation).toEqual({ revision: 1, kind: 'nightly', at: null, party: 4, patience: 1 });
    expect((await world.as(INES, 'put', at, body)).body.code).toBe('conflict');
  });

  it('open and close now', async () => {
    const id = await publishedExchange(world);
    world.clock.goTo(AT.drafting);
    await world.do(INES, 'post', `/exchanges/${id}/dates/now`, { date: 'draftsDue', tell: false });
    expect((await world.do<ExchangeView>(ANN, 'get', `/exchanges/${id}`)).mayHandIn).toBe(false);
    await world.do(INES, 'post', `/exchanges/${id}/dates/now`, { date: 'reviewsOpen', tell: false });
    expect((await world.do<ExchangeView>(ANN, 'get', `/exchanges/${id}`)).stage).toBe('reviewing');
    const early = await world.as(INES, 'post', `/exchanges/${id}/dates/now`, { date: 'draftsOpen', tell: false });
    expect([early.status, early.body.fields[0].path]).toEqual([422, 'dates.draftsDue']);
  });

  it('can be one’s own: an extension for a student, an excuse for another', async () => {
    const id = await publishedExchange(world);
    const { choices } = await plan(id);
    const of = (name: string) => choices.students.find((one) => one.name.startsWith(name))?.id ?? '';
    const none = { draftsDue: null, reviewsDue: null, repliesDue: null, revisionDue: null, excused: false, reason: '' };
    const put = (body: object) => world.as(INES, 'put', `/exchanges/${id}/personal-dates`, { ...none, ...body });
    expect(
      (await put({ studentId: of('Ann'), draftsDue: new Date(AT.reviewing).toISOString(), reason: 'Illness' })).status,
    ).toBe(200);
    expect((await put({ studentId: of('Ben'), excused: true })).status).toBe(200);
    expect((await put({ studentId: of('Cho') })).body.fields[0].code).toBe('own-empty');
    expect((await put({ studentId: of('Cho'), draftsDue: '2026-03-01T00:00:00Z' })).body.fields[0].code).toBe(
      'own-early',
    );
    expect((await put({ studentId: of('Cho'), repliesDue: '2026-04-01T00:00:00Z' })).body.fields[0].code).toBe(
      'own-without-stage',
    );
    world.clock.goTo(AT.afterDue);
    await handIn(world, ANN, id);
    expect((await world.do<ExchangeView>(BEN, 'get', `/exchanges/${id}`)).own).toMatchObject({ excused: true });
    const { own, ...seen } = await world.do<ExchangeView>(INES, 'get', `/exchanges/${id}`);
    expect([own, seen.figures]).toMatchObject([null, { students: 2, handedIn: 1 }]);
    const row = (await plan(id)).own.find(({ name }) => name.startsWith('Ann'));
    expect(row).toMatchObject({ reason: 'Illness', groupId: null });
    await world.do(INES, 'delete', `/exchanges/${id}/personal-dates/${row?.id}`);
    expect((await world.do<ExchangeView>(ANN, 'get', `/exchanges/${id}`)).mayHandIn).toBe(false);
  });
});

describe('a copy', () => {
  const ask = (sourceId: string, part: object = {}) => ({
    from: 'exchange',
    sourceId,
    title: 'Again',
    shift: 'days',
    days: 28,
    firstAt: null,
    keepWeekdays: false,
    ...part,
  });

  it('takes settings and form along, dates moved by days of the course’s calendar', async () => {
    const id = await publishedExchange(world, { names: 'authors-only' });
    const { id: copy } = await world.do(INES, 'post', '/courses/course/exchanges/copies', ask(id));
    const made = await plan(copy);
    expect(made).toMatchObject({ title: 'Again', names: 'authors-only', published: false, briefHtml: PLAN.briefHtml });
    // Clocks go forward on 29 March in between: the time of day stays, so 28 days are an hour short.
    expect(Date.parse(made.dates.draftsDue ?? '') - Date.parse(DATES.draftsDue ?? '')).toBe(28 * DAY - 3_600_000);
    expect(await world.do(INES, 'get', `/exchanges/${copy}/form`)).toMatchObject({ items: FORM.items, frozen: null });
  });

  it('finds its first date, keeps weekdays, and points out holidays', async () => {
    const id = await publishedExchange(world);
    const holidays = [{ title: 'Founders’ day', from: '2026-09-10', to: '2026-09-10' }];
    await world.do(INES, 'put', '/courses/course', {
      title: 'Coastal Restoration',
      timeZone: 'Europe/Tallinn',
      holidays,
    });
    const shown = await world.do<CopyPreview>(
      INES,
      'post',
      '/courses/course/exchanges/copies/preview',
      ask(id, { shift: 'first', firstAt: '2026-09-01T08:00:00Z', keepWeekdays: true }),
    );
    // 2 March 2026, 02:00 in Tallinn, was a Monday, and so is 31 August, 02:00.
    expect([shown.days, shown.dates.draftsOpen?.slice(0, 16)]).toEqual([182, '2026-08-30T23:00']);
    expect(shown.clashes).toEqual(['“Drafts due” (Thu 10 Sept 2026, 02:00 EEST) falls on “Founders’ day”.']);
  });

  it('goes to another course of the same instructor without what belongs to the first', async () => {
    const id = await publishedExchange(world);
    const { id: other } = await world.do(INES, 'post', '/courses', { title: 'Tidal ecology', timeZone: 'UTC' });
    const { id: copy } = await world.do(INES, 'post', `/courses/${other}/exchanges/copies`, ask(id, { shift: 'none' }));
    expect(await plan(copy)).toMatchObject({
      groupSetId: null,
      takesPart: { kind: 'everyone' },
      dates: { draftsDue: null },
    });
    expect((await world.as(ANN, 'post', `/courses/${other}/exchanges/copies`, ask(id))).status).toBe(404);
  });

  it('is graded as its source is: weights, what becomes of them, and the forms by which staff mark', async () => {
    const gradeParts = [{ part: 'reviews-done' as const, weight: 3 }];
    const id = await publishedExchange(world, { gradeParts });
    const grades = (exchangeId: string) => world.do<GradesView>(INES, 'get', `/exchanges/${exchangeId}/grades`);
    const { rule, revision, reviewingForm } = await grades(id);
    const scale = { kind: 'points', of: 12 } as const;
    const parts = Object.entries(rule.parts).map(([part, one]) => ({ part, ...one }));
    const request = { ...rule, parts, revision, gradeParts, scale };
    await world.do(INES, 'put', `/exchanges/${id}/grades/rule`, request);
    const library = '/courses/course/library';
    const kept = { kind: 'form', title: 'Of the staff', exchangeId: id };
    const { id: draftFormId } = await world.do(INES, 'post', library, kept);
    await world.do(INES, 'put', `/exchanges/${id}/grades/forms`, { draftFormId, each: true });
    const { draftForm } = await grades(id);
    const { id: copy } = await world.do(INES, 'post', '/courses/course/exchanges/copies', ask(id));
    const made = await grades(copy);
    expect([made.rule.scale, made.reviewingForm, made.reviewingEach]).toEqual([scale, reviewingForm, true]);
    expect(draftForm).not.toBeNull();
    expect(made.draftForm).toEqual(draftForm);
    expect((await plan(copy)).gradeParts).toEqual(gradeParts);
  });

  it('comes from a template as well', async () => {
    const id = await publishedExchange(world, { reviewsPerStudent: 2 });
    const { id: template } = await world.do(INES, 'post', '/courses/course/library', {
      kind: 'template',
      title: 'Report round',
      exchangeId: id,
    });
    const { id: copy } = await world.do(
      INES,
      'post',
      '/courses/course/exchanges/copies',
      ask(template, { from: 'template' }),
    );
    expect(await plan(copy)).toMatchObject({ reviewsPerStudent: 2, title: 'Again' });
  });
});
