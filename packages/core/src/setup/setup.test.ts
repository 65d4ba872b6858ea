import {
  checkDeliverables,
  DEFAULT_MEGABYTES,
  isFilled,
  MAX_MEGABYTES,
  missingDeliverables,
  type Deliverable,
  type Filled,
} from './deliverables.js';
import { checkGradeParts } from './gradeParts.js';
import { checkSetup } from './checkSetup.js';
import { eligibleDrafts } from './eligible.js';
import { takesPart, type Setup, type Student } from './setup.js';

const SETUP: Setup = {
  takesPart: { kind: 'everyone' },
  handInAs: 'alone',
  whom: 'anyone',
  groupSetId: null,
  reviewsPerStudent: 2,
  selfReview: 'off',
  ownHandInFirst: true,
  names: 'both-ways',
};
/** Students in groups of these sizes of the set `teams`. */
const inGroups = (...sizes: number[]): Student[] =>
  sizes.flatMap((size, group) =>
    Array.from({ length: size }, (_, index) => ({
      id: `s${group}-${index}`,
      section: index % 2 === 0 ? 'A' : 'B',
      groupIds: { teams: `g${group}` },
    })),
  );
const codes = (part: Partial<Setup>, students: Student[]) =>
  checkSetup({ ...SETUP, ...part }, students).map(({ code, facts }) => [code, facts] as const);

describe('eligibleDrafts', () => {
  const drafts = (part: Partial<Setup>, students: Student[]) =>
    eligibleDrafts({ ...SETUP, ...part }, students).map(({ drafts: count, asked }) => [count, asked]);

  // Common practice: in a group of three each reviews the two others; standing partners review each other.
  it('asks of partners all others of the group', () => {
    expect(drafts({ whom: 'partners', groupSetId: 'teams' }, inGroups(2, 3))).toEqual([
      [1, 1],
      [1, 1],
      [2, 2],
      [2, 2],
      [2, 2],
    ]);
  });

  // The reference: every pair looked at, one by one.
  it('counts as one who looks at each pair does', () => {
    const students = inGroups(1, 2, 3, 5);
    for (const whom of ['anyone', 'own-group', 'other-groups'] as const) {
      const counted = students.map(
        (one) =>
          students.filter((other) => {
            const same = one.groupIds['teams'] === other.groupIds['teams'];
            return other.id !== one.id && (whom === 'anyone' || same === (whom === 'own-group'));
          }).length,
      );
      expect(drafts({ whom, groupSetId: 'teams' }, students).map(([count]) => count)).toEqual(counted);
    }
  });

  it('counts one draft a group, where groups hand in', () => {
    const part = { whom: 'other-groups', handInAs: 'group', groupSetId: 'teams' } as const;
    expect(drafts(part, inGroups(2, 2, 3)).every(([count]) => count === 2)).toBe(true);
  });
});

describe('who takes part', () => {
  const [first, second] = inGroups(2) as [Student, Student];
  it('is everybody, those of chosen sections and groups, or all but some', () => {
    const both = (rule: Setup['takesPart']) => [first, second].map((one) => takesPart({ takesPart: rule }, one));
    expect(both({ kind: 'everyone' })).toEqual([true, true]);
    expect(both({ kind: 'chosen', sections: ['A'], groupIds: [] })).toEqual([true, false]);
    expect(both({ kind: 'chosen', sections: [], groupIds: ['g0'] })).toEqual([true, true]);
    expect(both({ kind: 'except', studentIds: [first.id], sections: [], groupIds: [] })).toEqual([false, true]);
    expect(both({ kind: 'except', studentIds: [], sections: ['B'], groupIds: [] })).toEqual([true, false]);
  });
});

