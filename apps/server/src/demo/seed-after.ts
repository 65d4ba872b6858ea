import type { DecisionKind } from '@salt-circle/core';
import { Replies } from '../features/replies/replies.service.js';
import { Decisions } from '../features/revising/decisions.service.js';
import { Reflections } from '../features/revising/reflections.service.js';
import { DraftsService } from '../features/drafts/drafts.service.js';
import { FeedbackService } from '../features/feedback/feedback.service.js';
import { HandInService } from '../features/drafts/hand-in.service.js';
import { ReviewsService } from '../features/reviews/reviews.service.js';
import type { Person } from '../model/person.js';
import { Ids } from '../platform/ids/ids.js';
import type { Seeder } from './seeder.js';
import { at } from './steps.js';

const ANSWERS: readonly string[] = [
  'We levelled it in October: it is eleven centimetres lower. That goes in.',
  'Good that you ask. It is in the survey of 2019, and I will name it.',
  'I left this out because of the length. I will put one sentence.',
];
const BACK: readonly string[] = [
  'Then that is your best argument; put it first.',
  'One sentence is enough for me.',
  'Thank you, now I see it.',
];
const THANKS: readonly string[] = [
  'You found the one sentence on which all of it hangs. Thank you.',
  'The question about the gauge made me go back to my notes.',
  '',
];
const THOUGHTS: readonly string[] = [
  'Two of them stopped at the same sentence, the one that I had thought the clearest. I know the place so well that I no longer see what somebody else would have to be told before the figures mean anything.',
  'I will read the first page aloud to somebody who has never been there, and write down where they stop me. And I will say at every figure who measured it, and in which year that was done.',
];
const DECIDED: readonly DecisionKind[] = ['will-change', 'there', 'will-change', 'will-not', 'will-change', 'not-sure'];

interface Span {
  /** Days from the start at which the first author reads. */
  readonly from: number;
  /** Authors who hand in a revision. */
  readonly revised: number;
}

/** What authors make of their feedback: some nothing yet, some a little, a few all of it. */
export async function afterRelease(
  seeder: Seeder,
  teacher: Person,
  students: readonly Person[],
  exchangeId: string,
  { from, revised }: Span,
): Promise<void> {
  const { app } = seeder;
  const feedback = app.get(FeedbackService);
  const busy = students.slice(0, Math.min(students.length, 9));
  for (const [index, student] of busy.entries()) {
    at(seeder, from + index * 0.2);
    const { reviews } = await feedback.mine(student, exchangeId);
    await feedback.read(student, exchangeId);
    const [first] = reviews;
    if (first === undefined) continue;
    await decideAll(seeder, student, exchangeId, index < revised ? Infinity : index % 4);
    const asked = first.notes.find(({ kind }) => kind === 'ask') ?? first.notes[0];
    if (asked !== undefined && index % 2 === 0) {
      const say = (who: Person, words: string) =>
        app.get(Replies).reply(who, first.id, {
          ...{ id: app.get(Ids).uuid(), noteId: asked.id, itemId: null },
          words,
        });
      await say(student, ANSWERS[index % ANSWERS.length] as string);
      const reviewer = await reviewerOf(seeder, students, exchangeId, first.id);
      if (reviewer !== null) await say(reviewer, BACK[index % BACK.length] as string);
      if (index === 0) await say(teacher, 'Well seen, both of you.');
    }
    const helped = index % 5 === 3 ? 'some-use' : 'carried-on';
    await app.get(Replies).rate(student, first.id, { helped, words: THANKS[index % THANKS.length] as string });
    if (index < revised) await revise(seeder, student, exchangeId);
  }
}

async function decideAll({ app }: Seeder, student: Person, exchangeId: string, most: number): Promise<void> {
  const { reviews } = await app.get(FeedbackService).mine(student, exchangeId);
  const notes = reviews.flatMap((review) => review.notes.filter(({ kind }) => kind !== 'keep'));
  for (const [index, { id }] of notes.entries()) {
    if (index >= most) break;
    const decision = DECIDED[index % DECIDED.length] as DecisionKind;
    await app.get(Decisions).decide(student, exchangeId, `note.${id}`, {
      decision,
      why: decision === 'will-not' ? 'The handbook asks for it in this order.' : '',
      done: most === Infinity && decision === 'will-change',
      revision: 0,
    });
  }
}

async function reviewerOf(
  { app }: Seeder,
  students: readonly Person[],
  exchangeId: string,
  reviewId: string,
): Promise<Person | null> {
  const reviews = app.get(ReviewsService);
  for (const student of students) {
    const mine = await reviews.mine(student, exchangeId).catch(() => []);
    if (mine.some(({ id }) => id === reviewId)) return student;
  }
  return null;
}

/** A sentence mended, one put in, and a section moved to the end. */
async function revise(seeder: Seeder, student: Person, exchangeId: string): Promise<void> {
  const { app } = seeder;
  const drafts = app.get(DraftsService);
  const { texts } = await drafts.mine(student, exchangeId);
  const [[textId, text] = ['', undefined]] = Object.entries(texts);
  if (text === undefined) return;
  const sections = text.html.split(/(?=<h2>)/);
  const [head = '', ...rest] = sections;
  const moved = [...rest, head].join('');
  const html = moved
    .replace(
      'Any plan has to begin with them.',
      'Any plan has to begin with them, so we asked eleven of them in October.',
    )
    .replace(
      'Older people in the village remember another shore, and say so gladly.',
      'The map of 1962 shows another shore.',
    );
  await drafts.saveText(student, exchangeId, textId, { revision: text.revision, html });
  const handing = app.get(HandInService);
  const { fingerprint } = await handing.check(student, exchangeId);
  const changes = 'I put what can be seen first, as two of you asked, and named the map.';
  await handing.handIn(student, exchangeId, { fingerprint, namesSeen: true, changes });
  const reflections = app.get(Reflections);
  const asked = await reflections.mine(student, exchangeId).catch(() => null);
  if (asked !== null) await reflections.save(student, exchangeId, { texts: [...THOUGHTS], revision: 0, handIn: true });
}
