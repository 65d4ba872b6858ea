import { strToU8, zipSync } from 'fflate';

/**
 * What somebody hostile can send, bounded in count and time, against the server's own port only. Each act answers with what the
 * server said: status and bytes of each answer.
 *
 * @typedef {object} Target
 * @property {string} base where the server listens
 * @property {string} staff cookie of an instructor of the course
 * @property {string} student cookie of a student of the exchange
 * @property {string} classmate cookie of another one
 * @property {string} courseId
 * @property {string} exchangeId drafts are being written; it takes a text and files
 * @property {{ text: string, files: string }} deliverables
 */

/** @param {Target} target */
export async function ask({ base }, method, path, { cookie = '', body, headers = {} } = {}) {
  const response = await fetch(`${base}/api${path}`, {
    method,
    headers: { 'x-salt-circle': '1', 'content-type': 'application/json', cookie, ...headers },
    ...(body !== undefined && { body }),
  }).catch((error) => ({ status: 0, error, text: () => Promise.resolve('') }));
  const text = await response.text().catch(() => '');
  return { status: response.status, bytes: text.length, text, headers: response.headers };
}

const base64 = (bytes) => Buffer.from(bytes).toString('base64');
const flat = (keys) => `{${Array.from({ length: keys }, (_, index) => `"k${index}":1`).join(',')}}`;
const source = (part) => JSON.stringify({ text: null, base64: null, classIds: [], traitColumn: null, ...part });

/** A bundle whose one table unpacks to very much. */
export function lineEnds(count, lie = false) {
  const zip = zipSync({ 'users.csv': new Uint8Array(count).fill(10) }, { level: 9 });
  if (!lie) return zip;
  // The size that it says of itself, in the local header and in the directory: ten bytes.
  const view = new DataView(zip.buffer, zip.byteOffset, zip.byteLength);
  for (let at = 0; at + 28 < zip.length; at += 1) {
    const mark = view.getUint32(at, true);
    if (mark === 0x04034b50) view.setUint32(at + 22, 10, true);
    if (mark === 0x02014b50) view.setUint32(at + 24, 10, true);
  }
  return zip;
}

const TYPES =
  '<?xml version="1.0"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="xml" ContentType="application/xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>';
const BODY =
  '<?xml version="1.0"?><w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body><w:p><w:r><w:t>The bed rose.</w:t></w:r></w:p></w:body></w:document>';

/** A document with properties of one's own making. */
export function documentWith(core, body = BODY) {
  return zipSync({
    '[Content_Types].xml': strToU8(TYPES),
    '_rels/.rels': strToU8(
      '<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>',
    ),
    'word/document.xml': strToU8(body),
    'docProps/core.xml': strToU8(core),
  });
}

/** @param {Target} target @returns the answer to adding it to the draft, or the refusal before it */
export async function attach(target, cookie, bytes, name = 'draft.docx') {
  const { exchangeId, deliverables } = target;
  const metadata = Object.entries({ exchange: exchangeId, deliverable: deliverables.files, name, use: 'part' })
    .map(([key, value]) => `${key} ${base64(value)}`)
    .join(',');
  const begun = await ask(target, 'POST', '/uploads', {
    cookie,
    headers: { 'tus-resumable': '1.0.0', 'upload-length': String(bytes.length), 'upload-metadata': metadata },
  });
  const id = (begun.headers?.get('location') ?? '').split('/').at(-1);
  if (begun.status !== 201) return begun;
  await ask(target, 'PATCH', `/uploads/${id}`, {
    cookie,
    body: bytes,
    headers: {
      'tus-resumable': '1.0.0',
      'upload-offset': '0',
      'content-type': 'application/offset+octet-stream',
    },
  });
  return ask(target, 'POST', `/exchanges/${exchangeId}/draft/files`, {
    cookie,
    body: JSON.stringify({ uploadId: id }),
  });
}

const roster = (target, part) =>
  ask(target, 'POST', `/courses/${target.courseId}/people/roster/preview`, {
    cookie: target.staff,
    body: source(part),
  });
const form = (target, body) =>
  ask(target, 'PUT', `/exchanges/${target.exchangeId}/form`, { cookie: target.staff, body });
const autosave = (target, html) =>
  ask(target, 'PUT', `/exchanges/${target.exchangeId}/draft/texts/${target.deliverables.text}`, {
    cookie: target.student,
    body: JSON.stringify({ revision: 0, html }),
  });

const check = (target, cookie) => ask(target, 'GET', `/exchanges/${target.exchangeId}/draft/check`, { cookie });

/** Writes a text that is slow to search for names, and has it checked, three times at once. */
async function checked(target, text) {
  const draft = JSON.parse(
    (await ask(target, 'GET', `/exchanges/${target.exchangeId}/draft`, { cookie: target.student })).text,
  );
  const { revision = 0 } = draft.texts[target.deliverables.text] ?? {};
  await ask(target, 'PUT', `/exchanges/${target.exchangeId}/draft/texts/${target.deliverables.text}`, {
    cookie: target.student,
    body: JSON.stringify({ revision, html: `<p>${text}</p>` }),
  });
  const answers = await Promise.all([
    check(target, target.student),
    check(target, target.student),
    check(target, target.student),
  ]);
  return answers.find(({ status }) => ![200, 503].includes(status)) ?? answers[0];
}