describe('checkSetup', () => {
  const own = { whom: 'own-group', groupSetId: 'teams' } as const;
  it('finds nothing wrong with settings that people can follow', () => {
    expect(codes({}, inGroups(3))).toEqual([]);
    expect(codes(own, inGroups(3, 4))).toEqual([]);
    expect(codes({ whom: 'partners', groupSetId: 'teams' }, inGroups(2, 3, 2))).toEqual([]);
    expect(codes({ whom: 'other-groups', handInAs: 'group', groupSetId: 'teams' }, inGroups(2, 2, 2))).toEqual([]);
  });

  it('names the group of one in which nobody can be reviewed', () => {
    expect(codes(own, inGroups(3, 1))).toEqual([['group-of-one', { groupId: 'g1' }]]);
  });

  it('says how many drafts the worst placed can review', () => {
    expect(codes({ ...own, reviewsPerStudent: 3 }, inGroups(5, 3))).toEqual([
      ['too-many-reviews', { asked: 3, drafts: 2, reviewers: 3, groupId: 'g1' }],
    ]);
    expect(codes({}, inGroups(2)).map(([code]) => code)).toEqual(['too-many-reviews']);
    expect(codes({}, inGroups(1)).map(([code]) => code)).toEqual(['nobody-to-review']);
  });

  it('asks for what is missing before it counts', () => {
    expect(codes({ whom: 'own-group' }, inGroups(3)).map(([code]) => code)).toEqual(['group-set-missing']);
    expect(codes({ ...own, takesPart: { kind: 'chosen', sections: ['C'], groupIds: [] } }, inGroups(3))).toEqual([
      ['nobody-takes-part', { students: 3 }],
    ]);
    const loose = { id: 'loose', section: null, groupIds: {} };
    expect(codes(own, [...inGroups(3), loose])).toEqual([['students-without-group', { count: 1, studentId: 'loose' }]]);
  });

  it('refuses what contradicts itself', () => {
    const group = { handInAs: 'group', groupSetId: 'teams' } as const;
    expect(codes({ ...group, whom: 'own-group' }, inGroups(3, 3)).map(([code]) => code)).toEqual([
      'group-hand-in-within-group',
    ]);
    expect(codes({ ...group, selfReview: 'with' }, inGroups(3, 3, 3)).map(([code]) => code)).toContain(
      'self-review-of-group',
    );
    expect(codes({ whom: 'other-groups', groupSetId: 'teams' }, inGroups(4)).map(([code]) => code)).toEqual([
      'one-group-only',
    ]);
    expect(codes({ reviewsPerStudent: 0 }, inGroups(4)).map(([code]) => code)).toEqual(['reviews-invalid']);
  });
});

describe('deliverables and grade parts', () => {
  const text: Deliverable = {
    id: 'a',
    kind: 'text',
    title: 'Report',
    description: '',
    required: true,
    families: [],
    maxMegabytes: 50,
  };
  const wrong = (...list: Deliverable[]) => checkDeliverables(list).map(({ code }) => code);
  it('have a largest size, in whole megabytes within bounds', () => {
    const sized = (maxMegabytes: number) => wrong({ ...text, maxMegabytes });
    expect([1, DEFAULT_MEGABYTES, MAX_MEGABYTES].map(sized)).toEqual([[], [], []]);
    for (const bad of [0, -5, 2.5, MAX_MEGABYTES + 1, Number.NaN, Infinity])
      expect(sized(bad)).toEqual(['deliverable-size']);
  });

  it('are there when there are words, or at least one file, link or recording', () => {
    const file: Deliverable = { ...text, id: 'b', kind: 'file', title: 'Data', families: ['pdf'] };
    const talk: Deliverable = { ...text, id: 'c', kind: 'recording', title: 'Talk', required: false };
    const all = [text, file, talk];
    const there = (deliverableId: string, words: number, count: number) => ({ deliverableId, words, count });
    const missing = (...filled: Filled[]) => missingDeliverables(all, filled).map(({ id }) => id);
    expect(missing()).toEqual(['a', 'b']);
    // An empty text is saved as a part, too; a file of pictures has no words and is there.
    expect(missing(there('a', 0, 1), there('b', 0, 1))).toEqual(['a']);
    expect(missing(there('a', 3, 1), there('b', 0, 0))).toEqual(['b']);
    expect(missing(there('a', 3, 1), there('b', 0, 2), there('gone', 9, 9))).toEqual([]);
    expect([isFilled(talk, []), isFilled(talk, [there('c', 0, 1)])]).toEqual([false, true]);
  });

  it('need something to review, told apart by title', () => {
    expect(wrong(text, { ...text, id: 'b', kind: 'recording', title: 'Talk', required: false })).toEqual([]);
    expect(wrong()).toEqual(['deliverables-none']);
    expect(wrong({ ...text, required: false })).toEqual(['deliverables-none-required']);
    expect(wrong(text, { ...text, id: 'b', title: ' report' })).toEqual(['deliverable-same-title']);
    expect(wrong({ ...text, kind: 'file' })).toEqual(['deliverable-no-family']);
    expect(wrong({ ...text, title: ' ' }, { ...text, title: 'B' })).toEqual([
      'deliverable-untitled',
      'deliverable-duplicate',
    ]);
  });

  it('of the grade fit what the exchange has', () => {
    const problems = (part: 'peer-score' | 'replies' | 'handing-in', weight = 1) =>
      checkGradeParts([{ part, weight }], { formHasPoints: false, hasReplies: false }).map(({ code }) => code);
    expect([problems('handing-in'), problems('peer-score'), problems('replies'), problems('handing-in', 0)]).toEqual([
      [],
      ['part-needs-points'],
      ['part-needs-replies'],
      ['part-weight'],
    ]);
  });
});
