import type { LibraryFormRequest } from '@salt-circle/contracts';
import { EMPTY_FORM, type ReviewForm } from '@salt-circle/core';
import type { Person } from '../model/person.js';
import { CoursesService } from '../features/courses/courses.service.js';
import { FillingService } from '../features/groups/filling.service.js';
import { GroupSetsService } from '../features/groups/group-sets.service.js';
import { LibraryService } from '../features/library/library.service.js';
import { DESCRIPTION_FORM, MONITORING_FORM } from './form.js';
import type { Seeder } from './seeder.js';

const DAY = 24 * 3_600_000;

const SHORTHAND = [
  { key: 's', label: 'Source?', meaning: 'This needs a source, or a better one.', group: 'Content' },
  { key: 'u', label: 'Unit', meaning: 'A unit is missing, or the wrong one.', group: 'Content' },
  { key: 'o', label: 'Order', meaning: 'This comes too early or too late.', group: 'Words' },
  { key: 'l', label: 'Too long', meaning: 'Two sentences, or half as many words.', group: 'Words' },
  { key: 't', label: 'Tense', meaning: 'What was measured is past; what the plan does is future.', group: 'Words' },
];

/** What a course has beside its exchanges: groups, library, holidays. */
export async function furnish(seeder: Seeder, teacher: Person, courseId: string): Promise<{ shorthandId: string }> {
  const { app, start } = seeder;
  const filling = app.get(FillingService);
  const groups = app.get(GroupSetsService);
  const library = app.get(LibraryService);
  const { id: teams } = await groups.addSet(teacher, courseId, 'Field teams');
  await filling.divide(teacher, courseId, teams, { by: 'size', number: 4, mixedBy: 'section', seed: 11 });
  const { id: partners } = await groups.addSet(teacher, courseId, 'Partners');
  await filling.divide(teacher, courseId, partners, { by: 'size', number: 2, mixedBy: 'nothing', seed: 7 });

  const { id: shorthandId } = await library.add(teacher, courseId, {
    kind: 'shorthand',
    title: 'Report shorthand',
    exchangeId: null,
  });
  await library.saveShorthand(teacher, courseId, shorthandId, {
    revision: 1,
    title: 'Report shorthand',
    entries: SHORTHAND,
  });
  const forms: ReadonlyArray<readonly [string, ReviewForm['items']]> = [
    ['Description of a place', DESCRIPTION_FORM],
    ['Plan with figures', MONITORING_FORM],
  ];
  for (const [title, items] of forms) {
    const { id } = await library.add(teacher, courseId, { kind: 'form', title, exchangeId: null });
    const form = structuredClone({ ...EMPTY_FORM, items }) as unknown as LibraryFormRequest;
    await library.saveForm(teacher, courseId, id, { ...form, title, revision: 1 });
  }
  const day = (days: number) => new Date(start + days * DAY).toISOString().slice(0, 10);
  await app.get(CoursesService).saveSettings(teacher, courseId, {
    title: 'Coastal Restoration',
    timeZone: 'Europe/Tallinn',
    holidays: [{ title: 'Reading week', from: day(20), to: day(26) }],
  });
  return { shorthandId };
}
