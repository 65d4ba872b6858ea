import type { AllocationView } from '@salt-circle/contracts';
import { Eight, EIGHT, keys } from '../../testing/eight.js';
import { allocateAll, submitFilled } from '../../testing/acts.js';
import { ANN, BEN, CHO, INES } from '../../testing/people.js';
import { AT, DATES, DAY } from '../../testing/plan.js';
import { PreviewsService } from './previews.service.js';

let on: Eight;
beforeEach(async () => {
  on = await Eight.open();
});
afterEach(() => on.world.close());

describe('planned runs', () => {
  const plan = async (part: object) => {
    const { revision, wishes } = await on.look();
    const { avoid: _avoid, ...rest } = wishes;
    return on.world.as(INES, 'put', `${on.path}/plan`, {
      revision,
      wishes: { ...rest, avoid: null },
      schedule: 'command',
      at: null,
      party: 3,
      patience: 2,
      ...part,
    });
  };

  it('allocates when drafts are due: once, and late if the server was down', async () => {
    await on.begin();
    expect((await plan({ schedule: 'at-due' })).status).toBe(200);
    expect((await on.look()).schedule).toMatchObject({ kind: 'at-due', next: DATES.draftsDue });
    await on.handedInBy(EIGHT);
    await on.runs();
    expect((await on.look()).applied).toBe(false);
    // Nobody looked for a day and a half.
    on.world.clock.goTo(Date.parse(DATES.draftsDue ?? '') + 1.5 * DAY);
    await on.runs();
    const after = await on.look();
    expect(after).toMatchObject({ applied: true, kept: null, schedule: { next: null, last: { outcome: 'applied' } } });
    const record = await on.world.do<Array<{ action: string; actor: string }>>(
      INES,
      'get',
      `/exchanges/${on.id}/activity`,
    );
    expect(record.find(({ action }) => action === 'allocation-applied')?.actor).toBe('Salt Circle');
    await on.undo();
    await on.runs();
    expect((await on.look()).applied).toBe(false);
  });

  it('works around pairs that were made by hand beforehand', async () => {
    await on.begin();
    await plan({ schedule: 'at-due' });
    await on.handedInBy(EIGHT);
    const pair = on.idsIn(await on.look()).pair(ANN, BEN);
    await on.world.do(INES, 'post', `${on.path}/acts`, { add: [pair] });
    on.world.clock.goTo(AT.afterDue);
    await on.runs();
    const after = await on.look();
    expect(after.schedule.last?.outcome).toBe('applied');
    expect(after.pairs).toHaveLength(16);
    expect(after.pairs.find((one) => keys([one])[0] === keys([pair])[0])?.locked).toBe(true);
  });

  it('does not make up for what was planned before it was planned', async () => {
    await on.begin();
    await on.handedInBy(EIGHT);
    on.world.clock.goTo(AT.afterDue);
    const late = await plan({ schedule: 'at-due' });
    expect([late.status, late.body.fields[0].sentence]).toEqual([422, expect.stringContaining('been due already')]);
    const past = new Date(AT.afterDue - 1).toISOString();
    expect((await plan({ schedule: 'at', at: past })).body.fields[0].path).toBe('at');
    await on.runs();
    expect((await on.look()).applied).toBe(false);
  });

  it('applies what pairs made by hand leave short or uneven, and says that they are the cause', async () => {
    await on.begin();
    await plan({ schedule: 'at-due' });
    await on.handedInBy(EIGHT);
    const ids = on.idsIn(await on.look());
    const byHand = [BEN, CHO, 6, 7].map((person) => ids.pair(person, ANN));
    await on.world.do(INES, 'post', `${on.path}/acts`, { add: byHand });
    on.world.clock.goTo(AT.afterDue);
    await on.runs();
    const after = await on.look();
    expect([after.schedule.last?.outcome, after.pairs.length, after.kept]).toEqual(['around', 16, null]);
    const [letter] = await on.lettersTo(INES, 'around your pairs');
    expect(letter?.text).toContain('because of them, some drafts get more reviews than others');
  });

  it('applies nothing when not everybody can be placed: it keeps the preview and tells', async () => {
    await on.begin();
    const { wishes } = await on.look();
    const at = new Date(AT.afterDue).toISOString();
    await plan({ schedule: 'at', at, wishes: { ...wishes, avoid: null, maxPerDraft: 1 } });
    await on.handedInBy(EIGHT);
    on.world.clock.goTo(AT.afterDue + 1000);
    await on.runs();
    const after = await on.look();
    expect(after).toMatchObject({
      applied: false,
      schedule: { last: { outcome: 'kept' } },
      kept: { scheduled: true, quality: { placed: { asked: 16, reached: 8 } } },
    });
    expect(await on.todayOf(INES)).toContain('look-at-allocation');
    expect(await on.lettersTo(INES, 'have not been allocated')).toHaveLength(1);
    await on.runs();
    expect(await on.lettersTo(INES, 'have not been allocated')).toHaveLength(1);
    // It can still be applied as it is.
    const applied = await on.world.do<AllocationView>(INES, 'post', on.path, { previewId: after.kept?.id });
    expect([applied.pairs.length, applied.kept]).toEqual([8, null]);
  });

  it('tells when there is too little to allocate, and leaves what somebody did by hand', async () => {
    await on.begin();
    await plan({ schedule: 'at-due' });
    await on.handedInBy([ANN]);
    on.world.clock.goTo(AT.afterDue);
    await on.runs();
    expect((await on.look()).schedule.last?.outcome).toBe('too-few-drafts');
    await on.begin();
    await plan({ schedule: 'at-due' });
    await on.handedInBy(EIGHT);
    const mine = await allocateAll(on.world, on.id);
    on.world.clock.goTo(AT.afterDue);
    await on.runs();
    const after = await on.look();
    expect(after.schedule.last?.outcome).toBe('nothing-to-do');
    expect(keys(after.pairs)).toEqual(keys(mine.pairs));
  });

  it('goes on night by night: who waits is paired, reviewing opens at once, and nobody is paired twice', async () => {
    await on.begin();
    await plan({ schedule: 'nightly' });
    await on.handedInBy([ANN, BEN]);
    on.world.clock.goTo(AT.drafting + DAY);
    await on.runs();
    expect((await on.look()).pairs).toEqual([]);
    await on.handedInBy([CHO]);
    on.world.clock.goTo(AT.drafting + 2 * DAY);
    await on.runs();
    const first = await on.look();
    expect(first.pairs).toHaveLength(6);
    // Drafts are still open, and reviewing is as well.
    expect(await on.todayOf(ANN)).toContain('write-review');
    expect(await on.lettersTo(ANN)).toHaveLength(1);
    const [card] = await on.world.do<Array<{ id: string }>>(ANN, 'get', `/exchanges/${on.id}/reviews`);
    await submitFilled(on.world, ANN, card?.id ?? '');
    await on.handedInBy([6]);
    on.world.clock.goTo(AT.drafting + 3 * DAY);
    await on.runs();
    expect((await on.look()).pairs).toHaveLength(6);
    on.world.clock.goTo(AT.drafting + 5 * DAY);
    await on.runs();
    // After two nights nobody waits for company any longer: earlier drafts are taken up again.
    const later = await on.look();
    expect(later.pairs).toHaveLength(8);
    expect(later.suggestion).toBeNull();
    const early = await plan({ schedule: 'command' });
    expect([early.status, early.body.code]).toEqual([409, 'plan-fixed']);
  });

  it('go on in one exchange when they cannot in another', async () => {
    await on.begin();
    await plan({ schedule: 'at-due' });
    await on.handedInBy(EIGHT);
    const broken = on.id;
    await on.begin();
    await plan({ schedule: 'at-due' });
    await on.handedInBy(EIGHT);
    const compute = jest.spyOn(on.world.app.get(PreviewsService), 'compute');
    const original = PreviewsService.prototype.compute.bind(on.world.app.get(PreviewsService));
    compute.mockImplementation((question, ...rest) =>
      question.exchange.id === broken ? Promise.reject(new Error('no thread')) : original(question, ...rest),
    );
    on.world.clock.goTo(AT.afterDue);
    await on.runs();
    expect((await on.look()).schedule.last?.outcome).toBe('applied');
    compute.mockRestore();
    await on.runs();
    on.id = broken;
    expect((await on.look()).schedule.last?.outcome).toBe('applied');
  });

  it('in a round that cannot serve everybody, give what there is, and say so once', async () => {
    await on.begin();
    await plan({ schedule: 'nightly', party: 2 });
    await on.handedInBy([ANN, BEN]);
    const night = async (number: number) => {
      on.world.clock.goTo(AT.drafting + number * DAY);
      await on.runs();
      return (await on.look()).schedule.last?.outcome;
    };
    // Two reviews are asked of each, and there is one draft of somebody else.
    expect(await night(1)).toBe('partly');
    expect((await on.look()).pairs).toHaveLength(2);
    const [letter] = await on.lettersTo(INES, 'have been allocated in part');
    expect(letter?.text).toContain('2 of 4 reviews could be placed. That was applied');
    await night(2);
    await night(3);
    expect(await on.lettersTo(INES, 'have been allocated in part')).toHaveLength(1);
    await on.handedInBy([CHO]);
    expect(await night(4)).toBe('applied');
    expect((await on.look()).pairs).toHaveLength(6);
  });

  it('wait for nobody in the last round before reviews are due, and then say who is left over', async () => {
    await on.begin();
    await plan({ schedule: 'nightly', party: 4, patience: 30 });
    await on.handedInBy([ANN, BEN]);
    const due = Date.parse(DATES.reviewsDue ?? '');
    on.world.clock.goTo(due - 2 * DAY);
    await on.runs();
    expect((await on.look()).pairs).toEqual([]);
    on.world.clock.goTo(due - 1);
    await on.runs();
    const after = await on.look();
    expect([after.pairs.length, after.schedule.last?.outcome, after.schedule.next]).toEqual([2, 'left-over', null]);
    expect(after.suggestion?.late).toHaveLength(2);
    const [letter] = await on.lettersTo(INES, 'last round');
    expect(letter?.text).toContain('fewer reviews to write than asked');
  });

  it('refuses a plan on an old revision', async () => {
    await on.begin();
    await plan({ schedule: 'at-due' });
    const stale = await plan({ schedule: 'at-due', revision: 0 });
    expect([stale.status, stale.body.code]).toEqual([409, 'conflict']);
    const without = await plan({ schedule: 'at', at: null });
    expect([without.status, without.body.fields[0].sentence]).toEqual([422, 'Give a date and a time.']);
  });
});
