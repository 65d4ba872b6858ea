import { generateKeyPairSync, randomUUID } from 'node:crypto';
import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';

/** Everything that the stand-in platform holds; kept in one file of JSON. */

export interface Member {
  readonly id: string;
  readonly given: string;
  readonly family: string;
  readonly email: string | null;
  /** Of the registry of students. */
  readonly number: string | null;
  readonly roles: readonly string[];
  readonly status: 'Active' | 'Inactive' | 'Deleted';
}

export interface Link {
  readonly id: string;
  readonly title: string;
  readonly custom: Readonly<Record<string, string>>;
  readonly columnId: string | null;
}

export interface Column {
  readonly id: string;
  readonly label: string;
  readonly scoreMaximum: number;
  readonly resourceId: string | null;
  readonly tag: string | null;
}

export interface Score {
  /** Null: none. */
  readonly given: number | null;
  readonly maximum: number;
  readonly comment: string;
  readonly grading: string;
  readonly activity: string;
  readonly timestamp: string;
  /** How often it was told. */
  readonly times: number;
}

/** The application that is connected. */
export interface Tool {
  readonly clientId: string;
  readonly deploymentId: string;
  readonly name: string;
  readonly loginUrl: string;
  readonly launchUrl: string;
  readonly keysUrl: string;
}

/** What the platform can be told to do wrong. */
export const FAULTS = {
  slow: 'Answers after five seconds',
  down: 'Answers nothing but “503, be right back”',
  signature: 'Signs with another key than it says',
  unknownKey: 'Signs with a key that it does not publish',
  expired: 'Sends statements that have run out',
  clock: 'Has a clock that is ten minutes ahead',
  page: 'Leaves out the second page of people',
  circle: 'Lists people in pages that go round in a circle',
  refuse: 'Refuses the score of every tenth person',
  shaky: 'Fails every tenth score the first time (500)',
  lost: 'Takes every tenth score, and says 500 all the same, the first time',
  tokens: 'Gives tokens that end after one use, whatever it says',
} as const;
export type Fault = keyof typeof FAULTS;

export interface State {
  readonly course: { readonly id: string; readonly title: string; readonly label: string };
  people: Member[];
  links: Link[];
  columns: Column[];
  /** By column and person. */
  scores: Record<string, Record<string, Score>>;
  tool: Tool | null;
  /** Tokens for those who register. */
  registrations: string[];
  faults: Fault[];
  /** People that are listed at once, at the most. */
  pageSize: number;
  readonly key: { readonly id: string; readonly pem: string };
}

const INSTRUCTOR = 'http://purl.imsglobal.org/vocab/lis/v2/membership#Instructor';
const LEARNER = 'http://purl.imsglobal.org/vocab/lis/v2/membership#Learner';
const ASSISTANT = 'http://purl.imsglobal.org/vocab/lis/v2/membership/Instructor#TeachingAssistant';
const MENTOR = 'http://purl.imsglobal.org/vocab/lis/v2/membership#Mentor';

/** Invented people; any likeness of name is chance. One passes on no address, one has no number, one only watches. */
const STUDENTS: ReadonlyArray<readonly [given: string, family: string]> = [
  ['Anouk', 'Vermeer'],
  ['Bashir', 'Noorzai'],
  ['Célia', 'Duarte'],
  ['Dmitri', 'Orlov'],
  ['Efua', 'Boateng'],
  ['Finn', 'Halvorsen'],
  ['Giulia', 'Renzi'],
  ['Hiroshi', 'Tanabe'],
];

export function peopleOfCourse(): Member[] {
  const students = STUDENTS.map(([given, family], index): Member => ({
    ...{ id: `u-${2001 + index}`, given, family, roles: [LEARNER], status: 'Active' },
    email: index === 6 ? null : `${plain(given)}.${plain(family)}@northmere.example`,
    number: index === 3 ? null : `N${71001 + index}`,
  }));
  return [
    {
      id: 'u-1001',
      given: 'Odile',
      family: 'Brandt',
      email: 'odile.brandt@northmere.example',
      number: 'S100',
      roles: [INSTRUCTOR],
      status: 'Active',
    },
    {
      id: 'u-1002',
      given: 'Kofi',
      family: 'Adomako',
      email: 'kofi.adomako@northmere.example',
      number: 'S101',
      roles: [INSTRUCTOR, ASSISTANT],
      status: 'Active',
    },
    ...students,
    { id: 'u-3001', given: 'Mona', family: 'Wiles', email: null, number: null, roles: [MENTOR], status: 'Active' },
  ];
}

function plain(name: string): string {
  return name.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
}

/** Made once for all platforms of a process: making it takes up to a second, and each has an address of its own. */
let firstKey: string | null = null;

export function newState(): State {
  firstKey ??= generateKeyPairSync('rsa', {
    modulusLength: 2048,
    privateKeyEncoding: { type: 'pkcs8', format: 'pem' },
    publicKeyEncoding: { type: 'spki', format: 'pem' },
  }).privateKey;
  return {
    course: { id: 'c-river-210', title: 'Reading Rivers', label: 'RIV 210' },
    people: peopleOfCourse(),
    ...{ links: [], columns: [], scores: {}, tool: null, registrations: [], faults: [], pageSize: 5 },
    key: { id: randomUUID(), pem: firstKey },
  };
}

/** The state in its file: written under another name and renamed, so that it is there as a whole or not at all. */
export class Store {
  readonly state: State;

  /** @param file null to keep nothing */
  constructor(private readonly file: string | null) {
    this.state = file !== null && existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as State) : newState();
    this.keep();
  }

  keep(): void {
    if (this.file === null) return;
    const text = JSON.stringify(this.state, null, 2);
    writeFileSync(`${this.file}.new`, text, { mode: 0o600 });
    renameSync(`${this.file}.new`, this.file);
  }

  has(fault: Fault): boolean {
    return this.state.faults.includes(fault);
  }

  member(id: string): Member | undefined {
    return this.state.people.find((one) => one.id === id);
  }
}

/** What is no text is none. */
export function textOf(value: unknown): string {
  return typeof value === 'string' ? value : '';
}

export function nameOf({ given, family }: Member): string {
  return `${given} ${family}`;
}

export function isStaff({ roles }: Member): boolean {
  return roles.includes(INSTRUCTOR);
}
