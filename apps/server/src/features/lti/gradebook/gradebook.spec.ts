import type { GradebookView, GradesView, PeopleView } from '@salt-circle/contracts';
import type { Fault, State } from '@salt-circle/stand-in-platform';
import { LtiScoreRow } from '../../../model/lti.js';
import { Exchange } from '../../../model/exchange.js';
import { AuditEntry } from '../../../model/audit-entry.js';
import { publishedExchange, handIn } from '../../../testing/acts.js';
import { LtiWorld } from '../../../testing/lti.js';
import { ANN, BEN, CHO, INES, PEOPLE, TOM } from '../../../testing/people.js';
import { AT, DAY } from '../../../testing/plan.js';
import { World } from '../../../testing/world.js';
import { Gradebooks } from './gradebooks.service.js';

/** The platform's tenth person, to whom it does what it is told. */
const TENTH = 'u-2008';
const USERS = { 'p-ann': 'u-2001', 'p-ben': 'u-2002', 'p-cho': TENTH };

let world: World;
let at: LtiWorld;
let id: string;

beforeEach(async () => {
  world = await World.open();
  at = await LtiWorld.open(world);
  await at.link('course', USERS);
  id = await publishedExchange(world, {
    gradeParts: [
      { part: 'handing-in', weight: 1 },
      { part: 'reviews-done', weight: 1 },
    ],
  });
  world.clock.goTo(AT.drafting);
  await handIn(world, ANN, id);
  await handIn(world, BEN, id);
  world.clock.goTo(AT.checking);
});
afterEach(async () => {
  await at.platform.stop();
  await world.close();
});

const view = () => world.do<GradebookView>(INES, 'get', `/exchanges/${id}/gradebook`);
const set = (columns: GradebookView['columns'], removeThere = false, who: number = INES) =>
  world.as(who, 'put', `/exchanges/${id}/gradebook`, { columns, removeThere });
const release = () =>
  world.do(INES, 'post', `/exchanges/${id}/grades/release`, { how: 'all', at: null, participantIds: [] });
const idOf = async (who: number) => {
  const { rows } = await world.do<GradesView>(INES, 'get', `/exchanges/${id}/grades`);
  return rows.find(({ person }) => person.name === PEOPLE[who]?.name)?.id ?? '';
};
const give = async (who: number, value: number | null) =>
  world.do(INES, 'put', `/exchanges/${id}/grades/${await idOf(who)}/override`, {
    part: '',
    value,
    reason: 'Talked it over.',
  });
const decide = async (how: 'again' | 'ours' | 'theirs', ...who: number[]) =>
  world.do(INES, 'post', `/exchanges/${id}/gradebook/decisions`, {
    how,
    participantIds: await Promise.all(who.map(idOf)),
  });
const look = () => world.app.get(Gradebooks).look();
const behave = (...faults: Fault[]) => (at.platform.store.state.faults = faults);
const there = (column = 0): State['scores'][string] =>
  at.platform.store.state.scores[at.platform.store.state.columns[column]?.id ?? ''] ?? {};
const given = (column = 0) =>
  Object.fromEntries(Object.entries(there(column)).map(([user, { given: score }]) => [user, score]));
const times = () => Object.values(there()).map((score) => score.times);
const states = async () =>
  Object.fromEntries((await view()).scores.map(({ name, state }) => [name.split(' ')[0], state]));

