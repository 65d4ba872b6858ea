import fc from 'fast-check';
import { compareRoster, type Enrolled } from './compareRoster.js';
import { divide } from './divide.js';
import { byFamilyName } from './familyName.js';
import { readGroupRows } from './groupRows.js';
import { readOneRoster, rosterOfClasses, type BundleFiles } from './oneRoster.js';
import { readRoster, type RosterEntry } from './roster.js';

describe('readRoster', () => {
  // Headings as campus systems of these countries write them: common practice, no source.
  const ABROAD: ReadonlyArray<readonly [header: string, row: string, name: string]> = [
    ['Name;Vorname;E-Mail-Adresse;Matrikelnummer;Gruppe', 'Müller;Anna;a@example.org;4711;A', 'Anna Müller'],
    ['Nachname;Vorname;E-Mail;Matrikel-Nr.;Kurs', 'Müller;Anna;a@example.org;4711;A', 'Anna Müller'],
    ['Nom;Prénom;Adresse e-mail;Matricule;Groupe', 'Müller;Anna;a@example.org;4711;A', 'Anna Müller'],
    ['Nombre;Apellidos;Correo electrónico;Matrícula;Grupo', 'Anna;Müller;a@example.org;4711;A', 'Anna Müller'],
  ];
  it.each(ABROAD)('knows the headings %s', (header, row, name) => {
    const { entries, problems } = readRoster([header.split(';'), row.split(';')]);
    expect(problems).toEqual([]);
    expect(entries).toMatchObject([{ name, email: 'a@example.org', campusId: '4711', section: 'A' }]);
  });

  it('finds columns in any order and under several names', () => {
    const { entries, header, problems } = readRoster([
      ['E-mail', 'Student ID', 'Surname', 'First name', 'Tutorial', 'Year'],
      ['Ann@Example.org', 'c-1', 'Mensah', 'Ann', 'Tue 10', '2'],
    ]);
    expect(problems).toEqual([]);
    expect(header.unknown).toEqual(['Year']);
    expect(entries).toEqual([
      {
        row: 2,
        name: 'Ann Mensah',
        email: 'ann@example.org',
        campusId: 'c-1',
        section: 'Tue 10',
        trait: null,
        role: 'student',
      },
    ]);
  });

  it('turns “Family, Given” round, skips blank rows, and takes a column to mix by', () => {
    const { entries } = readRoster(
      [
        ['Name', 'Email', 'Programme'],
        ['', '', ''],
        ['Kiss,  Ben', 'ben@example.org', 'Biology'],
      ],
      'Programme',
    );
    expect(entries).toMatchObject([{ row: 3, name: 'Ben Kiss', trait: 'Biology' }]);
  });

  const HEADER = ['name', 'email', 'campus id', 'role'];
  const cases: Array<[string, string[][], Array<[number, string]>]> = [
    [
      'an address twice',
      [
        ['A', 'a@x.org', '1'],
        ['B', 'A@x.org', '2'],
      ],
      [[3, 'email-twice']],
    ],
    [
      'an id twice',
      [
        ['A', 'a@x.org', '1'],
        ['B', 'b@x.org', '1'],
      ],
      [[3, 'campus-id-twice']],
    ],
    ['an id missing, which is a warning', [['A', 'a@x.org', '']], [[2, 'campus-id-missing']]],
    ['no name', [['', 'a@x.org', '1']], [[2, 'name-missing']]],
    [
      'no address, and none that is one',
      [
        ['A', '', '1'],
        ['B', 'b at x', '2'],
      ],
      [
        [2, 'email-missing'],
        [3, 'email-invalid'],
      ],
    ],
    ['an unknown role', [['A', 'a@x.org', '1', 'dean']], [[2, 'role-unknown']]],
    ['more cells than columns', [['A', 'a@x.org', '1', '', 'extra']], [[2, 'row-cells']]],
    ['an endless name', [['A'.repeat(201), 'a@x.org', '1']], [[2, 'value-too-long']]],
  ];
  it.each(cases)('names the row of %s', (_, rows, expected) => {
    const { problems, entries } = readRoster([HEADER, ...rows]);
    expect(problems.map(({ row, code }) => [row, code])).toEqual(expected);
    const errors = problems.filter(({ warning }) => !warning).map(({ row }) => row);
    expect(entries.map(({ row }) => row).some((row) => errors.includes(row))).toBe(false);
  });

  it('says which column is missing, or there twice', () => {
    expect(readRoster([['name'], ['A']]).problems).toMatchObject([
      { code: 'column-missing', facts: { column: 'email' } },
    ]);
    expect(
      readRoster([
        ['name', 'email', 'Mail'],
        ['A', 'a@x.org', 'b@x.org'],
      ]).problems,
    ).toMatchObject([{ code: 'column-twice' }]);
    expect(readRoster([['name', 'email']]).problems).toMatchObject([{ row: 0, code: 'roster-empty' }]);
  });
});

