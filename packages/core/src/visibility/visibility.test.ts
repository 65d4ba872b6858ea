import { seededRandom } from '../random/random.js';
import { makeAliases } from './aliases.js';
import type { Openings } from '../timeline/stage.js';
import type { Act, ExchangeFacts, NamesPolicy, Subject, Viewer } from './facts.js';
import { hears, TOPICS } from './hears.js';
import { mayDo } from './mayDo.js';
import { maySee, readerOf } from './maySee.js';
import { nameShown } from './names.js';

const SHUT: Openings = {
  handIn: false,
  late: false,
  review: false,
  selfReview: false,
  selfReviewOver: false,
  released: false,
  replies: false,
  revision: false,
};
const facts = (part: Partial<Omit<ExchangeFacts, 'may'>>, may: Partial<Openings> = {}): ExchangeFacts => ({
  published: true,
  stage: 'reviewing',
  may: { ...SHUT, ...may },
  names: 'both-ways',
  showNamesAtRelease: false,
  ownHandInFirst: true,
  selfReview: 'off',
  rolling: false,
  feedbackEach: false,
  reviewsFinal: false,
  ownFeedback: 'as-planned',
  practice: false,
  practiceFirst: false,
  ratings: 'staff',
  noAfter: false,
  reflection: true,
  othersReviews: false,
  earlierShown: false,
  gradesReleased: false,
  revisionShown: false,
  ...part,
});
const student: Viewer = { role: 'student' };
const words = (decision: ReturnType<typeof maySee>) => (decision.allowed ? 'yes' : decision.refusal);
const STAGES = [
  ['unpublished', facts({ published: false, stage: 'planning' })],
  ['planning', facts({ stage: 'planning' })],
  ['drafting', facts({ stage: 'drafting' }, { handIn: true })],
  ['after due', facts({ stage: 'drafting' })],
  ['reviewing', facts({}, { review: true })],
  ['checking', facts({ stage: 'checking' })],
  ['closed', facts({ stage: 'closed' }, { released: true })],
] as const;

/** One word per stage, in the order of STAGES. */
function row(decide: (exchange: ExchangeFacts) => ReturnType<typeof maySee>): string[] {
  return STAGES.map(([, exchange]) => words(decide(exchange)));
}

