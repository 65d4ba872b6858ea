import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import type { World } from './servers.js';

const root = join(import.meta.dirname, '../..');

/** A course of Ines Marchetti whose students have all handed in, and whose drafts wait to be allocated. @returns its exchange */
export function largeCourse({ folder }: World, students: number, title: string): string {
  const script = join(root, 'scripts', 'large-course.mjs');
  const given = [folder, String(students), title, 'ines.marchetti@example.org'];
  return execFileSync(process.execPath, [script, ...given], { cwd: root, encoding: 'utf8' }).trim();
}