describe('compareRoster', () => {
  const entry = (part: Partial<RosterEntry>): RosterEntry => ({
    row: 2,
    name: 'Ann Mensah',
    email: 'ann@example.org',
    campusId: 'c-1',
    section: null,
    trait: null,
    role: 'student',
    ...part,
  });
  const enrolled = (part: Partial<Enrolled> = {}): Enrolled => ({
    id: 'e-1',
    active: true,
    ...entry({}),
    ...part,
  });
  const ALL = { campusId: true, section: true, trait: true };

  it('changes nothing by the same roster a second time', () => {
    const changes = compareRoster([enrolled()], [entry({})], ALL);
    expect(changes).toEqual({ add: [], update: [], missing: [], unchanged: 1, clashes: [], ofPlatform: 0 });
  });

  it('adds, updates, takes back and misses, each by campus id first', () => {
    const people = [
      enrolled(),
      enrolled({ id: 'e-2', email: 'ben@example.org', campusId: 'c-2', active: false }),
      enrolled({ id: 'e-3', email: 'cho@example.org', campusId: 'c-3' }),
      enrolled({ id: 'e-4', email: 'ines@example.org', campusId: null, role: 'instructor' }),
    ];
    const changes = compareRoster(
      people,
      [
        entry({ email: 'ann.new@example.org', section: 'B' }),
        entry({ email: 'ben@example.org', campusId: 'c-2' }),
        entry({ email: 'dee@example.org', campusId: 'c-9' }),
      ],
      ALL,
    );
    expect(changes.add.map(({ email }) => email)).toEqual(['dee@example.org']);
    expect(
      changes.update.map(({ enrolled: { id }, fields, rejoins }) => [id, fields.map(({ field }) => field), rejoins]),
    ).toEqual([
      ['e-1', ['email', 'section'], false],
      ['e-2', [], true],
    ]);
    expect(changes.missing.map(({ id }) => id)).toEqual(['e-3']);
  });

  it('leaves what the file says nothing of, and takes a name as the file has it', () => {
    const changes = compareRoster([enrolled({ section: 'A' })], [entry({ name: 'A. Mensah' })], {
      campusId: true,
      section: false,
      trait: false,
    });
    expect(changes.update.map(({ fields }) => fields)).toEqual([
      [{ field: 'name', from: enrolled().name, to: 'A. Mensah' }],
    ]);
  });

  it('makes of nobody another person: an address with another id, and two rows for one, are told', () => {
    const known = enrolled({ campusId: 'c-1', email: 'ann@example.org' });
    const other = compareRoster(
      [known],
      [entry({ campusId: 'c-9', email: 'ann@example.org', name: 'Someone else' })],
      ALL,
    );
    expect([other.update, other.add, other.clashes.map(({ code, warning }) => [code, warning])]).toEqual([
      [],
      [],
      [['other-id', false]],
    ]);
    // Nobody is dropped because of it.
    expect(other.missing).toEqual([]);
    const twice = compareRoster(
      [known],
      [
        entry({ row: 2, campusId: 'c-1', email: 'new@example.org' }),
        entry({ row: 3, campusId: null, email: 'ann@example.org' }),
      ],
      ALL,
    );
    expect(twice.clashes).toMatchObject([{ code: 'met-twice', firstRow: 2, entry: { row: 3 }, warning: false }]);
    // Who had no id yet gets one.
    const fresh = compareRoster([enrolled({ campusId: null })], [entry({ campusId: 'c-9' })], ALL);
    expect(fresh.update.map(({ fields }) => fields.map(({ field }) => field))).toEqual([['campusId']]);
  });

  it('does not guess when id and address belong to two people', () => {
    const two = [enrolled(), enrolled({ id: 'e-2', email: 'ben@example.org', campusId: 'c-2' })];
    const { clashes, update, missing } = compareRoster(two, [entry({ email: 'ben@example.org' })], ALL);
    expect([clashes[0]?.code, clashes[0]?.warning, update, missing]).toEqual(['two-people', false, [], []]);
  });
});

