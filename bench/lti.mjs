import { readFileSync, rmSync } from 'node:fs';
import { performance } from 'node:perf_hooks';
import Database from 'better-sqlite3';
import { at, built, installed, startServer } from '../scripts/run.mjs';
import { benchEnv, callsTo, line, round, stopped, timed } from './calls.mjs';
import { addBenchCourse } from './course.mjs';

// Coming by a platform against signing in; a roster of 5,000 by pages; 600 scores to a platform that fails one in ten; memory.

const PORT = '4619';
const base = `http://localhost:${PORT}`;
const { call, cookieOf } = callsTo(base);
const LEARNER = 'http://purl.imsglobal.org/vocab/lis/v2/membership#Learner';
const SCOPES = ['lineitem', 'result.readonly', 'score'].map(
  (one) => `https://purl.imsglobal.org/spec/lti-ags/scope/${one}`,
);

/** Megabytes: the most that the server has had. */
const mostMemory = ({ pid }) => Number(/VmHWM:\s*(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1]) / 1024;

const member = (index) => ({
  ...{
    id: `u-${index}`,
    given: 'Person',
    family: `No. ${index}`,
    email: `m${index}@platform.example`,
    number: `N${index}`,
  },
  ...{ roles: [LEARNER], status: 'Active' },
});

const fieldsIn = (html) =>
  Object.fromEntries([...html.matchAll(/name="([^"]+)" value="([^"]*)"/g)].map(([, name, value]) => [name, value]));

/** A browser of somebody of the platform, without pictures: from the press on a link to what the first page asks for. */
async function launch(platform, person) {
  const jar = new Map();
  const go = async (url, form) => {
    const answer = await fetch(url, {
      redirect: 'manual',
      headers: { cookie: [`stand_in=${person}`, ...[...jar].map((one) => one.join('='))].join('; ') },
      ...(form && { method: 'POST', body: new URLSearchParams(form) }),
    });
    for (const cookie of answer.headers.getSetCookie()) jar.set(...cookie.split(';')[0].split(/=(.*)/s));
    return { to: answer.headers.get('location'), text: await answer.text() };
  };
  const begun = await go(`${platform.url}/open/link-1`);
  const sent = await go(begun.to);
  await go(`${base}/api/lti/launch`, fieldsIn((await go(sent.to)).text));
  const cookie = [...jar].map((one) => one.join('=')).join('; ');
  for (const path of ['/session', '/today']) await call(path, 'GET', undefined, cookie);
}

async function signIn(email) {
  const response = await call('/session', 'POST', { email, password: 'saltmarsh' });
  const [cookie] = response.headers.getSetCookie()[0].split(';');
  for (const path of ['/session', '/today']) await call(path, 'GET', undefined, cookie);
}

/** Ties the course and its people to those of the platform, and gives the exchange a grade that is released. */
function link(folder, platform, { courseId, exchangeId }) {
  const database = new Database(`${folder}/salt-circle.sqlite`);
  const service = `${platform.url}/services/c-river-210`;
  const services = {
    membershipsUrl: `${service}/members`,
    columnsUrl: `${service}/columns`,
    columnUrl: null,
    scopes: SCOPES,
  };
  const { id: platformId } = database.prepare('SELECT id FROM platform').get();
  database
    .prepare(
      'INSERT INTO lti_course (courseId, platformId, deploymentId, contextId, title, services) VALUES (?, ?, ?, ?, ?, ?)',
    )
    .run(courseId, platformId, 'northmere-1', 'c-river-210', 'Bench', JSON.stringify(services));
  const students = database
    .prepare("SELECT id FROM enrolment WHERE courseId = ? AND role = 'student' ORDER BY id")
    .all(courseId);
  const tie = database.prepare('UPDATE enrolment SET ltiUser = ? WHERE id = ?');
  students.forEach(({ id }, index) => tie.run(`u-${index}`, id));
  database
    .prepare('UPDATE exchange SET gradeParts = ?, gradesRelease = 0 WHERE id = ?')
    .run(JSON.stringify([{ part: 'handing-in', weight: 1 }]), exchangeId);
  database.close();
}

