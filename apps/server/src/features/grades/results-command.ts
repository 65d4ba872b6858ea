import { createWriteStream } from 'node:fs';
import { mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Access } from '../../permissions/access.js';
import { Course } from '../../model/course.js';
import { Clock } from '../../platform/clock/clock.js';
import { Database } from '../../platform/database/database.js';
import { Adjusting } from './adjusting.js';
import { Evidence } from './evidence.service.js';
import { Results } from './results.service.js';

/**
 * Writes the results of a course into a folder, without the server.
 *
 * @param data folder of the installation
 * @param wanted title or id of the course
 * @returns names of the files
 * @throws Error where no course is called so, or several are
 */
export async function writeResults(data: string, wanted: string, folder: string): Promise<string[]> {
  const clock = new Clock();
  const database = await Database.open(data, clock);
  const adjusting = new Adjusting();
  try {
    const all = await database.read.find(Course);
    const found = all.filter(({ id, title }) => id === wanted || title === wanted);
    const [course] = found;
    if (course === undefined) {
      throw new Error(`No course is called “${wanted}”. There is: ${all.map(({ title }) => title).join(', ')}`);
    }
    if (found.length > 1) {
      throw new Error(
        `${found.length} courses are called so; say which by its id: ${found.map(({ id }) => id).join(', ')}`,
      );
    }
    const results = new Results(database, new Access(database, clock), clock, new Evidence(adjusting), adjusting);
    await mkdir(folder, { recursive: true });
    const names: string[] = [];
    for (const [name, lines] of results.tables(course.id)) {
      await pipeline(Readable.from(lines()), createWriteStream(join(folder, `${name}.csv`)));
      names.push(`${name}.csv`);
    }
    return names;
  } finally {
    await adjusting.onApplicationShutdown();
    await database.onApplicationShutdown();
  }
}
