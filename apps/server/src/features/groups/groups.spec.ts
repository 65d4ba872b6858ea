import type { GroupImportPreview, GroupSetView, GroupsView, PeopleView, PlanView } from '@salt-circle/contracts';
import { allocateAll, handIn, submitFilled } from '../../testing/acts.js';
import { ANN, BEN, CHO, INES, type TestPerson, PEOPLE } from '../../testing/people.js';
import { AT, FORM, PLAN } from '../../testing/plan.js';
import { World } from '../../testing/world.js';

const MORE: TestPerson[] = ['Dee', 'Eli', 'Fay'].map((name, index) => ({
  id: `p-${name.toLowerCase()}`,
  name: `${name} New`,
  email: `${name.toLowerCase()}@example.org`,
  campusId: `n-${index}`,
  role: 'student' as const,
}));
const [DEE, ELI, FAY] = [6, 7, 8];

let world: World;
beforeEach(async () => {
  world = await World.open({}, [...PEOPLE, ...MORE]);
});
afterEach(() => world.close());

const SETS = '/courses/course/group-sets';
const list = () => world.do<GroupsView>(INES, 'get', SETS);
const only = async () => (await list()).sets[0] as GroupSetView;
const sizes = ({ groups }: GroupSetView) => groups.map(({ members }) => members.length);
const divided = async (number: number) => {
  const { id } = await world.do(INES, 'post', SETS, { title: 'Teams' });
  await world.do(INES, 'post', `${SETS}/${id}/division`, { by: 'size', number, mixedBy: 'nothing', seed: 3 });
  return id;
};
const planned = async (part: Partial<typeof PLAN>) => {
  const { id } = await world.do(INES, 'post', '/courses/course/exchanges', { title: 'Field report' });
  await world.do(INES, 'put', `/exchanges/${id}/plan`, { ...PLAN, ...part, revision: 1 });
  await world.do(INES, 'put', `/exchanges/${id}/form`, { ...FORM, revision: 1 });
  return id;
};
const publish = (id: string) => world.as(INES, 'post', `/exchanges/${id}/publish`);
const allocated = async (id: string) => {
  world.clock.goTo(AT.drafting);
  for (const one of [ANN, BEN, CHO, DEE, ELI, FAY]) await handIn(world, one, id);
  const { pairs, reviewers, drafts } = await allocateAll(world, id, { seed: 4 });
  const reviewerOf = new Map(reviewers.map((one) => [one.id, one.label.name]));
  const authorOf = new Map(drafts.map((one) => [one.id, one.author.name]));
  return pairs.map(({ reviewerId, draftId }) => [reviewerOf.get(reviewerId), authorOf.get(draftId)] as const);
};

describe('group sets', () => {
  it('are divided evenly, and members moved one by one', async () => {
    const id = await divided(3);
    const set = await only();
    expect(sizes(set)).toEqual([3, 3]);
    const [first, second] = set.groups as [GroupSetView['groups'][number], GroupSetView['groups'][number]];
    const one = { id: first.members[0]?.id ?? '' };
    await world.do(INES, 'put', `${SETS}/${id}/members/${one.id}`, { groupId: second.id, confirmed: false });
    expect(sizes(await only())).toEqual([2, 4]);
    await world.do(INES, 'put', `${SETS}/${id}/members/${one.id}`, { groupId: null, confirmed: false });
    expect((await only()).ungrouped.map(({ id: enrolment }) => enrolment)).toEqual([one.id]);
    expect((await world.as(INES, 'delete', `${SETS}/${id}/groups/${first.id}`)).body.fields[0].code).toBe(
      'group-not-empty',
    );
  });

  it('are read from a file, all of it or nothing', async () => {
    const { id } = await world.do(INES, 'post', SETS, { title: 'Teams' });
    const ask = (text: string, apply: boolean) =>
      world.do<GroupImportPreview>(INES, 'post', `${SETS}/${id}/import`, { text, base64: null, apply });
    const wrong = await ask('Group,Email\nHerons,ann@example.org\nHerons,who@example.org', true);
    expect(wrong).toMatchObject({ applied: false, problems: [{ row: 3 }] });
    expect((await only()).groups).toEqual([]);
    const right = await ask('Group;ID\nHerons;c-1\nherons;c-2\nKnots;n-0', true);
    expect(right).toMatchObject({
      applied: true,
      groups: [{ title: 'Herons', members: ['Ann Mensah', 'Ben Kiss'] }, { title: 'Knots' }],
    });
    expect(sizes(await only())).toEqual([2, 1]);
  });

  it('in use stay, and titles are told apart', async () => {
    const id = await divided(3);
    await planned({ whom: 'own-group', groupSetId: id });
    expect((await world.as(INES, 'delete', `${SETS}/${id}`)).body.sentence).toContain(
      '“Field report” goes by these groups',
    );
    expect((await world.as(INES, 'post', SETS, { title: ' Teams ' })).body.fields[0].code).toBe('title-taken');
  });
});

