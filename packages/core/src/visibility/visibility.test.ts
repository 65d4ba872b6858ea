import { seededRandom } from '../allocation/random.js';
import { makeAliases } from './aliases.js';
import type { Act, ExchangeFacts, Subject, Viewer } from './facts.js';
import { mayDo } from './mayDo.js';
import { maySee } from './maySee.js';
import { nameShown } from './names.js';

const facts = (part: Partial<ExchangeFacts>): ExchangeFacts => ({
  published: true,
  stage: 'reviewing',
  mayHandIn: false,
  released: false,
  names: 'both-ways',
  ...part,
});
const student: Viewer = { role: 'student' };
const words = (decision: ReturnType<typeof maySee>) => (decision.allowed ? 'yes' : decision.refusal);
const STAGES = [
  ['unpublished', facts({ published: false, stage: 'planning' })],
  ['planning', facts({ stage: 'planning' })],
  ['drafting', facts({ stage: 'drafting', mayHandIn: true })],
  ['after due', facts({ stage: 'drafting' })],
  ['reviewing', facts({})],
  ['checking', facts({ stage: 'checking' })],
  ['closed', facts({ stage: 'closed', released: true })],
] as const;

/** One word per stage, in the order of STAGES. */
function row(decide: (exchange: ExchangeFacts) => ReturnType<typeof maySee>): string[] {
  return STAGES.map(([, exchange]) => words(decide(exchange)));
}

describe('maySee, as a student', () => {
  const relation = { byViewer: false, ofViewersDraft: false, viewerHandedIn: true, submitted: true };
  const table: Array<[string, Subject, string[]]> = [
    ['the exchange', { kind: 'exchange' }, ['unknown', 'yes', 'yes', 'yes', 'yes', 'yes', 'yes']],
    ['the workspace', { kind: 'workspace' }, ['unknown', ...Array<string>(6).fill('not-yours')]],
    [
      'an allocated draft',
      { kind: 'draft', allocatedToViewer: true, viewerHandedIn: true },
      ['unknown', 'not-open-yet', 'not-open-yet', 'not-open-yet', 'yes', 'yes', 'yes'],
    ],
    [
      'an allocated draft without an own one',
      { kind: 'draft', allocatedToViewer: true, viewerHandedIn: false },
      [
        'unknown',
        'not-open-yet',
        'not-open-yet',
        'not-open-yet',
        'own-draft-first',
        'own-draft-first',
        'own-draft-first',
      ],
    ],
    [
      'another draft',
      { kind: 'draft', allocatedToViewer: false, viewerHandedIn: true },
      Array<string>(7).fill('unknown'),
    ],
    [
      'a review of mine',
      { kind: 'review', ...relation, byViewer: true },
      ['unknown', 'not-open-yet', 'not-open-yet', 'not-open-yet', 'yes', 'yes', 'yes'],
    ],
    [
      'a review of my draft',
      { kind: 'review', ...relation, ofViewersDraft: true },
      ['unknown', 'unknown', 'unknown', 'unknown', 'unknown', 'unknown', 'yes'],
    ],
    [
      'one never submitted',
      { kind: 'review', ...relation, ofViewersDraft: true, submitted: false },
      Array<string>(7).fill('unknown'),
    ],
    ['a review between others', { kind: 'review', ...relation }, Array<string>(7).fill('unknown')],
    ['feedback', { kind: 'feedback' }, ['unknown', ...Array<string>(5).fill('not-released'), 'yes']],
  ];
  it.each(table)('%s', (_, subject, expected) => {
    expect(row((exchange) => maySee(student, exchange, subject))).toEqual(expected);
  });

  it('tells somebody outside the course nothing, whatever the stage', () => {
    for (const [, subject] of table)
      expect(row((exchange) => maySee({ role: null }, exchange, subject))).toEqual(Array<string>(7).fill('unknown'));
    expect(maySee({ role: null }, null, { kind: 'course' })).toEqual({ allowed: false, refusal: 'unknown' });
  });

  it('shows staff everything but a draft or feedback of their own, which they have not', () => {
    for (const role of ['instructor', 'assistant'] as const) {
      for (const [, subject] of table) {
        const own = subject.kind === 'feedback';
        expect(row((exchange) => maySee({ role }, exchange, subject))).toEqual(
          Array<string>(7).fill(own ? 'not-yours' : 'yes'),
        );
      }
    }
  });
});

