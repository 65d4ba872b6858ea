import { stdin, stdout } from 'node:process';
import { createInterface } from 'node:readline/promises';
import { at, built, installed } from './run.mjs';

await installed();
await built();
const commands = await import(at('apps', 'server', 'dist', 'features', 'accounts', 'commands.js'));
const folder = process.env.SALT_CIRCLE_DATA ?? at('data', 'production');
const ask = createInterface({ input: stdin, output: stdout });
const answer = async (given, question) => given ?? (await ask.question(question));

const COMMANDS = {
  async add() {
    const { INSTRUCTOR_NAME, INSTRUCTOR_EMAIL, INSTRUCTOR_PASSWORD } = process.env;
    const name = await answer(INSTRUCTOR_NAME, 'Name: ');
    const email = await answer(INSTRUCTOR_EMAIL, 'Email: ');
    const password = await answer(INSTRUCTOR_PASSWORD, 'Password (10 characters or more, shown as you type): ');
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