describe('groups that have written drafts together', () => {
  it('stay, even after their exchange: removed or divided anew, their drafts would have no authors', async () => {
    const setId = await divided(3);
    const id = await planned({ handInAs: 'group', whom: 'anyone', groupSetId: setId, reviewsPerStudent: 1 });
    expect((await publish(id)).status).toBe(200);
    world.clock.goTo(AT.drafting);
    await handIn(world, ANN, id);
    const before = await only();
    world.clock.goTo(AT.closed);
    const again = await world.as(INES, 'post', `${SETS}/${setId}/division`, {
      by: 'size',
      number: 2,
      mixedBy: 'nothing',
      seed: 4,
    });
    const gone = await world.as(INES, 'delete', `${SETS}/${setId}`);
    expect([again.status, gone.status]).toEqual([409, 409]);
    expect(again.body.sentence).toBe('There are drafts of these groups in “Field report”, so they stay.');
    expect((await only()).groups).toEqual(before.groups);
  });
});

describe('an exchange that goes by groups', () => {
  const together = async (id: string) => {
    const { groups } = await only();
    const groupOf = (name: string | undefined) =>
      groups.find(({ members }) => members.some((one) => one.name === name))?.title;
    const pairs = await allocated(id);
    return pairs.map(([reviewer, author]) => [reviewer === author, groupOf(reviewer) === groupOf(author)]);
  };

  it('stays within the own group, or goes to others only', async () => {
    const setId = await divided(3);
    const within = await planned({ whom: 'own-group', groupSetId: setId, reviewsPerStudent: 2 });
    expect((await publish(within)).status).toBe(200);
    expect(await together(within)).toEqual(Array(12).fill([false, true]));
    world.clock.goTo(Date.UTC(2026, 2, 1));
    const across = await planned({ whom: 'other-groups', groupSetId: setId, reviewsPerStudent: 2 });
    await publish(across);
    expect(await together(across)).toEqual(Array(12).fill([false, false]));
  });

  // Common practice: in a group of three each reviews the two others.
  it('gives partners each other, and a self-review where it is asked for', async () => {
    const setId = await divided(3);
    const id = await planned({ whom: 'partners', groupSetId: setId, reviewsPerStudent: 1, selfReview: 'first' });
    expect((await publish(id)).status).toBe(200);
    const pairs = await together(id);
    expect(pairs.filter(([self]) => self)).toHaveLength(6);
    expect(pairs.filter(([self, same]) => !self && same)).toHaveLength(12);
  });

  it('meets another group’s draft in the next exchange, and nobody of the own', async () => {
    const setId = await divided(2);
    const asGroups = { handInAs: 'group' as const, groupSetId: setId, reviewsPerStudent: 1 };
    const { groups } = await only();
    const mates = (id: string) => groups.find((group) => group.members.some((one) => one.id === id))?.title;
    const round = async () => {
      world.clock.goTo(Date.UTC(2026, 2, 1));
      const id = await planned(asGroups);
      await publish(id);
      world.clock.goTo(AT.drafting);
      // One of each group hands in for all of it.
      for (const { members } of groups) {
        const person = world.people.findIndex(({ name }) => name === members[0]?.name);
        await handIn(world, person, id);
      }
      const view = await allocateAll(world, id, { seed: 4 });
      const nameOf = new Map(view.reviewers.map((one) => [one.id, one.label.name]));
      const groupOf = new Map(view.drafts.map((one) => [one.id, one.author.name]));
      return { view, met: view.pairs.map((one) => `${nameOf.get(one.reviewerId)} ${groupOf.get(one.draftId)}`) };
    };
    const first = await round();
    const second = await round();
    expect([first.met.length, second.met.length]).toEqual([6, 6]);
    // Of two other groups, each has met one by now: the other one is left.
    expect(second.met.filter((one) => first.met.includes(one))).toEqual([]);
    expect(second.view.earlier).toHaveLength(6);
    for (const met of [...first.met, ...second.met]) {
      const person = groups.flatMap(({ members }) => members).find(({ name }) => met.startsWith(name));
      expect(met.endsWith(mates(person?.id ?? '') ?? '')).toBe(false);
    }
  });

  it('opens the drafts of others after the self-review', async () => {
    const setId = await divided(3);
    const id = await planned({ whom: 'partners', groupSetId: setId, selfReview: 'first' });
    await publish(id);
    await allocated(id);
    world.clock.goTo(AT.reviewing);
    const mine = await world.do<Array<{ id: string; self: boolean; waits: boolean }>>(
      ANN,
      'get',
      `/exchanges/${id}/reviews`,
    );
    expect(mine.map(({ self, waits }) => [self, waits])).toEqual([
      [true, false],
      [false, true],
      [false, true],
    ]);
    expect((await world.as(ANN, 'get', `/reviews/${mine[1]?.id}`)).body.code).toBe('self-review-first');
    const answers = `/reviews/${mine[0]?.id}/answers`;
    await world.do(ANN, 'put', `${answers}/evidence`, { revision: 0, levelId: 'high' });
    await world.do(ANN, 'put', `${answers}/first`, { revision: 0, text: 'Say how large the site is.' });
    await world.do(ANN, 'post', `/reviews/${mine[0]?.id}/submit`);
    expect((await world.as(ANN, 'get', `/reviews/${mine[1]?.id}`)).status).toBe(200);
  });

  it('opens the own draft after those of the others, where it comes last', async () => {
    const setId = await divided(3);
    const id = await planned({ whom: 'partners', groupSetId: setId, selfReview: 'after' });
    await publish(id);
    await allocated(id);
    world.clock.goTo(AT.reviewing);
    const list = () =>
      world.do<Array<{ id: string; self: boolean; waits: boolean }>>(ANN, 'get', `/exchanges/${id}/reviews`);
    const mine = await list();
    expect(mine.map(({ self, waits }) => [self, waits])).toEqual([
      [false, false],
      [false, false],
      [true, true],
    ]);
    expect((await world.as(ANN, 'get', `/reviews/${mine[2]?.id}`)).body.code).toBe('self-review-last');
    // Who runs the course is told whom it would leave alone to drop somebody.
    const { people } = await world.do<PeopleView>(INES, 'get', '/courses/course/people');
    const ann = people.find(({ email }) => email === 'ann@example.org');
    expect(ann?.partnerOf).toEqual([expect.stringMatching(/^Partner of .+ and .+ in “.+”\.$/)]);
    expect(people.find(({ role }) => role === 'instructor')?.partnerOf).toEqual([]);
    for (const { id: review } of mine.slice(0, 2)) {
      await submitFilled(world, ANN, review);
    }
    expect((await list()).map(({ waits }) => waits)).toEqual([false, false, false]);
    expect((await world.as(ANN, 'get', `/reviews/${mine[2]?.id}`)).status).toBe(200);
  });

  it('says what contradicts itself, by name', async () => {
    const id = await divided(3);
    const { groups } = await only();
    const [first, second] = groups as [GroupSetView['groups'][number], GroupSetView['groups'][number]];
    for (const { id: member } of first.members.slice(1)) {
      await world.do(INES, 'put', `${SETS}/${id}/members/${member}`, { groupId: second.id, confirmed: false });
    }
    const exchange = await planned({ whom: 'own-group', groupSetId: id });
    const { missing } = await world.do<PlanView>(INES, 'get', `/exchanges/${exchange}/plan`);
    expect(missing.map(({ sentence }) => sentence)).toEqual([
      `“${first.title}” has only one member, who would have nobody to review. Move somebody there under Groups, or dissolve it.`,
    ]);
    expect((await publish(exchange)).status).toBe(422);
  });

  it('says what follows before somebody is moved while it runs', async () => {
    const setId = await divided(3);
    const id = await planned({ whom: 'own-group', groupSetId: setId, reviewsPerStudent: 2 });
    await publish(id);
    await allocated(id);
    const { groups } = await only();
    const one = groups[0]?.members[0]?.id ?? '';
    const move = (confirmed: boolean) =>
      world.as(INES, 'put', `${SETS}/${setId}/members/${one}`, { groupId: groups[1]?.id, confirmed });
    const asked = await move(false);
    expect([asked.status, asked.body.code]).toEqual([409, 'needs-confirming']);
    expect(asked.body.fields[0].sentence).toContain('2 reviews to write (0 begun) and 2 reviews to get stay');
    expect(sizes(await only())).toEqual([3, 3]);
    expect((await move(true)).status).toBe(204);
    expect(sizes(await only())).toEqual([2, 4]);
    expect(
      (
        await world.as(INES, 'post', `${SETS}/${setId}/division`, {
          by: 'size',
          number: 2,
          mixedBy: 'nothing',
          seed: 1,
        })
      ).status,
    ).toBe(409);
  });
});
