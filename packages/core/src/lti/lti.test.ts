import fc from 'fast-check';
import type { Role } from '../visibility/facts.js';
import { afterArriving, type ArrivalFacts } from './arrival.js';
import { CLAIM } from './claims.js';
import { compareMembers, type MemberChanges, type PlacedPerson } from './compareMembers.js';
import { readLaunch } from './launch.js';
import { readMembers, type LtiMember } from './members.js';
import { courseRole } from './roles.js';
import { readResults, sameScore, scoreBody } from './score.js';

const MEMBERSHIP = 'http://purl.imsglobal.org/vocab/lis/v2/membership';

describe('the role in the course', () => {
  // LTI 1.3 core, section A.2 (from memory: the vocabularies of roles, with their sub-roles).
  it.each<[readonly string[], Role | null]>([
    [[`${MEMBERSHIP}#Learner`], 'student'],
    [[`${MEMBERSHIP}#Instructor`], 'instructor'],
    [[`${MEMBERSHIP}/Instructor#PrimaryInstructor`], 'instructor'],
    [[`${MEMBERSHIP}#Instructor`, `${MEMBERSHIP}/Instructor#TeachingAssistant`], 'assistant'],
    [[`${MEMBERSHIP}/Instructor#TeachingAssistantSection`, `${MEMBERSHIP}#Learner`], 'assistant'],
    [[`${MEMBERSHIP}#Administrator`], 'instructor'],
    [['Instructor'], 'instructor'],
    [['Learner', 'Mentor'], 'student'],
    [[`${MEMBERSHIP}#Mentor`], null],
    [[`${MEMBERSHIP}/Learner#GuestLearner`], 'student'],
    // Roles in the institution and the system say nothing of the course.
    [['http://purl.imsglobal.org/vocab/lis/v2/institution/person#Instructor'], null],
    [['http://purl.imsglobal.org/vocab/lis/v2/system/person#Administrator', `${MEMBERSHIP}#Learner`], 'student'],
    // What only looks like one.
    [
      [
        `https://evil.example/${MEMBERSHIP}#Instructor`,
        `${MEMBERSHIP}#Instructor#Learner`,
        `${MEMBERSHIP}x#Instructor`,
      ],
      null,
    ],
    [[], null],
  ])('of %j is %s', (roles, role) => expect(courseRole(roles)).toBe(role));
});

/** The example of a message in LTI 1.3 core, section C.1 (from memory), as far as it matters here. */
const EXAMPLE = {
  iss: 'https://platform.example.edu',
  sub: 'a6d5c443-1f51-4783-ba1a-7686ffe3b54a',
  aud: ['962fa4d8-bcbf-49a0-94b2-2de05ad274af'],
  nonce: 'fc5fdc6d-5dd6-47f4-b2c9-5d1216e9b771',
  name: 'Ms Jane Marie Doe',
  given_name: 'Jane',
  family_name: 'Doe',
  email: 'jane@platform.example.edu',
  [CLAIM.deploymentId]: '07940580-b309-415e-a37c-914d387c1150',
  [CLAIM.messageType]: 'LtiResourceLinkRequest',
  [CLAIM.version]: '1.3.0',
  [CLAIM.roles]: [
    'http://purl.imsglobal.org/vocab/lis/v2/institution/person#Student',
    `${MEMBERSHIP}#Learner`,
    `${MEMBERSHIP}#Mentor`,
  ],
  [CLAIM.context]: {
    id: 'c1d887f0-a1a3-4bca-ae25-c375edcc131a',
    label: 'ECON 1010',
    title: 'Economics as a Social Science',
  },
  [CLAIM.resourceLink]: { id: '200d101f-2c14-434a-a0f3-57c2a42369fd', title: 'Introduction Assignment' },
  [CLAIM.lis]: { person_sourcedid: 'example.edu:71ee7e42-f6d2-414a-80db-b69ac2defd4' },
  [CLAIM.custom]: { xstart: '2017-04-21T01:00:00Z' },
  [CLAIM.endpoint]: {
    scope: ['https://purl.imsglobal.org/spec/lti-ags/scope/score'],
    lineitems: 'https://www.myuniv.example.com/2344/lineitems/',
    lineitem: 'https://www.myuniv.example.com/2344/lineitems/1234/lineitem',
  },
  'https://www.example.com/extension': { color: 'violet' },
};

