import { addBenchCourse } from '../bench/course.mjs';

// Adds a large course, taught by somebody who exists, to a server's data: for looking at how the pages bear it.
const [folder, students, title, instructor] = process.argv.slice(2);
if (instructor === undefined) {
  process.stderr.write('Usage: node scripts/large-course.mjs FOLDER STUDENTS TITLE INSTRUCTOR-ADDRESS\n');
  process.exit(2);
}
const { exchangeId } = await addBenchCourse(folder, {
  students: Number(students),
  title,
  instructor,
  allocated: false,
});
process.stdout.write(`${exchangeId}\n`);
