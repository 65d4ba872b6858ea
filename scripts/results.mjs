import { stdout } from 'node:process';
import { at, built, installed } from './run.mjs';

// Tables of a course for programs for statistics: npm run results -- "Title of the course" folder

await installed();
await built();
const { writeResults } = await import(at('apps', 'server', 'dist', 'features', 'grades', 'results-command.js'));
const [, , course, folder] = process.argv;
try {
  if (course === undefined || folder === undefined) {
    throw new Error('Say which course, and where to: npm run results -- "Title of the course" folder');
  }
  const names = await writeResults(process.env.SALT_CIRCLE_DATA ?? at('data', 'production'), course, folder);
  stdout.write(`\n${names.join(', ')} are in ${folder}.\n`);
} catch (error) {
  stdout.write(`\nNothing was written. ${error.message}\n`);
  process.exitCode = 1;
}
