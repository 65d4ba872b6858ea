import { performance } from 'node:perf_hooks';
import { at } from '../scripts/run.mjs';

const { allocate, repair, seededRandom } = await import(at('packages', 'core', 'dist', 'index.js'));

const id = (index) => `p${String(index).padStart(5, '0')}`;

/** So many people with three reviews each; one percent of all pairs ruled out, and one earlier exchange to avoid. */
function course(people, seed) {
  const random = seededRandom(seed);
  const draw = () => Math.floor(random() * people);
  const plain = {
    reviewers: Array.from({ length: people }, (_, index) => ({ id: id(index), capacity: 3 })),
    drafts: Array.from({ length: people }, (_, index) => ({ id: `d${id(index)}`, authorIds: [id(index)] })),
    scope: 'anyone',
    fixed: [],
    forbidden: [],
    earlier: [],
    seed,
  };
  const apart = new Set();
  while (apart.size < people * people * 0.01) apart.add(draw() * people + draw());
  return {
    ...plain,
    forbidden: [...apart].map((key) => ({
      reviewerId: id(Math.floor(key / people)),
      draftId: `d${id(key % people)}`,
    })),
    earlier: allocate(plain).pairs.map((pair) => ({ ...pair, times: 1 })),
    seed: seed + 1,
  };
}

/** As long as the steps of the solver alone take; reading the problem in is told of apart. */
function timedSteps(work) {
  const begun = performance.now();
  let first = null;
  const result = work(() => (first ??= performance.now()));
  const end = performance.now();
  return { result, reading: (first ?? end) - begun, solving: end - (first ?? end), all: end - begun };
}

const medianOf = (runs, key) => runs.map((run) => run[key]).toSorted((a, b) => a - b)[Math.floor(runs.length / 2)];
const repeated = (times, work) => Array.from({ length: times }, () => timedSteps(work));

/** The same as a linear program, for HiGHS: place all, evenly, with the fewest repeats. */
function program({ reviewers, drafts, forbidden, earlier }) {
  const apart = new Set(forbidden.map(({ reviewerId, draftId }) => `${reviewerId} ${draftId}`));
  const met = new Map(earlier.map(({ reviewerId, draftId, times }) => [`${reviewerId} ${draftId}`, times]));
  const pairs = reviewers.flatMap((reviewer) =>
    drafts
      .filter((draft) => !draft.authorIds.includes(reviewer.id) && !apart.has(`${reviewer.id} ${draft.id}`))
      .map((draft) => [reviewer.id, draft.id]),
  );
  const name = ([reviewer, draft]) => `x_${reviewer}_${draft}`;
  const sum = (list) =>
    list
      .map(name)
      .join(' + ')
      .replace(/(.{400}\S*) /g, '$1\n ');
  const groups = (index) => {
    const lists = new Map();
    for (const pair of pairs) {
      const list = lists.get(pair[index]);
      if (list === undefined) lists.set(pair[index], [pair]);
      else list.push(pair);
    }
    return lists;
  };
  const costly = pairs.filter(([reviewer, draft]) => met.has(`${reviewer} ${draft}`));
  return [
    'Minimize',
    ` obj: ${sum(costly)}`,
    'Subject To',
    ...[...groups(0).values()].map((list, at) => ` r${at}: ${sum(list)} = 3`),
    ...[...groups(1).values()].map((list, at) => ` d${at}: ${sum(list)} = 3`),
    'Bounds',
    ...pairs.map((pair) => ` 0 <= ${name(pair)} <= 1`),
    'End',
  ].join('\n');
}

async function besideHighs(line, round) {
  const { default: load } = await import('highs');
  for (const people of [24, 100, 200]) {
    const problem = course(people, 7);
    const own = medianOf(
      repeated(9, (watch) => allocate(problem, watch)),
      'all',
    );
    const model = program(problem);
    const times = [];
    for (let run = 0; run < 3; run += 1) {
      const highs = await load();
      const begun = performance.now();
      const { Status, ObjectiveValue } = highs.solve(model);
      times.push(performance.now() - begun);
      if (Status !== 'Optimal' || Math.round(ObjectiveValue) !== allocate(problem).quality.repeats.reached) {
        throw new Error('the two do not agree');
      }
    }
    const theirs = times.toSorted((a, b) => a - b)[1];
    line(
      `HiGHS, ${people} people, as a multiple of allocate()`,
      round(theirs / own, 0),
      `${round(theirs, 0)} ms against ${round(own, 1)} ms; the model is given ready-made`,
    );
  }
}

