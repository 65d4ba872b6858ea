import { describeTextAnchor } from '@salt-circle/core';
import type { NoteKind, PlanRequest } from '@salt-circle/contracts';
import { NewPracticeDrafts } from '../features/practice/new-practice-drafts.service.js';
import { PracticeService } from '../features/practice/practice.service.js';
import { PlanService } from '../features/planning/plan.service.js';
import { ReviewNotes } from '../features/reviews/review-notes.service.js';
import { ReviewsService } from '../features/reviews/reviews.service.js';
import type { Person } from '../model/person.js';
import { htmlToText } from '../platform/html/html-to-text.js';
import { Ids } from '../platform/ids/ids.js';
import type { Seeder } from './seeder.js';

const TITLE = 'A plan for the mill pond';
const HTML =
  '<h2>What we want to know</h2><p>The sluice of the mill pond was opened last autumn. We want to know whether the eelgrass comes back. It was always there, people say.</p>' +
  '<h2>Readings</h2><ol><li><p>A square metre is counted at twelve places along the dam.</p></li><li><p>The salt of the water is read each time.</p></li><li><p>A photograph is taken from the footbridge.</p></li></ol>' +
  '<p>We go out in June, July and August, two days each month. The same two people read every time, so that the figures fit together.</p>' +
  '<h2>Afterwards</h2><p>If there is more eelgrass in the third summer, the opening has worked.</p>';

type Given = Readonly<Record<string, object>>;

const KEY: Given = {
  plan: {
    text: 'Twelve fixed places and the salt read each time: somebody else could repeat that.',
    next: 'Add a pond whose sluice stayed shut, so that a good summer is not taken for success.',
  },
  there: { checks: { where: 'yes', when: 'yes', who: 'yes', stop: 'no' } },
  convincing: { value: 2.5, text: 'A change would show, but not what made it.' },
  days: { value: 6 },
  season: { choices: ['summer'] },
  doubt: {
    text: 'That eelgrass was always there: the plan rests on it, and nobody has measured it. Old maps or the parish survey would settle that.',
  },
};

/** What three students made of it: one near the key, one generous, one in a hurry. */
const TRIES: readonly Given[] = [
  {
    ...KEY,
    plan: {
      text: 'The places are fixed and counted, and the salt is not forgotten. I could go there and do it.',
      next: 'Say in one sentence what you would expect if the sluice had stayed shut.',
    },
    convincing: { value: 3, text: 'No second pond to compare with.' },
    doubt: {
      text: 'Whether the eelgrass was there at all before: the text says so, and gives nobody who measured it.',
    },
  },
  {
    ...KEY,
    plan: {
      text: 'It is well ordered and short, and one knows at once what will be counted.',
      next: 'Say what a photograph from the footbridge is meant to show in the end.',
    },
    there: { checks: { where: 'yes', when: 'yes', who: 'yes', stop: 'yes' } },
    convincing: { value: 6 },
    days: { value: 6 },
    season: { choices: ['spring', 'summer'] },
  },
  {
    ...KEY,
    plan: {
      text: 'It is short and clear, and I liked the part with the photograph.',
      next: 'Add more readings so that one can be sure of the result.',
    },
    there: { checks: { where: 'yes', when: 'no', who: 'no', stop: 'no' } },
    convincing: { value: 1 },
    days: { value: 60 },
    doubt: { text: 'I would doubt whether it is done at all, because it is a lot of work for two people.' },
  },
];

const NOTES: ReadonlyArray<readonly [passage: string, kind: NoteKind, body: string]> = [
  ['It was always there, people say.', 'change', 'Say who, and since when. The whole plan rests on this.'],
  ['twelve places along the dam', 'keep', 'Fixed places, and enough of them: this can be repeated.'],
  [
    'so that the figures fit together',
    'ask',
    'Would a third pair of eyes not show how far the figures depend on these two?',
  ],
  ['the opening has worked', 'change', 'Only if a pond that stayed shut shows no more of it. Name one.'],
];

const NOTES_OF_TRIES: typeof NOTES = [
  ['It was always there, people say.', 'ask', 'Who says so? I would want a map or a name here.'],
  ['A photograph is taken from the footbridge', 'ask', 'What will be read off the photograph?'],
  ['two days each month', 'keep', 'Clear.'],
];

/** A practice draft with its key for an exchange, and a few students who have tried it. */
export async function addPractice(
  seeder: Seeder,
  teacher: Person,
  exchangeId: string,
  students: readonly Person[],
): Promise<string> {
  const { app } = seeder;
  await app.get(NewPracticeDrafts).add(teacher, exchangeId, { title: TITLE, from: 'text', html: HTML });
  const practice = app.get(PracticeService);
  const [card] = (await practice.list(teacher, exchangeId)).drafts;
  const keyId = card?.staff?.keyReviewId ?? '';
  await fill(seeder, teacher, keyId, KEY);
  for (const note of NOTES) await leave(seeder, teacher, keyId, note);
  await app.get(ReviewsService).submit(teacher, keyId);
  const plans = app.get(PlanService);
  const now = structuredClone(await plans.one(teacher, exchangeId)) as unknown as PlanRequest;
  const rule = { when: 'offered' as const, tries: 3, closeEnough: null };
  await plans.save(teacher, exchangeId, { ...now, practice: rule });
  for (const [index, given] of TRIES.entries()) {
    const student = students[index * 2 + 1] as Person;
    const { reviewId } = await practice.begin(student, card?.id ?? '', false);
    await fill(seeder, student, reviewId, given);
    await leave(seeder, student, reviewId, NOTES_OF_TRIES[index] as (typeof NOTES)[number]);
    await app.get(ReviewsService).submit(student, reviewId);
  }
  return card?.id ?? '';
}

async function fill({ app }: Seeder, person: Person, reviewId: string, given: Given): Promise<void> {
  for (const [itemId, answer] of Object.entries(given))
    await app.get(ReviewsService).saveAnswer(person, reviewId, itemId, { revision: 0, ...answer });
}

async function leave(
  { app }: Seeder,
  person: Person,
  reviewId: string,
  [passage, kind, body]: (typeof NOTES)[number],
): Promise<void> {
  const reviews = app.get(ReviewsService);
  const { draft } = await reviews.desk(person, reviewId);
  const [part] = draft.parts;
  const text = htmlToText(part?.html ?? '');
  const start = text.indexOf(passage);
  if (part === undefined || start < 0) throw new Error(`the practice draft has no passage “${passage}”`);
  const { quote, position } = describeTextAnchor(text, { start, end: start + passage.length });
  await app.get(ReviewNotes).save(person, reviewId, app.get(Ids).uuid(), {
    ...{ revision: 0, kind, body },
    place: {
      ...{ version: draft.version, partId: part.id },
      selector: { type: 'text', quote: { ...quote }, position: { ...position } },
    },
  });
}