describe('a launch', () => {
  it('is read as the standard has it', () => {
    expect(readLaunch(EXAMPLE)).toEqual({
      deploymentId: '07940580-b309-415e-a37c-914d387c1150',
      user: 'a6d5c443-1f51-4783-ba1a-7686ffe3b54a',
      name: 'Ms Jane Marie Doe',
      email: 'jane@platform.example.edu',
      campusId: 'example.edu:71ee7e42-f6d2-414a-80db-b69ac2defd4',
      role: 'student',
      course: { id: 'c1d887f0-a1a3-4bca-ae25-c375edcc131a', title: 'Economics as a Social Science' },
      linkId: '200d101f-2c14-434a-a0f3-57c2a42369fd',
      exchangeId: null,
      services: {
        membershipsUrl: null,
        columnsUrl: 'https://www.myuniv.example.com/2344/lineitems/',
        columnUrl: 'https://www.myuniv.example.com/2344/lineitems/1234/lineitem',
        scopes: ['https://purl.imsglobal.org/spec/lti-ags/scope/score'],
      },
      choosing: null,
    });
  });

  it.each([
    ['version', { [CLAIM.version]: '1.1' }],
    ['message-unknown', { [CLAIM.messageType]: 'LtiStartProctoring' }],
    ['deployment-missing', { [CLAIM.deploymentId]: '' }],
    ['anonymous', { sub: undefined }],
    ['no-course', { [CLAIM.context]: undefined }],
    ['no-link', { [CLAIM.resourceLink]: { title: 'without an id' } }],
    ['no-return', { [CLAIM.messageType]: 'LtiDeepLinkingRequest' }],
    [
      'no-return',
      {
        [CLAIM.messageType]: 'LtiDeepLinkingRequest',
        [CLAIM.choosing]: { deep_link_return_url: 'javascript:1', accept_types: ['ltiResourceLink'] },
      },
    ],
    [
      'links-not-accepted',
      {
        [CLAIM.messageType]: 'LtiDeepLinkingRequest',
        [CLAIM.choosing]: { deep_link_return_url: 'https://x.example', accept_types: ['file'] },
      },
    ],
  ])('without what is needed is %s', (fault, change) => {
    expect(readLaunch({ ...EXAMPLE, ...change })).toBe(fault);
  });

  it('takes nothing for granted: whatever is sent, it is read or refused', () => {
    fc.assert(
      fc.property(fc.constantFrom(...Object.keys(EXAMPLE)), fc.jsonValue(), (claim, value) => {
        const read = readLaunch({ ...EXAMPLE, [claim]: value });
        if (typeof read !== 'string') expect(read.user).toBeTruthy();
      }),
      { seed: 31, numRuns: 400 },
    );
  });
});