/** Name, the act, and by which statuses it is refused. */
export const ACTS = [
  ['50,000 unknown keys to sign-in', (target) => ask(target, 'POST', '/session', { body: flat(50_000) }), [413]],
  [
    '50,000 unknown keys to an invitation',
    (target) => ask(target, 'POST', '/invitations/none', { body: flat(50_000) }),
    [413],
  ],
  [
    '300,000 unknown keys by nobody to a page of somebody',
    (target) => ask(target, 'PUT', `/exchanges/${target.exchangeId}/form`, { body: flat(300_000) }),
    [401, 0],
  ],
  ['300,000 unknown keys', (target) => form(target, flat(300_000)), [400]],
  ['a million empty objects', (target) => form(target, `{"revision":1,"items":[${'{},'.repeat(1_000_000)}{}]}`), [400]],
  ['5,000 levels', (target) => form(target, `${'{"items":'.repeat(5_000)}1${'}'.repeat(5_000)}`), [400]],
  [
    'a roster of 24 million line ends in a ZIP',
    (target) => roster(target, { base64: base64(lineEnds(24_000_000)) }),
    [422],
  ],
  ['a ZIP that lies about its size', (target) => roster(target, { base64: base64(lineEnds(24_000_000, true)) }), [422]],
  [
    'a header of 1.2 million cells',
    (target) => roster(target, { text: `name,email${',a'.repeat(1_200_000)}\nb,c` }),
    [422],
  ],
  ['600,000 bad rows', (target) => roster(target, { text: `name,email\n${'x,y\n'.repeat(600_000)}` }), [422]],
  ['4,900 bad rows', (target) => roster(target, { text: `name,email\n${'x,y\n'.repeat(4_900)}` }), [200]],
  [
    'a document with 2 million open tags in its properties',
    (target) => attach(target, target.student, documentWith('<a>'.repeat(2_000_000))),
    [422],
  ],
  [
    'a document with 80,000 cut-off tags in its properties',
    (target) => attach(target, target.student, documentWith('<dc:creator '.repeat(80_000))),
    [201, 422],
  ],
  ['44,000 nested elements in an autosave', (target) => autosave(target, '<b><i><p>'.repeat(44_000)), [422]],
  ['an autosave of 49,900 paragraphs', (target) => autosave(target, '<p>a</p>'.repeat(49_900)), [422]],
  ['an autosave of 20,000 paragraphs', (target) => autosave(target, '<p>12345678</p>'.repeat(20_000)), [200, 409]],
  ['16,000 combining marks are checked for names', (target) => checked(target, `a${'\u0301'.repeat(16_000)}`), [200]],
  ['18,000 initials of the author are checked for names', (target) => checked(target, 'V L '.repeat(4_500)), [200]],
  ['a roster of 4,900 people is applied', rosterApplied, [200, 422]],
  ['80 wrong sign-ins at once', (target) => wrongSignIns(target, 80), [401, 429, 503]],
];

/** Nobody of them gets mail; the second time they are there already. */
async function rosterApplied(target) {
  const rows = Array.from({ length: 4_900 }, (_, index) => `Student ${index},s${index}@example.org`);
  const text = ['name,email', ...rows].join('\n');
  const previewed = await roster(target, { text });
  const { fingerprint } = JSON.parse(previewed.text);
  const body = { ...JSON.parse(source({ text })), dropMissing: false, invite: false, fingerprint };
  return ask(target, 'POST', `/courses/${target.courseId}/people/roster`, {
    cookie: target.staff,
    body: JSON.stringify(body),
  });
}

/** Each for another account, or the count of tries would answer. */
async function wrongSignIns(target, count) {
  const answers = await Promise.all(
    Array.from({ length: count }, (_, index) =>
      ask(target, 'POST', '/session', {
        body: JSON.stringify({ email: `nobody${index}@example.org`, password: 'not it' }),
      }),
    ),
  );
  const bytes = Math.max(...answers.map((answer) => answer.bytes));
  const worst = answers.find(({ status }) => ![401, 429, 503].includes(status)) ?? answers[0];
  return { ...worst, bytes };
}

/** What a class does when a lesson begins: a busy moment that everybody bears, as a measure of the machine. */
export async function classAtWork(target) {
  const { exchangeId, courseId, staff, student, classmate } = target;
  const paths = [
    [staff, `/exchanges/${exchangeId}/progress`],
    [staff, `/courses/${courseId}/people`],
    [staff, `/exchanges/${exchangeId}/plan`],
    [student, '/today'],
    [classmate, `/exchanges/${exchangeId}/draft`],
  ];
  const all = await Promise.all(
    Array.from({ length: 60 }, (_, index) => {
      const [cookie, path] = paths[index % paths.length];
      return ask(target, 'GET', path, { cookie });
    }),
  );
  return all[0];
}