describe('readOneRoster', () => {
  // Column names of 1EdTech OneRoster 1.2, CSV binding; the people are invented.
  const BUNDLE: BundleFiles = {
    'manifest.csv': [
      ['propertyName', 'value'],
      ['manifest.version', '1.0'],
      ['oneroster.version', '1.2'],
      ['file.users', 'bulk'],
      ['file.enrollments', 'bulk'],
      ['file.classes', 'bulk'],
      ['file.orgs', 'absent'],
    ],
    'users.csv': [
      [
        'sourcedId',
        'status',
        'dateLastModified',
        'enabledUser',
        'username',
        'userIds',
        'givenName',
        'familyName',
        'middleName',
        'identifier',
        'email',
      ],
      ['u1', '', '', 'true', 'ann', '', 'Ann', 'Mensah', '', 'c-1', 'Ann@example.org'],
      ['u2', '', '', 'true', 'ben', '', 'Ben', 'Kiss', '', '', 'ben@example.org'],
      ['u3', '', '', 'true', 'ines', '', 'Ines', 'Marchetti', '', '', 'ines@example.org'],
      ['u4', '', '', 'true', 'non', '', 'Nona', 'Mail', '', '', ''],
    ],
    'enrollments.csv': [
      [
        'sourcedId',
        'status',
        'dateLastModified',
        'classSourcedId',
        'schoolSourcedId',
        'userSourcedId',
        'role',
        'primary',
      ],
      ['e1', '', '', 'k1', 's1', 'u1', 'student', ''],
      ['e2', '', '', 'k2', 's1', 'u2', 'student', ''],
      ['e3', 'tobedeleted', '', 'k1', 's1', 'u2', 'student', ''],
      ['e4', '', '', 'k1', 's1', 'u3', 'teacher', 'true'],
      ['e5', '', '', 'k1', 's1', 'u4', 'student', ''],
    ],
    'classes.csv': [
      ['sourcedId', 'status', 'dateLastModified', 'title', 'grades', 'courseSourcedId'],
      ['k1', '', '', 'Tuesday', '', 'c1'],
      ['k2', '', '', 'Thursday', '', 'c1'],
    ],
    'courses.csv': [
      ['sourcedId', 'status', 'dateLastModified', 'schoolYearSourcedId', 'title'],
      ['c1', '', '', '', 'Coastal Restoration'],
    ],
  };

  it('reads classes with their people, roles and ids', () => {
    const bundle = readOneRoster(BUNDLE);
    expect(bundle.problems).toMatchObject([{ code: 'bundle-email-missing', warning: true, row: 5 }]);
    expect(bundle.classes.map(({ title, course, students }) => [title, course, students])).toEqual([
      ['Tuesday', 'Coastal Restoration', 1],
      ['Thursday', 'Coastal Restoration', 1],
    ]);
    expect(rosterOfClasses(bundle, ['k1', 'k2'])).toMatchObject([
      { email: 'ann@example.org', campusId: 'c-1', section: 'Tuesday', role: 'student' },
      { email: 'ines@example.org', campusId: 'u3', section: null, role: 'instructor' },
      { email: 'ben@example.org', campusId: 'u2', section: 'Thursday' },
    ]);
    expect(rosterOfClasses(bundle, ['k2'])).toMatchObject([{ section: null }]);
  });

  it('says what is missing, and refuses another version', () => {
    const problems = (files: BundleFiles) =>
      readOneRoster(files).problems.map(({ code, facts }) => [code, Object.values(facts)]);
    expect(problems({ ...BUNDLE, 'users.csv': undefined })).toEqual([['bundle-file-missing', ['users.csv']]]);
    expect(
      problems({
        ...BUNDLE,
        'manifest.csv': [
          ['propertyName', 'value'],
          ['oneroster.version', '2.0'],
        ],
      }),
    ).toEqual([['bundle-version', ['2.0']]]);
    expect(
      problems({
        ...BUNDLE,
        'classes.csv': [
          ['sourcedId', 'title'],
          ['k1', 'Tue'],
        ],
      }),
    ).toEqual([['bundle-column-missing', ['classes.csv', 'courseSourcedId']]]);
  });
});