describe('maySee, as a student', () => {
  const reviewing = { viewerHandedIn: true, ofOwnDraft: false, selfReviewed: false, othersReviewed: false };
  const relation = { ...reviewing, byViewer: false, submitted: true, withheld: false };
  const standing = { ...reviewing, allocatedToViewer: false };
  const part = { kind: 'part' as const, ...standing, saved: false, current: true };
  const table: Array<[string, Subject, string[]]> = [
    ['the exchange', { kind: 'exchange' }, ['unknown', 'yes', 'yes', 'yes', 'yes', 'yes', 'yes']],
    ['the workspace', { kind: 'workspace' }, ['unknown', ...Array<string>(6).fill('not-yours')]],
    [
      'an allocated draft',
      { kind: 'draft', ...reviewing, allocatedToViewer: true },
      ['unknown', 'not-open-yet', 'not-open-yet', 'not-open-yet', 'yes', 'yes', 'yes'],
    ],
    [
      'an allocated draft without an own one',
      { kind: 'draft', ...reviewing, allocatedToViewer: true, viewerHandedIn: false },
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
    ['another draft', { kind: 'draft', ...reviewing, allocatedToViewer: false }, Array<string>(7).fill('unknown')],
    [
      'a review of mine',
      { kind: 'review', ...relation, byViewer: true },
      ['unknown', 'not-open-yet', 'not-open-yet', 'not-open-yet', 'yes', 'yes', 'yes'],
    ],
    [
      'a review of my draft',
      { kind: 'review', ...relation, ofOwnDraft: true },
      ['unknown', 'unknown', 'unknown', 'unknown', 'unknown', 'unknown', 'yes'],
    ],
    [
      'one never submitted',
      { kind: 'review', ...relation, ofOwnDraft: true, submitted: false },
      Array<string>(7).fill('unknown'),
    ],
    ['a review between others', { kind: 'review', ...relation }, Array<string>(7).fill('unknown')],
    ...(['review', 'note', 'answer', 'attachment'] as const).flatMap((kind): Array<[string, Subject, string[]]> => [
      [
        `a withheld ${kind} on my draft`,
        { kind, ...relation, ofOwnDraft: true, withheld: true },
        Array<string>(7).fill('unknown'),
      ],
      [
        `a withheld ${kind} of mine`,
        { kind, ...relation, byViewer: true, withheld: true },
        ['unknown', 'not-open-yet', 'not-open-yet', 'not-open-yet', 'yes', 'yes', 'yes'],
      ],
    ]),
    [
      'a note on my draft',
      { kind: 'note', ...relation, ofOwnDraft: true },
      ['unknown', 'unknown', 'unknown', 'unknown', 'unknown', 'unknown', 'yes'],
    ],
    [
      'a part of a draft that I review',
      { ...part, allocatedToViewer: true },
      ['unknown', 'not-open-yet', 'not-open-yet', 'not-open-yet', 'yes', 'yes', 'yes'],
    ],
    [
      'the same, of a version that I do not review',
      { ...part, allocatedToViewer: true, current: false },
      Array<string>(7).fill('unknown'),
    ],
    [
      'the same, saved but not handed in',
      { ...part, allocatedToViewer: true, saved: true },
      Array<string>(7).fill('unknown'),
    ],
    [
      'the file of an allocated draft as it came',
      { kind: 'original', ...standing, allocatedToViewer: true },
      Array<string>(7).fill('unknown'),
    ],
    [
      'versions of my draft',
      { kind: 'versions', ...standing, ofOwnDraft: true },
      ['unknown', ...Array<string>(6).fill('yes')],
    ],
    ['when others submitted', { kind: 'reviewing-life', byViewer: false }, Array<string>(7).fill('unknown')],
    ['the workings of a form', { kind: 'form-workings' }, ['unknown', ...Array<string>(6).fill('not-yours')]],
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
        // What is only saved is its author's.
        const saved = subject.kind === 'part' && subject.saved;
        expect(row((exchange) => maySee({ role }, exchange, subject))).toEqual(
          Array<string>(7).fill(own ? 'not-yours' : saved ? 'unknown' : 'yes'),
        );
      }
    }
  });

  it('reads a draft as its author, as staff, or as a reviewer, who gets copies', () => {
    expect(readerOf(student, { ofOwnDraft: true })).toBe('author');
    expect(readerOf(student, { ofOwnDraft: false })).toBe('reviewer');
    expect(readerOf({ role: 'assistant' }, { ofOwnDraft: false })).toBe('staff');
  });
});

