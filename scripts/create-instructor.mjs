import { stdin, stdout } from 'node:process';
import { createInterface } from 'node:readline/promises';
import { at, built, installed } from './run.mjs';

await installed();
await built();
const { addInstructor } = await import(at('apps', 'server', 'dist', 'features', 'accounts', 'add-instructor.js'));

const ask = createInterface({ input: stdin, output: stdout });
const name = process.env.INSTRUCTOR_NAME ?? (await ask.question('Name: '));
const email = process.env.INSTRUCTOR_EMAIL ?? (await ask.question('Email: '));
const password =
  process.env.INSTRUCTOR_PASSWORD ?? (await ask.question('Password (12 characters or more, shown as you type): '));
ask.close();

try {
  await addInstructor(process.env.SALT_CIRCLE_DATA ?? at('data', 'production'), { name, email, password });
  stdout.write(`\n${name} can sign in now, and create courses.\n`);
} catch (error) {
  stdout.write(`\nNo account was made. ${error.message}\n`);
  process.exitCode = 1;
}