describe('what comes after arriving', () => {
  const usual: ArrivalFacts = {
    ...{ role: 'student', known: true, linked: true, waiting: null, choosing: false, roleRead: false },
    place: { role: 'student', active: true },
  };
  const waiting = { by: 'tie' as const, taken: false, active: true };
  it.each<[string, Partial<ArrivalFacts>, ReturnType<typeof afterArriving>]>([
    ['a student who is known', {}, 'go'],
    ['the first time', { known: false, place: null }, 'who'],
    ['the first time, with a place of the roster', { known: false, place: null, waiting }, 'who'],
    ['a place with the same address', { known: false, place: null, waiting: { ...waiting, by: 'email' } }, 'prove'],
    ['a place that an account has', { known: false, place: null, waiting: { ...waiting, taken: true } }, 'prove'],
    ['a place that another account has', { place: null, waiting: { ...waiting, taken: true } }, { stop: 'taken' }],
    ['somebody known, new in the course', { place: null }, 'add'],
    ['somebody known, whose place waits', { place: null, waiting }, 'take'],
    ['somebody who was dropped', { place: { role: 'student', active: false } }, { stop: 'dropped' }],
    [
      'somebody who was dropped before ever coming',
      { known: false, place: null, waiting: { ...waiting, active: false } },
      { stop: 'dropped' },
    ],
    ['a course that nobody has set up, a student', { linked: false, place: null }, { stop: 'not-linked' }],
    ['a course that nobody has set up, a teacher', { linked: false, place: null, role: 'instructor' }, 'course'],
    ['a teacher who is new', { linked: false, place: null, known: false, role: 'instructor' }, 'who'],
    ['an instructor here who is a student there', { place: { role: 'instructor', active: true } }, 'role'],
    ['a student here who is an instructor there', { role: 'instructor' }, 'role'],
    ['the same, having read it', { role: 'instructor', roleRead: true }, 'go'],
    ['somebody who only watches', { role: null, place: null }, { stop: 'no-role' }],
    ['somebody who only watches there, and has a place here', { role: null, roleRead: true }, 'go'],
    [
      'an instructor who chooses',
      { role: 'instructor', place: { role: 'instructor', active: true }, choosing: true },
      'choose',
    ],
    ['a student who says to choose', { choosing: true }, { stop: 'not-staff' }],
  ])('%s', (_, change, next) => expect(afterArriving({ ...usual, ...change })).toEqual(next));

  it('gives nobody a place by an address alone, and no role but the one that the course gives', () => {
    const roles = fc.constantFrom<Role | null>('instructor', 'assistant', 'student', null);
    const place = fc.record({
      role: fc.constantFrom<Role>('instructor', 'assistant', 'student'),
      active: fc.boolean(),
    });
    const facts = fc.record({
      ...{
        role: roles,
        known: fc.boolean(),
        linked: fc.boolean(),
        place: fc.option(place),
        choosing: fc.boolean(),
        roleRead: fc.boolean(),
      },
      waiting: fc.option(
        fc.record({ by: fc.constantFrom('tie' as const, 'email' as const), taken: fc.boolean(), active: fc.boolean() }),
      ),
    });
    fc.assert(
      fc.property(facts, (one) => {
        const next = afterArriving(one);
        if (next === 'take') expect(one.waiting).toMatchObject({ by: 'tie', taken: false, active: true });
        if (next === 'go' || next === 'choose') expect(one.known && one.place?.active).toBe(true);
        if (next === 'choose') expect(one.place?.role).toBe('instructor');
        if (next === 'go' && !one.roleRead) expect(one.place?.role).toBe(one.role);
      }),
      { seed: 7, numRuns: 2_000 },
    );
  });
});