describe('mayDo', () => {
  const review = { byViewer: true, viewerHandedIn: true, submitted: false };
  const asStudent: Array<[string, Act, string[]]> = [
    ['save a draft', { kind: 'save-draft' }, ['unknown', 'not-open-yet', 'yes', 'yes', 'yes', 'yes', 'yes']],
    ['hand in', { kind: 'hand-in' }, ['unknown', 'not-open-yet', 'yes', 'over', 'over', 'over', 'over']],
    [
      'write a review',
      { kind: 'write-review', ...review },
      ['unknown', 'not-open-yet', 'not-open-yet', 'not-open-yet', 'yes', 'yes', 'over'],
    ],
    [
      'submit a review',
      { kind: 'submit-review', ...review },
      ['unknown', 'not-open-yet', 'not-open-yet', 'not-open-yet', 'yes', 'over', 'over'],
    ],
    [
      'write in a submitted one',
      { kind: 'write-review', ...review, submitted: true },
      [
        'unknown',
        'not-open-yet',
        'not-open-yet',
        'not-open-yet',
        'already-submitted',
        'already-submitted',
        'already-submitted',
      ],
    ],
    [
      'write one of somebody else',
      { kind: 'write-review', ...review, byViewer: false },
      Array<string>(7).fill('unknown'),
    ],
    [
      'reopen',
      { kind: 'reopen-review', byViewer: true, submitted: true },
      ['unknown', 'not-open-yet', 'not-open-yet', 'not-open-yet', 'yes', 'over', 'over'],
    ],
    ['release', { kind: 'release' }, ['unknown', ...Array<string>(6).fill('not-yours')]],
    ['plan', { kind: 'plan' }, ['unknown', ...Array<string>(6).fill('not-yours')]],
  ];
  it.each(asStudent)('a student: %s', (_, what, expected) => {
    expect(row((exchange) => mayDo(student, exchange, what))).toEqual(expected);
  });

  it('leaves publishing, planning and releasing to instructors, allocating to assistants too', () => {
    const may = (role: Viewer['role'], kind: 'plan' | 'publish' | 'allocate' | 'release', published: boolean) =>
      words(mayDo({ role }, facts({ published, stage: 'planning' }), { kind }));
    expect(may('instructor', 'publish', false)).toBe('yes');
    expect(may('instructor', 'publish', true)).toBe('already-published');
    expect(may('instructor', 'allocate', false)).toBe('not-published');
    expect((['plan', 'publish', 'allocate', 'release'] as const).map((kind) => may('assistant', kind, true))).toEqual([
      'not-yours',
      'not-yours',
      'yes',
      'not-yours',
    ]);
    expect(words(mayDo({ role: 'assistant' }, null, { kind: 'create-exchange' }))).toBe('not-yours');
  });
});

describe('names', () => {
  it('hides names from students only, and only where they are hidden', () => {
    const shown = (role: Viewer['role'], names: 'both-ways' | 'open', self = false) =>
      nameShown({ role }, { names }, self);
    expect([shown('student', 'both-ways'), shown('student', 'open'), shown('student', 'both-ways', true)]).toEqual([
      'alias',
      'name',
      'self',
    ]);
    expect([shown('instructor', 'both-ways'), shown('assistant', 'both-ways'), shown('instructor', 'open')]).toEqual([
      'both',
      'both',
      'name',
    ]);
  });

  it('makes as many different aliases as wanted, none of them taken, the same for the same seed', () => {
    for (const count of [0, 1, 24, 400, 3000]) {
      const aliases = makeAliases(count, new Set(['Heron']), seededRandom(7));
      expect(new Set(aliases).size).toBe(count);
      expect(aliases).not.toContain('Heron');
      expect(makeAliases(count, new Set(['Heron']), seededRandom(7))).toEqual(aliases);
    }
  });
});