describe('mayDo', () => {
  const review = {
    byViewer: true,
    viewerHandedIn: true,
    ofOwnDraft: false,
    selfReviewed: false,
    othersReviewed: false,
    submitted: false,
  };
  const asStudent: Array<[string, Act, string[]]> = [
    ['save a draft', { kind: 'save-draft' }, ['unknown', 'not-open-yet', 'yes', 'yes', 'yes', 'yes', 'yes']],
    ['hand in', { kind: 'hand-in' }, ['unknown', 'not-open-yet', 'yes', 'over', 'over', 'over', 'over']],
    ['read feedback', { kind: 'read-feedback' }, ['unknown', ...Array<string>(5).fill('not-released'), 'yes']],
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
      { kind: 'reopen-review', byViewer: true, submitted: true, ofOwnDraft: false },
      ['unknown', 'not-open-yet', 'not-open-yet', 'not-open-yet', 'yes', 'over', 'over'],
    ],
    [
      'submit one that an instructor has reopened',
      { kind: 'submit-review', ...review, reopenedByStaff: true },
      ['unknown', 'not-open-yet', 'not-open-yet', 'not-open-yet', 'yes', 'yes', 'over'],
    ],
    ['release', { kind: 'release' }, ['unknown', ...Array<string>(6).fill('not-yours')]],
    ['move dates', { kind: 'move-dates' }, ['unknown', ...Array<string>(6).fill('not-yours')]],
    ['plan', { kind: 'plan' }, ['unknown', ...Array<string>(6).fill('not-yours')]],
  ];
  it.each(asStudent)('a student: %s', (_, what, expected) => {
    expect(row((exchange) => mayDo(student, exchange, what))).toEqual(expected);
  });

  it('lets instructors reopen what was submitted until its author reads it, also where it is final for the reviewer', () => {
    const reopen = (part: object) =>
      ({ kind: 'reopen-review', byViewer: false, submitted: true, ofOwnDraft: false, ...part }) as const;
    const by = (role: Viewer['role'], part: object = {}, more: Partial<ExchangeFacts> = {}) =>
      row((exchange) => mayDo({ role }, { ...exchange, ...more }, reopen(part)));
    expect(by('instructor')).toEqual([...Array<string>(6).fill('yes'), 'over']);
    expect(by('instructor', { submitted: false })).toEqual(Array<string>(7).fill('not-yours'));
    expect(by('assistant')).toEqual(Array<string>(7).fill('not-yours'));
    expect(by('instructor', {}, { feedbackEach: true })[4]).toBe('over');
    expect(by('student', { byViewer: true }, { reviewsFinal: true }).slice(1)).toEqual(
      Array<string>(6).fill('already-submitted'),
    );
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

describe('feedback review by review', () => {
  it('opens each review to its author once it is submitted, and nothing else earlier than before', () => {
    const review = {
      kind: 'review',
      byViewer: false,
      viewerHandedIn: true,
      ofOwnDraft: true,
      withheld: false,
    } as const;
    const rest = { selfReviewed: false, othersReviewed: false };
    const may = (part: Partial<ExchangeFacts>, of: { submitted: boolean; withheld?: boolean }) =>
      words(maySee(student, facts({ feedbackEach: true, ...part }), { ...review, ...rest, ...of }));
    expect(may({}, { submitted: true })).toBe('yes');
    expect(may({}, { submitted: false })).toBe('unknown');
    expect(may({}, { submitted: true, withheld: true })).toBe('unknown');
    expect(may({ feedbackEach: false }, { submitted: true })).toBe('unknown');
    expect(may({ stage: 'drafting' }, { submitted: true })).toBe('unknown');
    expect(may({ stage: 'drafting', rolling: true }, { submitted: true })).toBe('yes');
    const shown = nameShown(
      { role: 'student' },
      facts({ feedbackEach: true, showNamesAtRelease: true }),
      'reviewer',
      false,
    );
    expect(shown).toBe('alias');
  });
});

describe('the order that an exchange asks for', () => {
  const others = {
    byViewer: true,
    submitted: false,
    withheld: false,
    viewerHandedIn: true,
    ofOwnDraft: false,
    selfReviewed: false,
    othersReviewed: false,
  };
  const may = (part: Partial<ExchangeFacts>, relation: Partial<typeof others>, openings: Partial<Openings> = {}) => {
    const exchange = facts(part, { review: true, selfReview: true, ...openings });
    const seen = words(maySee(student, exchange, { kind: 'review', ...others, ...relation }));
    const done = words(mayDo(student, exchange, { kind: 'submit-review', ...others, ...relation }));
    return seen === done ? seen : `${seen}, but ${done}`;
  };

  it('opens drafts of others after the own self-review, where that comes first', () => {
    expect(may({ selfReview: 'first' }, {})).toBe('self-review-first');
    expect(may({ selfReview: 'first' }, { ofOwnDraft: true })).toBe('yes');
    expect(may({ selfReview: 'first' }, { selfReviewed: true })).toBe('yes');
    expect(may({ selfReview: 'with' }, {})).toBe('yes');
    expect(may({ selfReview: 'after' }, {})).toBe('yes');
    expect(may({ selfReview: 'after' }, { ofOwnDraft: true })).toBe('self-review-last');
    expect(may({ selfReview: 'after' }, { ofOwnDraft: true, othersReviewed: true })).toBe('yes');
  });

  it('waits for a self-review no longer than that can be submitted', () => {
    const over = { selfReview: false, selfReviewOver: true };
    expect(may({ selfReview: 'first' }, {}, over)).toBe('yes');
    const mine = { ...others, ofOwnDraft: true };
    const submit = (openings: Partial<Openings>) =>
      words(mayDo(student, facts({ selfReview: 'first' }, openings), { kind: 'submit-review', ...mine }));
    expect([submit({ review: true, ...over }), submit({ selfReview: true })]).toEqual(['over', 'yes']);
    const reopen = (ofOwnDraft: boolean) =>
      words(mayDo(student, facts({}, { review: true }), { kind: 'reopen-review', ...others, ofOwnDraft }));
    expect([reopen(false), reopen(true)]).toEqual(['yes', 'over']);
  });

  it('asks for an own draft only where the exchange does', () => {
    expect(may({}, { viewerHandedIn: false })).toBe('own-draft-first');
    expect(may({ ownHandInFirst: false }, { viewerHandedIn: false })).toBe('yes');
    // Nobody can review a draft of one's own that does not exist.
    expect(may({ ownHandInFirst: false, selfReview: 'first' }, { viewerHandedIn: false })).toBe('yes');
  });
});

describe('where drafts are allocated night by night', () => {
  const drafting = facts({ stage: 'drafting', rolling: true }, { handIn: true, review: true });
  const mine = {
    byViewer: true,
    submitted: false,
    viewerHandedIn: true,
    ofOwnDraft: false,
    selfReviewed: false,
    othersReviewed: false,
  };

  it('opens drafts of others beside one’s own, after handing that in, and not before drafts open', () => {
    const seen = (exchange: ExchangeFacts, viewerHandedIn: boolean) =>
      words(maySee(student, exchange, { kind: 'own-reviews', viewerHandedIn }));
    expect([seen(drafting, true), seen(drafting, false)]).toEqual(['yes', 'own-draft-first']);
    expect(seen({ ...drafting, stage: 'planning' }, true)).toBe('not-open-yet');
    expect(words(mayDo(student, drafting, { kind: 'submit-review', ...mine }))).toBe('yes');
  });
});

describe('hears', () => {
  const told = (role: Viewer['role'], own: boolean, published = true) =>
    TOPICS.filter((topic) => hears({ role }, { published }, topic, own));

  it('tells staff of everything but what is somebody’s own', () => {
    for (const role of ['instructor', 'assistant'] as const) {
      expect(told(role, false)).toEqual(['plan', 'drafts', 'allocation', 'reviews', 'people', 'mail', 'grades']);
    }
  });

  it('tells students of what is said to all of them and of what is their own, never of who works when', () => {
    expect(told('student', false)).toEqual(['plan']);
    expect(told('student', true)).toEqual(['plan', 'own-draft', 'own-review', 'preview']);
    expect(told('student', true, false)).toEqual(['own-draft', 'own-review', 'preview']);
    expect(told(null, true)).toEqual([]);
  });
});

describe('staff who review as well', () => {
  const mine = {
    byViewer: true,
    submitted: false,
    viewerHandedIn: false,
    ofOwnDraft: false,
    selfReviewed: false,
    othersReviewed: false,
  };
  const write = (exchange: ExchangeFacts, part: Partial<typeof mine> = {}) =>
    words(mayDo({ role: 'assistant' }, exchange, { kind: 'write-review', ...mine, ...part }));

  it('need no draft of their own, and write only what is theirs, while reviews are open', () => {
    const self = facts({ selfReview: 'first' }, { review: true });
    expect([write(self), write(facts({}, { review: true }))]).toEqual(['yes', 'yes']);
    expect(write(self, { byViewer: false })).toBe('not-yours');
    expect(write(facts({ stage: 'drafting' }))).toBe('not-open-yet');
    expect(write(facts({ stage: 'closed' }, { released: true }))).toBe('over');
  });
});

describe('looking with a student’s eyes', () => {
  it('sees what the student sees, and does nothing', () => {
    const eyes: Viewer = { role: 'student', readOnly: true };
    for (const [, exchange] of STAGES) {
      expect(maySee(eyes, exchange, { kind: 'feedback' })).toEqual(maySee(student, exchange, { kind: 'feedback' }));
      expect(words(mayDo(eyes, exchange, { kind: 'hand-in' }))).not.toBe('yes');
    }
    expect(words(mayDo(eyes, facts({}, { handIn: true }), { kind: 'hand-in' }))).toBe('read-only');
  });
});

describe('names', () => {
  const shown = (
    role: Viewer['role'],
    names: NamesPolicy,
    part: 'author' | 'reviewer' = 'author',
    end: Partial<ExchangeFacts> = {},
  ) => nameShown({ role }, { ...facts({ names, ...end }), may: { ...SHUT, released: true } }, part, false);

  it('are hidden from students as the exchange has it: of authors, of reviewers, or of both', () => {
    const policies: NamesPolicy[] = ['both-ways', 'reviewers-only', 'authors-only', 'open'];
    expect(policies.map((names) => [shown('student', names, 'author'), shown('student', names, 'reviewer')])).toEqual([
      ['alias', 'alias'],
      ['name', 'alias'],
      ['alias', 'name'],
      ['name', 'name'],
    ]);
    expect(nameShown(student, facts({}), 'author', true)).toBe('self');
  });

  it('stay hidden for good, unless the exchange shows them at release', () => {
    expect(shown('student', 'both-ways')).toBe('alias');
    expect(shown('student', 'both-ways', 'reviewer', { showNamesAtRelease: true })).toBe('name');
    expect(nameShown(student, facts({ showNamesAtRelease: true }), 'reviewer', false)).toBe('alias');
  });

  it('are never hidden from staff, who see the alias beside', () => {
    expect([shown('instructor', 'both-ways'), shown('assistant', 'authors-only'), shown('instructor', 'open')]).toEqual(
      ['both', 'both', 'name'],
    );
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

describe('practice', () => {
  const reviewing = { viewerHandedIn: false, ofOwnDraft: false, selfReviewed: false, othersReviewed: false };
  const written = { ...reviewing, byViewer: false, submitted: true, withheld: false };
  const practice = (part: Partial<ExchangeFacts> = {}) => ({ ...facts({ practice: true }, { review: true }), ...part });
  const sees = (viewer: Viewer, subject: Subject, part: Partial<ExchangeFacts> = {}) =>
    words(maySee(viewer, practice(part), subject));
  const does = (viewer: Viewer, act: Act, part: Partial<ExchangeFacts> = {}) =>
    words(mayDo(viewer, practice(part), act));

  it('shows a student the draft that is tried, the own try, and the key once a try is submitted; nothing of others', () => {
    const draft = { kind: 'draft', ...reviewing, allocatedToViewer: true } as const;
    expect(sees(student, draft)).toBe('yes');
    expect(sees(student, draft, { stage: 'planning' })).toBe('not-open-yet');
    expect(sees(student, draft, { published: false })).toBe('unknown');
    expect(sees(student, { ...draft, allocatedToViewer: false })).toBe('unknown');
    for (const kind of ['review', 'note', 'answer', 'attachment'] as const) {
      expect(sees(student, { kind, ...written, byViewer: true })).toBe('yes');
      expect(sees(student, { kind, ...written })).toBe('unknown');
      expect(sees(student, { kind, ...written, ofOwnDraft: true })).toBe('unknown');
    }
    const key = (tried: boolean) => sees(student, { kind: 'practice-key', tried });
    expect([key(true), key(false)]).toEqual(['yes', 'unknown']);
    for (const kind of ['workspace', 'feedback', 'own-draft', 'form-workings'] as const)
      expect(sees(student, { kind })).toBe('unknown');
  });

  it('lets students try while it is open, instructors write the key at any time, and nobody do anything else', () => {
    const write = { kind: 'write-review', ...reviewing, byViewer: true, submitted: false } as const;
    expect(does(student, { kind: 'practise' })).toBe('yes');
    expect(does(student, write)).toBe('yes');
    expect(does(student, { ...write, byViewer: false })).toBe('unknown');
    expect(does(student, { ...write, submitted: true })).toBe('already-submitted');
    const over = { may: SHUT, stage: 'closed' } as const;
    expect([does(student, { kind: 'practise' }, over), does(student, write, over)]).toEqual(['over', 'over']);
    expect(does(student, { kind: 'hand-in' })).toBe('unknown');
    const instructor: Viewer = { role: 'instructor' };
    expect(does(instructor, write, { published: false, stage: 'planning' })).toBe('yes');
    for (const kind of ['publish', 'plan', 'save-draft', 'collect'] as const)
      expect(does(instructor, { kind })).toBe('unknown');
    expect(does({ role: 'assistant' }, write)).toBe('not-yours');
    expect(does({ ...student, readOnly: true }, { kind: 'practise' })).toBe('read-only');
    expect(words(mayDo(student, facts({ stage: 'drafting' }), { kind: 'practise' }))).toBe('unknown');
  });

  it('comes before the reviews where the exchange asks for it', () => {
    const subject = { kind: 'draft', ...reviewing, viewerHandedIn: true, allocatedToViewer: true } as const;
    expect(words(maySee(student, facts({ practiceFirst: true }, { review: true }), subject))).toBe('practice-first');
    expect(words(maySee(student, facts({}, { review: true }), subject))).toBe('yes');
  });
});

describe('after the release', () => {
  const open = { replies: true, revision: true, released: true };
  const at = {
    checking: facts({ stage: 'checking' }, { replies: true, revision: true }),
    replying: facts({ stage: 'replying' }, open),
    revising: facts({ stage: 'revising' }, { ...open, replies: false }),
    closed: facts({ stage: 'closed' }, { released: true }),
  };
  const over = (decide: (exchange: ExchangeFacts) => ReturnType<typeof maySee>) =>
    Object.values(at).map((exchange) => words(decide(exchange)));
  const there = { submitted: true, withheld: false, begun: false };
  const author = { kind: 'reply' as const, byViewer: false, ofOwnDraft: true, ...there };
  const reviewer = { kind: 'reply' as const, byViewer: true, ofOwnDraft: false, ...there };
  const reply = (act: Act, viewer = student) => over((exchange) => mayDo(viewer, exchange, act));

  it('authors and reviewers answer each other while replies last, and staff whenever something was submitted', () => {
    expect(reply(author)).toEqual(['unknown', 'yes', 'over', 'over']);
    expect(reply(reviewer)).toEqual(['not-released', 'yes', 'over', 'over']);
    expect(reply({ ...reviewer, begun: true })).toEqual(['yes', 'yes', 'over', 'over']);
    expect(reply({ ...author, withheld: true })).toEqual(Array(4).fill('unknown'));
    expect(reply({ ...author, ofOwnDraft: false })).toEqual(Array(4).fill('unknown'));
    expect(reply(author, { role: 'assistant' })).toEqual(Array(4).fill('yes'));
    expect(reply({ ...author, submitted: false }, { role: 'instructor' })).toEqual(Array(4).fill('unknown'));
    expect(reply(author, { role: 'student', readOnly: true })).toEqual(Array(4).fill('read-only'));
  });

  it('authors decide and rate from their feedback on, and hand in a revision while that lasts', () => {
    expect(reply({ kind: 'decide' })).toEqual(['not-released', 'yes', 'yes', 'yes']);
    expect(reply({ kind: 'hand-in-revision' })).toEqual(['not-released', 'yes', 'yes', 'over']);
    expect(reply({ kind: 'reflect' })).toEqual(['not-released', 'yes', 'yes', 'over']);
    expect(reply({ kind: 'rate', ofOwnDraft: true, submitted: true, withheld: false })).toEqual([
      ...['unknown', 'yes', 'yes', 'yes'],
    ]);
    expect(reply({ kind: 'rate', ofOwnDraft: false, submitted: true, withheld: false })).toEqual(
      Array(4).fill('unknown'),
    );
    for (const kind of ['decide', 'hand-in-revision', 'reflect'] as const)
      expect(reply({ kind }, { role: 'instructor' })).toEqual(Array(4).fill('not-yours'));
    // Nothing planned after the release has no end.
    const endless = facts({ stage: 'closed', noAfter: true }, { released: true });
    expect(words(mayDo(student, endless, { kind: 'reflect' }))).toBe('yes');
    expect(words(mayDo(student, { ...endless, reflection: false }, { kind: 'reflect' }))).toBe('unknown');
  });

  it('feedback that is early or held back takes all of it along', () => {
    const early = { ...at.checking, ownFeedback: 'early' as const };
    const held = { ...at.replying, ownFeedback: 'held' as const };
    for (const act of [author, { kind: 'decide' }, { kind: 'hand-in-revision' }] as const) {
      expect(words(mayDo(student, early, act))).toBe('yes');
      expect(words(mayDo(student, held, act))).not.toBe('yes');
    }
  });

  it('reviewers read how they helped as the plan says, and nobody else does', () => {
    const mine = { kind: 'rating' as const, byViewer: true, ofOwnDraft: false };
    const seen = (ratings: ExchangeFacts['ratings']) =>
      over((exchange) => maySee(student, { ...exchange, ratings }, mine));
    expect(seen('staff')).toEqual(Array(4).fill('unknown'));
    expect(seen('at-once')).toEqual(Array(4).fill('yes'));
    expect(seen('at-end')).toEqual(['unknown', 'unknown', 'unknown', 'yes']);
    expect(over((exchange) => maySee(student, exchange, { ...mine, byViewer: false }))).toEqual(
      Array(4).fill('unknown'),
    );
  });

  it('other reviews and revisions are the reviewers’ to read only where the plan says so, after release', () => {
    const other = { kind: 'other-review' as const, reviewed: true, submitted: true, withheld: false };
    const both = { othersReviews: true, revisionShown: true };
    const revision = {
      kind: 'revision' as const,
      ...{
        viewerHandedIn: true,
        ofOwnDraft: false,
        selfReviewed: false,
        othersReviewed: true,
        allocatedToViewer: true,
      },
    };
    for (const subject of [other, revision] as const) {
      expect(over((exchange) => maySee(student, exchange, subject))).toEqual(Array(4).fill('unknown'));
      expect(over((exchange) => maySee(student, { ...exchange, ...both }, subject))).toEqual([
        ...['unknown', 'yes', 'yes', 'yes'],
      ]);
    }
    const shown = { ...at.closed, ...both };
    for (const part of [{ reviewed: false }, { submitted: false }, { withheld: true }])
      expect(words(maySee(student, shown, { ...other, ...part }))).toBe('unknown');
    expect(words(maySee(student, shown, { ...revision, allocatedToViewer: false }))).toBe('unknown');
    for (const kind of ['decisions', 'reflection'] as const)
      expect(words(maySee(student, shown, { kind, ofOwnDraft: false }))).toBe('unknown');
  });
});

describe('what staff say under their own names, earlier feedback, and grades', () => {
  const instructor: Viewer = { role: 'instructor' };
  const assistant: Viewer = { role: 'assistant' };
  const own = { byViewer: true, voice: true, submitted: false, viewerHandedIn: false, ofOwnDraft: false };
  const writing = { ...own, selfReviewed: false, othersReviewed: false };

  it('lets staff review under their own names from the opening of reviews on, whatever is due, and nobody else', () => {
    const begins = (viewer: Viewer) => row((exchange) => mayDo(viewer, exchange, { kind: 'review-as-staff' }));
    const from = ['not-published', 'not-open-yet', 'not-open-yet', 'not-open-yet', 'yes', 'yes', 'yes'];
    expect([begins(instructor), begins(assistant)]).toEqual([from, from]);
    expect(begins(student)).toEqual(['unknown', ...Array(6).fill('not-yours')]);
    for (const kind of ['write-review', 'submit-review'] as const) {
      const write = (viewer: Viewer, part: object = {}) =>
        words(mayDo(viewer, facts({ stage: 'closed' }, { released: true }), { kind, ...writing, ...part }));
      expect([write(assistant), write(assistant, { submitted: true })]).toEqual(['yes', 'already-submitted']);
      // Somebody else's, and of somebody who was of the staff once.
      expect([write(instructor, { byViewer: false }), write(student)]).toEqual(['not-yours', 'unknown']);
    }
    const reopen = (viewer: Viewer, byViewer: boolean) =>
      words(mayDo(viewer, facts({}), { kind: 'reopen-review', ...own, submitted: true, byViewer }));
    expect([reopen(assistant, true), reopen(instructor, false), reopen(student, true)]).toEqual([
      'yes',
      'unknown',
      'unknown',
    ]);
  });

  it('shows earlier feedback to whoever reviews the draft now: the own, and of others what is open', () => {
    const earlier = {
      kind: 'earlier-review',
      ...writing,
      viewerHandedIn: true,
      submitted: true,
      withheld: false,
    } as const;
    const seen = (part: object, shown = false) =>
      words(maySee(student, facts({ earlierShown: shown }), { ...earlier, own: false, ...part }));
    expect([seen({ own: true }), seen({}), seen({}, true)]).toEqual(['yes', 'unknown', 'yes']);
    expect([
      seen({ withheld: true }, true),
      seen({ own: true, withheld: true }),
      seen({ submitted: false }, true),
    ]).toEqual(['unknown', 'yes', 'unknown']);
    expect(seen({ byViewer: false, ofOwnDraft: true }, true)).toBe('unknown');
    expect(words(maySee(assistant, facts({}), { ...earlier, own: false }))).toBe('yes');
  });

  it('shows a student the own grade once it is released, apart from feedback, and lets staff mark', () => {
    const grade = (viewer: Viewer, gradesReleased: boolean) =>
      words(maySee(viewer, facts({ gradesReleased }), { kind: 'own-grade' }));
    expect([grade(student, false), grade(student, true), grade(instructor, true)]).toEqual([
      'grade-not-released',
      'yes',
      'not-yours',
    ]);
    const reads = (viewer: Viewer, gradesReleased: boolean) =>
      words(mayDo(viewer, facts({ gradesReleased }), { kind: 'read-grade' }));
    expect([reads(student, false), reads(student, true), reads(instructor, true)]).toEqual([
      'grade-not-released',
      'yes',
      'not-yours',
    ]);
    expect(reads({ ...student, readOnly: true }, true)).toBe('read-only');
    const marks = (viewer: Viewer) => words(mayDo(viewer, facts({}), { kind: 'grade' }));
    expect([marks(instructor), marks(assistant), marks(student)]).toEqual(['yes', 'yes', 'not-yours']);
    expect(words(mayDo({ ...student, readOnly: true }, facts({}), { kind: 'grade' }))).toBe('read-only');
  });
});
