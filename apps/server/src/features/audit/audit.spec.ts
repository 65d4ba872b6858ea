import type { AuditRow } from '@salt-circle/contracts';
import { Enrolment } from '../../model/course.js';
import { Participant } from '../../model/exchange.js';
import { leaveNote, reviewedExchange, submitFilled } from '../../testing/acts.js';
import { ANN, BEN, INES, PEOPLE, TOM } from '../../testing/people.js';
import { World } from '../../testing/world.js';

let world: World;
let id = '';
let byAnn = '';
beforeEach(async () => {
  world = await World.open();
  ({ id, byAnn } = await reviewedExchange(world));
});
afterEach(() => world.close());

const log = () => world.do<AuditRow[]>(INES, 'get', `/exchanges/${id}/activity`);
const nameOf = (who: number) => PEOPLE[who]?.name ?? '';

describe('the audit log', () => {
  it('says who did what to whom, from what to what, and why', async () => {
    const ann = await world.database.read.findOneByOrFail(Participant, {
      exchangeId: id,
      personId: PEOPLE[ANN]?.id ?? '',
    });
    const parts = { gradeParts: [{ part: 'handing-in', weight: 100 }], tell: false };
    await world.do(INES, 'put', `/exchanges/${id}/rules`, parts);
    const override = { part: '', value: 80, reason: 'Recount' };
    await world.do(INES, 'put', `/exchanges/${id}/grades/${ann.id}/override`, override);
    await world.do(INES, 'put', `/exchanges/${id}/grades/${ann.id}/override`, { ...override, value: 70 });
    const { id: studentId } = await world.database.read.findOneByOrFail(Enrolment, { name: nameOf(BEN) });
    const none = { draftsDue: null, reviewsDue: null, repliesDue: null, revisionDue: null, reason: '' };
    await world.do(INES, 'put', `/exchanges/${id}/personal-dates`, {
      ...none,
      studentId,
      excused: true,
      reason: 'At sea',
    });
    await leaveNote(world, ANN, byAnn);
    await submitFilled(world, ANN, byAnn);
    const rows = await log();
    const overrides = rows.filter(({ action }) => action === 'grade-overridden');
    expect(overrides).toMatchObject([
      {
        ...{ actor: nameOf(INES), about: [nameOf(ANN)], reason: 'Recount' },
        grade: { part: 'whole', from: 0.8, to: 0.7 },
      },
      { grade: { part: 'whole', from: 1, to: 0.8 } },
    ]);
    expect(rows.find(({ action }) => action === 'own-times-set')).toMatchObject({
      ...{ about: [nameOf(BEN)], reason: 'At sea' },
    });
    expect(rows.find(({ action }) => action === 'review-submitted')).toMatchObject({
      ...{ actor: nameOf(ANN), about: [nameOf(ANN), nameOf(BEN)], reason: null },
    });
    expect(rows.map((row) => row.id)).toEqual(rows.map((row) => row.id).sort((a, b) => b - a));
  });

  it('tells moved dates with what they were, in a file as well, and nothing that was written in confidence', async () => {
    const before = await world.do<{ dates: Record<string, string | null> }>(INES, 'get', `/exchanges/${id}/plan`);
    const later = new Date(Date.parse(before.dates['reviewsDue'] ?? '') + 3_600_000).toISOString();
    const dates = { ...before.dates, reviewsDue: later };
    await world.do(INES, 'put', `/exchanges/${id}/dates`, { dates, tell: true });
    await leaveNote(world, ANN, byAnn);
    await submitFilled(world, ANN, byAnn);
    await world.do(ANN, 'post', `/reviews/${byAnn}/look-requests`, { noteId: null, words: 'This is a secret worry.' });
    const row = (await log()).find(({ action }) => action === 'dates-changed');
    expect(row?.moved).toEqual([{ date: 'reviewsDue', from: before.dates['reviewsDue'], to: later }]);
    const { text } = await world.as(TOM, 'get', `/exchanges/${id}/activity.csv`);
    expect(text).toContain(`reviewsDue: ${before.dates['reviewsDue']} → ${later}`);
    expect(text).not.toContain('secret worry');
    expect((await world.as(ANN, 'get', `/exchanges/${id}/activity.csv`)).status).toBe(403);
  });

  it('reads what earlier versions wrote', async () => {
    const old = (action: string, details: object) =>
      world.database.write((manager) =>
        manager.query(`INSERT INTO audit_entry (at, actorId, action, exchangeId, details) VALUES (1, NULL, ?, ?, ?)`, [
          ...[action, id, JSON.stringify(details)],
        ]),
      );
    const at = '2026-03-20T12:00:00.000Z';
    await old('dates-changed', { release: at, 'was.release': null, tell: true });
    await old('plan-changed', { changed: 'title, names' });
    await old('grade-overridden', { participant: 'gone', part: 'whole', value: 50, reason: 'Recount' });
    expect((await log()).slice(0, 3)).toMatchObject([
      { grade: { part: 'whole', from: null, to: 0.5 }, reason: 'Recount', about: [] },
      { changed: ['title', 'names'] },
      { actor: 'Salt Circle', moved: [{ date: 'release', from: null, to: at }] },
    ]);
  });
});