describe('groups', () => {
  const people = ['ann', 'ben', 'cho'].map((name, index) => ({
    id: name,
    email: `${name}@x.org`,
    campusId: String(index),
  }));
  it('are read by address or campus id, a title in any case', () => {
    const { groups, problems } = readGroupRows(
      [
        ['Team', 'Email', 'ID'],
        ['Herons', 'ann@x.org', ''],
        ['herons', '', '1'],
        ['Knots', 'Cho@x.org', ''],
      ],
      people,
    );
    expect(problems).toEqual([]);
    expect(groups).toEqual([
      { title: 'Herons', memberIds: ['ann', 'ben'] },
      { title: 'Knots', memberIds: ['cho'] },
    ]);
  });

  it('name the row of somebody unknown, twice there, or without a group', () => {
    const rows = [
      ['group', 'email'],
      ['A', 'ann@x.org'],
      ['B', 'ann@x.org'],
      ['B', 'who@x.org'],
      ['', 'ben@x.org'],
    ];
    expect(readGroupRows(rows, people).problems.map(({ row, code }) => [row, code])).toEqual([
      [3, 'person-twice'],
      [4, 'person-unknown'],
      [5, 'group-missing'],
    ]);
  });

  it('divided at random take everybody once, even in size and in every trait', () => {
    const many = fc.array(fc.constantFrom('A', 'B', 'C', null), { minLength: 1, maxLength: 60 });
    fc.assert(
      fc.property(
        many,
        fc.integer({ min: 1, max: 12 }),
        fc.constantFrom('count', 'size'),
        fc.nat(),
        (traits, size, by, seed) => {
          const list = traits.map((trait, index) => ({ id: String(index), trait }));
          const groups = divide(list, { by, number: size, seed }, ({ trait }) => trait);
          expect(groups.flat().sort()).toEqual(list.map(({ id }) => id).sort());
          const spread = (count: (group: string[]) => number) => {
            const counts = groups.map(count);
            return Math.max(...counts) - Math.min(...counts);
          };
          expect(spread((group) => group.length)).toBeLessThanOrEqual(1);
          for (const trait of new Set(traits)) {
            expect(
              spread((group) => group.filter((id) => list[Number(id)]?.trait === trait).length),
            ).toBeLessThanOrEqual(1);
          }
          expect(divide(list, { by, number: size, seed }, (one) => one.trait)).toEqual(groups);
        },
      ),
      { seed: 1962 },
    );
  });

  // Common practice: 23 people in groups of four make five groups of four and one of three.
  it('leave no small rest', () => {
    const list = Array.from({ length: 23 }, (_, index) => ({ id: String(index) }));
    expect(
      divide(list, { by: 'size', number: 4, seed: 1 })
        .map((group) => group.length)
        .sort(),
    ).toEqual([3, 4, 4, 4, 4, 4]);
    expect(() => divide(list, { by: 'size', number: 0, seed: 1 })).toThrow('whole number');
  });
});

describe('the order of names', () => {
  it('goes by the last word or by what stands before a comma, then by the rest', () => {
    const names = ['Zoë Abel', 'Ana van der Berg', 'Adjo, Ama', 'Li Chen', 'Sammy Davis, Jr.', 'Bo Abel', 'Cher', ''];
    const collator = new Intl.Collator('en');
    expect([...names].sort((a, b) => collator.compare(byFamilyName(a), byFamilyName(b)))).toEqual([
      ...['', 'Bo Abel', 'Zoë Abel', 'Adjo, Ama', 'Ana van der Berg', 'Li Chen', 'Cher', 'Sammy Davis, Jr.'],
    ]);
  });
});