describe('members of a course', () => {
  it('are read as the standard shows them', () => {
    // Names and Role Provisioning Services 2.0, section 2.4 (from memory).
    const page = {
      id: 'https://lms.example.com/sections/2923/memberships',
      context: { id: '2923-abc', label: 'CPS 435', title: 'CPS 435 Learning Analytics' },
      members: [
        {
          status: 'Active',
          name: 'Jane Q. Public',
          given_name: 'Jane',
          family_name: 'Doe',
          email: 'Jane@platform.example.edu',
          user_id: '0ae836b9-7fc9-4060-006f-27b2066ac545',
          lis_person_sourcedid: '59254-6782-12ab',
          roles: [`${MEMBERSHIP}#Instructor`],
        },
        { status: 'Inactive', user_id: 'gone', roles: [`${MEMBERSHIP}#Learner`] },
        { user_id: 'bare', roles: ['Learner'] },
        { name: 'without an id' },
        null,
      ],
    };
    expect(readMembers(page)).toEqual({
      members: [
        {
          user: '0ae836b9-7fc9-4060-006f-27b2066ac545',
          name: 'Jane Q. Public',
          email: 'jane@platform.example.edu',
          campusId: '59254-6782-12ab',
          role: 'instructor',
        },
        { user: 'bare', name: null, email: null, campusId: null, role: 'student' },
      ],
      unreadable: 2,
    });
    expect(readMembers({ people: [] })).toBeNull();
    expect(readMembers([])).toBeNull();
  });

  const place = (id: string, part: Partial<PlacedPerson> = {}): PlacedPerson => ({
    ...{ id, name: id, email: `${id}@x.example`, campusId: null, role: 'student', active: true, taken: false },
    ...{ source: 'platform', ltiUser: `u-${id}`, ...part },
  });
  const member = (id: string, part: Partial<LtiMember> = {}): LtiMember => ({
    ...{ user: `u-${id}`, name: id, email: `${id}@x.example`, campusId: null, role: 'student', ...part },
  });

  it('are recognised by the platform’s own id; by what they share with a place, only as a proposal', () => {
    const places = [
      place('ann', { name: 'Ann Old' }),
      place('ben', { source: 'roster', ltiUser: null, name: 'Ben as the roster has it' }),
      place('cho', { source: 'hand', ltiUser: null, taken: true }),
      place('dan', { source: 'roster', ltiUser: 'u-somebody-else' }),
      place('eve', { role: 'assistant' }),
      place('fay', { active: false }),
      place('gus'),
      place('hal', { source: 'roster', ltiUser: null }),
    ];
    const members = [
      ...['ann', 'ben', 'cho', 'dan', 'eve', 'fay', 'new'].map((id) => member(id)),
      member('ann'),
      member('mentor', { role: null }),
    ];
    const { add, update, missing, clashes, twice, roleless, others, unchanged } = compareMembers(places, members);
    expect(add.map(({ user }) => user)).toEqual(['u-new']);
    expect(
      update.map(({ place: { id }, fields, tiedBy, rejoins }) => [id, fields.map(({ to }) => to), tiedBy, rejoins]),
    ).toEqual([
      ['ann', ['ann'], null, false],
      // A place from elsewhere is tied, and its words stay.
      ['ben', [], 'email', false],
      ['fay', [], null, true],
    ]);
    expect(clashes.map(({ place: { id }, code }) => [id, code])).toEqual([
      ['cho', 'own-account'],
      ['dan', 'other-member'],
      ['eve', 'other-role'],
    ]);
    expect([missing.map(({ id }) => id), others, twice, roleless, unchanged]).toEqual([['gus'], 1, 1, 1, 0]);
  });

  const applied = (before: readonly PlacedPerson[], { add, update }: MemberChanges): PlacedPerson[] => [
    ...before.map((one) => {
      const found = update.find(({ place: { id } }) => id === one.id);
      if (found === undefined) return one;
      const fields = Object.fromEntries(found.fields.map(({ field, to }) => [field, to]));
      const ltiUser = found.tiedBy === null ? one.ltiUser : found.member.user;
      return { ...one, ...fields, active: true, ltiUser };
    }),
    ...add.map((one, index): PlacedPerson => ({
      ...place(`n${before.length + index}`, { role: one.role, campusId: one.campusId, ltiUser: one.user }),
      ...{ name: one.name ?? 'Somebody', email: one.email ?? `none${before.length + index}@no-address.invalid` },
    })),
  ];

  it('who say the same again change nothing in the end, whatever they say, and never two places get one address', () => {
    const names = fc.constantFrom('a', 'b', 'c', 'd', 'e');
    const address = fc.option(names.map((one) => `${one}@x.example`));
    const members = fc.array(
      fc.record({
        user: names,
        name: fc.option(names),
        email: address,
        campusId: fc.option(names),
        role: fc.constantFrom<Role | null>('student', 'assistant', null),
      }),
      { maxLength: 8 },
    );
    const places = fc.uniqueArray(
      fc.record({
        ...{
          email: names.map((one) => `${one}@x.example`),
          name: names,
          campusId: fc.option(names),
          taken: fc.boolean(),
          active: fc.boolean(),
        },
        ...{
          ltiUser: fc.option(names),
          source: fc.constantFrom('platform' as const, 'roster' as const),
          role: fc.constantFrom<Role>('student', 'assistant'),
        },
      }),
      { maxLength: 5, selector: ({ email }) => email },
    );
    fc.assert(
      fc.property(places, members, (given, said) => {
        const named = said.map((one) => ({ ...one, campusId: one.campusId === null ? null : `r-${one.user}` }));
        const seen = new Set<string>();
        const before = given.map((one, index): PlacedPerson => {
          const user = one.ltiUser !== null && !seen.has(one.ltiUser) ? one.ltiUser : null;
          if (user !== null) seen.add(user);
          // An id of the registry is a person's for good.
          const campusId = one.campusId === null ? null : `r-${user ?? one.campusId}`;
          return { ...one, id: `p${index}`, ltiUser: user, campusId };
        });
        let places = before;
        // One takes over the address that another one has given up: that is seen the next time.
        for (let night = 0; night < 4; night += 1) {
          const changes = compareMembers(places, named);
          // Nobody who has an account is tied to somebody of the platform without saying so.
          for (const {
            place: { taken },
            tiedBy,
          } of changes.update)
            if (tiedBy !== null) expect(taken).toBe(false);
          const isNews =
            changes.add.length > 0 ||
            changes.update.some(({ fields }) => fields.length !== 1 || fields[0]?.field !== 'email');
          if (night === 3) expect(isNews).toBe(false);
          places = applied(places, changes);
          expect(new Set(places.map(({ email }) => email)).size).toBe(places.length);
          const users = places.flatMap(({ ltiUser }) => ltiUser ?? []);
          expect(new Set(users).size).toBe(users.length);
        }
      }),
      { seed: 1962, numRuns: 1_500 },
    );
  });
});