const until = async (done) => {
  const begun = performance.now();
  while (!(await done())) await new Promise((next) => setTimeout(next, 500));
  return performance.now() - begun;
};

export async function platformFigures({ line, round }) {
  await installed();
  await built();
  const { StandInPlatform } = await import(at('apps', 'platform', 'dist', 'index.js'));
  const folder = at('.cache', 'bench-platform');
  rmSync(folder, { recursive: true, force: true });
  const tool = { clientId: 'salt-circle-demo', deploymentId: 'northmere-1', name: 'Salt Circle' };
  const our = `${base}/api/lti`;
  const platform = await StandInPlatform.start({
    ...{ port: 0, file: null },
    tool: { ...tool, loginUrl: `${our}/login`, launchUrl: `${our}/launch`, keysUrl: `${our}/keys` },
  });
  const { state } = platform.store;
  state.pageSize = 100;
  const env = { ...benchEnv(folder, PORT), SALT_CIRCLE_DEMO_PLATFORM: platform.url };
  await stopped(await startServer(env));
  const course = await addBenchCourse(folder, { students: 600 });
  const database = new Database(`${folder}/salt-circle.sqlite`);
  const { courseId } = database.prepare('SELECT courseId FROM exchange WHERE id = ?').get(course.exchangeId);
  const { email } = database.prepare("SELECT email FROM person WHERE email LIKE 'farida%'").get();
  database.close();
  link(folder, platform, { courseId, exchangeId: course.exchangeId });
  state.people = Array.from({ length: 600 }, (_, index) => member(index));
  const server = await startServer(env);
  const cookie = await cookieOf(course.instructorId);
  const begin = mostMemory(server);

  // Known from the second time on: the first one is asked who it is.
  const ours = new Database(`${folder}/salt-circle.sqlite`);
  const { personId } = ours.prepare("SELECT personId FROM enrolment WHERE ltiUser = 'u-0'").get();
  ours.prepare('INSERT INTO lti_person SELECT id, ?, ?, 0 FROM platform').run('u-0', personId);
  ours.close();
  const signing = await timed(() => signIn(email), 15);
  const coming = await timed(() => launch(platform, 'u-0'), 15);
  line('launch to the data of the first page : sign-in by password', round(coming / signing, 2), `${round(coming)} ms`);

  const preview = () => call(`/courses/${courseId}/platform/people/preview`, 'POST', undefined, cookie);
  const asked = async () => {
    const begun = performance.now();
    const shown = await preview();
    return { shown, took: performance.now() - begun };
  };
  await preview();
  const few = await asked();
  state.people = Array.from({ length: 5_000 }, (_, index) => member(index));
  const many = await asked();
  line(
    'people of a platform, 5,000 in 50 pages, seen : 600 in 6',
    round(many.took / few.took),
    `${round(many.took, 0)} ms`,
  );
  state.people.length = 600;

  // Bare: as many scores told to the platform by nobody of ours.
  const bare = await (async () => {
    const begun = performance.now();
    for (let index = 0; index < 600; index += 1) await fetch(`${platform.url}/keys`);
    return performance.now() - begun;
  })();
  state.faults = ['shaky'];
  const book = `/exchanges/${course.exchangeId}/gradebook`;
  const begun = performance.now();
  await call(book, 'PUT', { columns: 'whole', removeThere: false }, cookie);
  const first = performance.now() - begun;
  const given = () => Object.values(state.scores[state.columns[0]?.id] ?? {});
  const atFirst = given().length;
  await until(async () => (await call(book, 'GET', undefined, cookie)).counts.sent === 600);
  const twice = given().filter(({ times }) => times !== 1).length;
  line(
    '600 scores, a platform that fails one in ten : 600 bare requests',
    round(first / bare),
    `${round(first, 0)} ms for the first ${atFirst}`,
  );
  line('  there in the end / twice', `${given().length} / ${twice}`, 'the others after the first pause');
  line(
    'memory of the server, at the most : before',
    round(mostMemory(server) / begin, 2),
    `${round(mostMemory(server), 0)} MB`,
  );
  await stopped(server);
  await platform.stop();
}

if (process.argv[1] === import.meta.filename) await platformFigures({ line, round });