describe('the gradebook of a platform', () => {
  it('has one column, made when it is wished; grades go there once they are released, and corrections by themselves', async () => {
    expect(await view()).toMatchObject({ platform: 'Northmere', columns: 'off', canMake: true, scores: [] });
    expect((await set('whole')).status).toBe(204);
    expect(at.platform.store.state.columns).toMatchObject([
      { label: 'Field report', scoreMaximum: 100, resourceId: id, tag: 'grade' },
    ]);
    expect(await states()).toEqual({ Ann: 'unreleased', Ben: 'unreleased', Cho: 'unreleased' });
    await look();
    expect(given()).toEqual({});
    await give(ANN, 87.5);
    await release();
    await look();
    expect(given()).toMatchObject({ 'u-2001': 88 });
    expect(there()['u-2001']).toMatchObject({
      grading: 'FullyGraded',
      activity: 'Completed',
      comment: expect.stringContaining(`/exchanges/${id}/grade`) as string,
    });
    expect(await states()).toEqual({ Ann: 'sent', Ben: 'sent', Cho: 'sent' });
    await look();
    await give(ANN, 92);
    await look();
    expect([given()['u-2001'], there()['u-2001']?.times, there()['u-2002']?.times]).toEqual([92, 2, 1]);
    const sent = await world.database.read.findBy(AuditEntry, { action: 'platform-scores-sent' });
    expect(sent.map(({ details }) => details['people'])).toEqual([3, 1]);
  });

  it('is told who is excused, and who has no grade yet, as such', async () => {
    const { people } = await world.do<PeopleView>(INES, 'get', '/courses/course/people');
    const studentId = people.find(({ name }) => name === 'Cho Sato')?.id;
    const none = { groupId: null, draftsDue: null, reviewsDue: null, repliesDue: null, revisionDue: null, reason: '' };
    await world.do(INES, 'put', `/exchanges/${id}/personal-dates`, {
      ...none,
      studentId,
      excused: true,
    });
    await set('whole');
    await release();
    await look();
    expect(there()[TENTH]).toMatchObject({ given: null, grading: 'NotReady', activity: 'Initialized' });
    expect(there()[TENTH]?.comment).toMatch(/^Exempt\./);
    // Of reviewing there is nothing to go by: nobody was given anything to review.
    await set('parts');
    await look();
    expect(there(2)['u-2001']).toMatchObject({ given: null });
    expect(
      (await view()).scores.filter(({ kind }) => kind !== 'graded').map(({ name, part, kind }) => [name, part, kind]),
    ).toEqual([
      ['Ann Mensah', 'reviews-done', 'excused'],
      ['Ben Kiss', 'reviews-done', 'excused'],
      ['Cho Sato', 'handing-in', 'excused'],
      ['Cho Sato', 'reviews-done', 'excused'],
    ]);
  });

  it('is called as the exchange is; its parts can have columns of their own; it goes only when that is asked for', async () => {
    await set('whole');
    const { revision } = await world.do<{ revision: number }>(INES, 'get', `/exchanges/${id}/plan`);
    await world.database.write((manager) =>
      manager.update(Exchange, { id }, { title: 'Second report', revision: revision + 1 }),
    );
    await look();
    expect(at.platform.store.state.columns.map(({ label }) => label)).toEqual(['Second report']);
    await release();
    expect((await set('parts')).status).toBe(204);
    await look();
    expect(at.platform.store.state.columns.map(({ label, tag }) => [label, tag])).toEqual([
      ['Second report', 'grade'],
      ['Second report: handing in', 'handing-in'],
      ['Second report: reviews done', 'reviews-done'],
    ]);
    expect(given(1)).toEqual({ 'u-2001': 100, 'u-2002': 100, [TENTH]: 0 });
    // A part that goes keeps what was there; one that comes waits for somebody to say so.
    await world.do(INES, 'put', `/exchanges/${id}/rules`, {
      gradeParts: [{ part: 'notes-made', weight: 1 }],
      tell: false,
    });
    await look();
    expect((await view()).tidy).toBe(
      'No column yet for “notes made”. No part of the grade any more: “handing in”, “reviews done”. Nothing new is sent there.',
    );
    expect(given(1)).toEqual({ 'u-2001': 100, 'u-2002': 100, [TENTH]: 0 });
    expect((await set('off', true)).status).toBe(204);
    expect(at.platform.store.state.columns.map(({ tag }) => tag)).toEqual(['grade']);
    // What was left there is found again, not made a second time.
    await set('whole');
    await look();
    expect(at.platform.store.state.columns).toHaveLength(1);
    expect(times()).toEqual([1, 1, 1]);
    expect(await states()).toEqual({ Ann: 'sent', Ben: 'sent', Cho: 'sent' });
  });

  it('that is changed at the platform is shown, and written over only when somebody says so', async () => {
    await set('whole');
    await release();
    await give(ANN, 80);
    await look();
    const column = at.platform.store.state.columns[0]?.id ?? '';
    const teacher = at.visitor('u-1001');
    const change = (person: string, value: string) =>
      teacher.go(`${at.platform.url}/gradebook`, { form: { column, person, given: value } });
    await change('u-2001', '55');
    await change('u-2002', '66');
    await world.do(INES, 'post', `/exchanges/${id}/gradebook/send`);
    expect(
      (await view()).scores
        .filter(({ state }) => state === 'changed')
        .map(({ name, ours, theirs }) => [name, ours, theirs]),
    ).toEqual([
      ['Ann Mensah', 80, 55],
      ['Ben Kiss', 100, 66],
    ]);
    // A correction does not write over it either.
    await give(ANN, 85);
    await look();
    expect(given()).toMatchObject({ 'u-2001': 55, 'u-2002': 66 });
    await decide('ours', ANN);
    await decide('theirs', BEN);
    expect(given()).toMatchObject({ 'u-2001': 85, 'u-2002': 66 });
    await world.do(INES, 'post', `/exchanges/${id}/gradebook/send`);
    expect(await states()).toMatchObject({ Ann: 'sent', Ben: 'sent' });
    // Changed there and corrected here in the same while, before anybody compared.
    await change('u-2001', '20');
    await give(ANN, 90);
    await look();
    expect([given()['u-2001'], (await states())['Ann']]).toEqual([20, 'changed']);
  });

  it('that refuses somebody says why in the platform’s words, and others go on', async () => {
    behave('refuse');
    await set('whole');
    await release();
    await look();
    const cho = (await view()).scores.find(({ name }) => name === 'Cho Sato');
    expect(cho).toMatchObject({
      state: 'refused',
      error: 'Northmere refused (422): “The term of this person is closed.”.',
    });
    expect(Object.keys(given()).sort()).toEqual(['u-2001', 'u-2002']);
    behave();
    expect((await view()).counts).toMatchObject({ refused: 1, sent: 2 });
    const refused = await world.do<GradebookView>(INES, 'get', `/exchanges/${id}/gradebook?state=refused`);
    expect(refused.scores.map(({ name }) => name)).toEqual(['Cho Sato']);
    expect((await world.as(INES, 'get', `/exchanges/${id}/gradebook?state=x`)).status).toBe(422);
    // Without a name it is for all whom it concerns.
    await decide('again');
    expect((await states())['Cho']).toBe('sent');
  });

  it.each<Fault>(['shaky', 'lost'])(
    'that fails now and then loses nothing, and has nothing twice: %s',
    async (fault) => {
      behave(fault);
      await set('whole');
      await release();
      await look();
      expect((await states())['Cho']).toBe('waiting');
      world.clock.skip(31_000);
      await look();
      expect(await states()).toEqual({ Ann: 'sent', Ben: 'sent', Cho: 'sent' });
      expect(times()).toEqual([1, 1, 1]);
    },
  );

  it('that goes away in the middle is waited for, and then told the rest, once', async () => {
    await set('parts');
    const { store } = at.platform;
    // After the first column's scores it answers nothing any more.
    const keep = store.keep.bind(store);
    store.keep = () => {
      keep();
      if (Object.keys(there(0)).length === 3) behave('down');
    };
    await release();
    await look();
    const statesOf = async (part: string) =>
      (await view()).scores.filter((one) => one.part === part).map(({ state }) => state);
    expect([await statesOf('handing-in'), await statesOf('reviews-done')]).toEqual([
      ['sent', 'sent', 'sent'],
      ['waiting', 'waiting', 'waiting'],
    ]);
    world.clock.skip(DAY);
    await look();
    expect(await statesOf('reviews-done')).toEqual(['waiting', 'waiting', 'waiting']);
    store.keep = keep;
    behave();
    world.clock.skip(DAY);
    await look();
    expect(await statesOf('reviews-done')).toEqual(['sent', 'sent', 'sent']);
    for (const column of [0, 1]) expect(Object.values(there(column)).map((score) => score.times)).toEqual([1, 1, 1]);
  });

  it('that cannot be reached at all is no failure of anybody’s score', async () => {
    await set('whole');
    await release();
    await at.platform.stop();
    for (let times = 0; times < 8; times += 1) {
      await look();
      world.clock.skip(DAY);
    }
    expect(Object.values(await states())).toEqual(['waiting', 'waiting', 'waiting']);
    const rows = await world.database.read.findBy(LtiScoreRow, { exchangeId: id });
    expect(rows.map(({ tries }) => tries)).toEqual([0, 0, 0]);
  });

  it('that has lost its column says so, and makes it anew when asked', async () => {
    await set('whole');
    at.platform.store.state.columns.splice(0);
    await release();
    await look();
    expect((await view()).scores[0]).toMatchObject({
      state: 'refused',
      error: 'The column is not there any more.',
    });
    await decide('again', ANN, BEN, CHO);
    await look();
    expect(at.platform.store.state.columns).toHaveLength(1);
    expect(await states()).toEqual({ Ann: 'sent', Ben: 'sent', Cho: 'sent' });
  });

  it('is for instructors; students and assistants change nothing, and people from elsewhere are shown as such', async () => {
    expect((await set('whole', false, TOM)).status).toBe(403);
    expect((await set('whole', false, ANN)).status).toBe(403);
    expect((await world.as(ANN, 'get', `/exchanges/${id}/gradebook`)).status).toBe(403);
    await world.do(INES, 'post', '/courses/course/people', {
      ...{
        name: 'Guest Guestson',
        email: 'guest@example.org',
        role: 'student',
        campusId: null,
        section: null,
        invite: false,
      },
    });
    await set('whole');
    expect((await states())['Guest']).toBe('apart');
  });
});
