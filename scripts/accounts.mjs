import { stdin, stdout } from 'node:process';
import { Writable } from 'node:stream';
import { createInterface } from 'node:readline/promises';
import { at, built, installed } from './run.mjs';

await installed();
await built();
const commands = await import(at('apps', 'server', 'dist', 'features', 'accounts', 'commands.js'));
const folder = process.env.SALT_CIRCLE_DATA ?? at('data', 'production');
let hidden = false;
/** What is typed is not shown while a password is asked for. */
const shown = new Writable({
  write(chunk, _, done) {
    if (!hidden) stdout.write(chunk);
    done();
  },
});
const ask = createInterface({ input: stdin, output: shown, terminal: stdin.isTTY === true });
async function secretly(question) {
  stdout.write(question);
  hidden = true;
  const answer = await ask.question('').finally(() => (hidden = false));
  stdout.write('\n');
  return answer;
}
const answer = async (given, question) => given ?? (await ask.question(question));

const COMMANDS = {
  async add() {
    const { INSTRUCTOR_NAME, INSTRUCTOR_EMAIL, INSTRUCTOR_PASSWORD } = process.env;
    const name = await answer(INSTRUCTOR_NAME, 'Name: ');
    const email = await answer(INSTRUCTOR_EMAIL, 'Email: ');
    const password =
      INSTRUCTOR_PASSWORD ?? (await secretly('Password (10 characters or more, not shown as you type): '));
    await commands.addInstructor(folder, { name, email, password });
    return `${name} can sign in now, and create courses.`;
  },
  async list() {
    const lines = await commands.listAccounts(folder);
    const shown = lines.map(({ email, name, places, createsCourses, confirmed }) =>
      [
        email,
        name,
        places === 1 ? '1 place' : `${places} places`,
        ...(createsCourses ? ['creates courses'] : []),
        ...(confirmed ? [] : ['address not confirmed']),
      ].join('\t'),
    );
    return [...shown, lines.length === 1 ? '1 account' : `${lines.length} accounts`].join('\n');
  },
  async reset() {
    const email = await answer(process.argv[3], 'Email: ');
    const publicUrl = new URL(process.env.SALT_CIRCLE_URL ?? `http://localhost:${process.env.PORT ?? 4600}`).origin;
    const sendsMail = Boolean(process.env.SALT_CIRCLE_SMTP);
    const link = await commands.sendReset(folder, email, { publicUrl, sendsMail });
    return `${sendsMail ? 'The server sends this link, or pass it on yourself' : 'Pass this link on'}; it works once, for an hour:\n${link}`;
  },
};

try {
  stdout.write(`\n${await COMMANDS[process.argv[2]]()}\n`);
} catch (error) {
  stdout.write(`\nNothing was done. ${error.message}\n`);
  process.exitCode = 1;
} finally {
  ask.close();
}