export async function allocationFigures(line, round) {
  process.stdout.write('\nallocate(), 3 reviews each, 1 % of pairs ruled out, one earlier exchange\n');
  await besideHighs(line, round);
  let small = null;
  for (const people of [100, 1000, 10_000]) {
    const problem = course(people, 5);
    global.gc?.();
    const before = process.memoryUsage().heapUsed;
    const runs = repeated(people === 10_000 ? 3 : 9, (watch) => allocate(problem, watch));
    const memory = process.memoryUsage().heapUsed - before;
    const { quality } = runs[0].result;
    const solving = medianOf(runs, 'solving');
    const reading = medianOf(runs, 'reading');
    small ??= solving;
    line(
      `${people} people, as a multiple of 100 people`,
      round(solving / small, 0),
      `${round(solving, 0)} ms, and ${round(reading, 0)} ms to read ${problem.forbidden.length} pairs ruled out`,
    );
    line(
      '  every draft, repeats, pairs who review each other',
      `${quality.balance.fewest} to ${quality.balance.most}`,
      `${quality.repeats.reached} repeats, ${quality.mutual.reached} mutual; about ${round(memory / 1e6, 0)} MB`,
    );
    if (people !== 10_000) continue;
    const current = runs[0].result.pairs;
    const late = { reviewers: [{ id: 'late', capacity: 3 }], drafts: [{ id: 'd-late', authorIds: ['late'] }] };
    const mended = repeated(3, (watch) => repair(problem, current, late, watch));
    line(
      'repair of one late hand-in, against allocating anew',
      round(medianOf(mended, 'solving') / solving, 1),
      `${mended[0].result.removed.length} pairs moved, ${mended[0].result.added.length} made, of ${current.length}`,
    );
    const strong = {
      ...problem,
      reviewers: problem.reviewers.map((one, index) => ({ ...one, strength: ((index * 7919) % 1000) / 1000 })),
    };
    const mixed = repeated(1, (watch) => allocate(strong, watch))[0];
    const { weakest, bound } = mixed.result.quality.mix;
    line(
      'with strengths mixed, against without',
      round(mixed.solving / solving, 1),
      `weakest set ${round(weakest, 2)} of at most ${round(bound, 2)}`,
    );
  }
  groupFigures(line, round);
}

/** A course in groups; `sizeOf` says how large each is, in turn, and the last of them is repeated. */
function grouped(people, scope, sizes, met) {
  const groups = [];
  for (let at = 0; groups.length < people; at += 1) {
    const size = sizes[Math.min(at, sizes.length - 1)];
    for (let one = 0; one < size && groups.length < people; one += 1) groups.push(`g${String(at).padStart(5, '0')}`);
  }
  const problem = {
    reviewers: groups.map((groupId, index) => ({ id: id(index), capacity: 3, groupId })),
    drafts: groups.map((groupId, index) => ({ id: `d${id(index)}`, authorIds: [id(index)], groupId })),
    scope,
    fixed: [],
    forbidden: [],
    earlier: [],
    seed: 3,
  };
  if (!met) return problem;
  const earlier = groups.flatMap((groupId, reviewer) =>
    groups.flatMap((other, draft) =>
      other === groupId && draft !== reviewer
        ? [{ reviewerId: id(reviewer), draftId: `d${id(draft)}`, times: 1 + ((reviewer + draft) % 3) }]
        : [],
    ),
  );
  return { ...problem, earlier };
}

/** Where it was slowest: small groups that have all met, and one group that most people are in. */
function groupFigures(line, round) {
  const kinds = [
    ['own groups of 6 who have all met', (people) => grouped(people, 'same-group', [6], true)],
    ['other groups, 60 % in one of them', (people) => grouped(people, 'other-groups', [people * 0.6, 20], false)],
  ];
  for (const [words, problemOf] of kinds) {
    const [few, many] = [600, 6000].map((people) => {
      const problem = problemOf(people);
      return medianOf(
        repeated(3, (watch) => allocate(problem, watch)),
        'all',
      );
    });
    line(`${words}: 6000 people against 600`, round(many / few, 0), `${round(many, 0)} ms against ${round(few, 0)} ms`);
  }
}