describe('scores', () => {
  it('are told as the standard has them', () => {
    // Assignment and Grade Services 2.0, section 3.4.7 (from memory): the fields of a score, and its vocabularies of progress.
    const at = Date.UTC(2026, 3, 16, 18, 54, 36, 736);
    expect(scoreBody('5323497', { state: 'graded', value: 83, comment: 'This is exceptional work.' }, at)).toEqual({
      userId: '5323497',
      timestamp: '2026-04-16T18:54:36.736Z',
      scoreGiven: 83,
      scoreMaximum: 100,
      comment: 'This is exceptional work.',
      activityProgress: 'Completed',
      gradingProgress: 'FullyGraded',
    });
    for (const state of ['excused', 'open'] as const) {
      const body = scoreBody('u', { state, value: null, comment: '' }, at);
      expect('scoreGiven' in body).toBe(false);
      expect(body['gradingProgress']).toBe(state === 'excused' ? 'NotReady' : 'Pending');
    }
  });

  it('are read back on the scale of ours, whatever the platform’s', () => {
    const results = readResults([
      { userId: 'a', resultScore: 0.83, resultMaximum: 1 },
      { userId: 'b', resultScore: 83 },
      { userId: 'c' },
      { userId: 'd', resultScore: 'much' },
      { resultScore: 4 },
    ]);
    expect([...(results ?? [])]).toEqual([
      ['a', 83],
      ['b', 83],
      ['c', null],
      ['d', null],
    ]);
    expect(readResults({})).toBeNull();
    expect([sameScore(83, 83.004), sameScore(83, 83.01), sameScore(null, 0), sameScore(null, null)]).toEqual([
      true,
      false,
      false,
      true,
    ]);
  });
});
