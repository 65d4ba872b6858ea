import type { AnySelectorRequest, DraftReading, NoteKind } from '@salt-circle/contracts';
import { describeTextAnchor, type FormItem, type Random } from '@salt-circle/core';
import type { Person } from '../model/person.js';
import { Clock } from '../platform/clock/clock.js';
import { htmlToText } from '../platform/html/html-to-text.js';
import { Ids } from '../platform/ids/ids.js';
import { ReviewsService } from '../features/reviews/reviews.service.js';
import { COMMENTS, FIRST_CHANGES, NEXT, NOTES, SOURCES, WORKS, type Care } from './remarks.js';
import type { Seeder } from './seeder.js';
import { SITES } from './sites.js';

interface Span {
  /** Days from the start at which the first review was begun, and over how many days they spread. */
  readonly from: number;
  readonly days: number;
  /** Share of reviews that are not, or not wholly, written. */
  readonly unfinishedShare: number;
}

const DAY = 24 * 3_600_000;

/** Reviews as a class writes them: some with care, most as asked, some thin, some not at all. */
export async function fillReviews(
  seeder: Seeder,
  students: readonly Person[],
  exchangeId: string,
  span: Span,
): Promise<void> {
  const { app, random, start } = seeder;
  const reviews = app.get(ReviewsService);
  for (const [index, student] of students.entries()) {
    const care: Care = index % 6 === 4 ? 'thin' : index % 3 === 0 ? 'careful' : 'usual';
    app.get(Clock).move(start + (span.from + random() * span.days) * DAY - Date.now());
    const mine = await reviews.mine(student, exchangeId).catch(() => []);
    for (const { id } of mine) {
      const dice = random();
      if (dice < span.unfinishedShare / 2) continue;
      await fillOne(seeder, student, id, care, dice >= span.unfinishedShare);
    }
  }
}

async function fillOne(seeder: Seeder, student: Person, reviewId: string, care: Care, whole: boolean): Promise<void> {
  const { app, random } = seeder;
  const reviews = app.get(ReviewsService);
  const desk = await reviews.desk(student, reviewId);
  const items = whole ? desk.form.items : desk.form.items.slice(0, 2);
  for (const item of items) {
    const answer = answerTo(item, care, random);
    if (answer !== null) await reviews.saveAnswer(student, reviewId, item.id, { revision: 0, ...answer });
  }
  await addNotes(seeder, student, reviewId, desk.draft, care);
  if (care !== 'thin') await addNotesOnFiles(seeder, student, reviewId, desk.draft);
  if (whole) await reviews.submit(student, reviewId);
}

function pick<T>(list: readonly T[], random: Random): T {
  return list[Math.floor(random() * list.length)] as T;
}

function answerTo(item: FormItem, care: Care, random: Random): { levelId?: string; text?: string } | null {
  if (item.kind === 'criterion') {
    // Thin reviewers are lenient ones; the others use the middle of the scale, and now and then its ends.
    const lean = care === 'thin' ? 0.75 : 0.35;
    const at = Math.min(item.levels.length - 1, Math.floor((lean + random() * 0.6) * item.levels.length));
    const levelId = (item.levels[at] as { id: string }).id;
    const withComment = item.comment === 'required' || (care === 'careful' && random() < 0.6);
    return { levelId, ...(withComment && { text: pick(COMMENTS[care], random) }) };
  }
  if (item.id === 'first') return { text: pick(FIRST_CHANGES[care], random) };
  if (item.id === 'source') return care === 'careful' ? { text: pick(SOURCES, random) } : null;
  return { text: pick(item.id === 'works' ? WORKS : NEXT, random) };
}

async function addNotes(
  { app, random }: Seeder,
  student: Person,
  reviewId: string,
  { version, parts }: DraftReading,
  care: Care,
): Promise<void> {
  const part = parts.find(({ show }) => show === 'html');
  if (part === undefined) return;
  const text = htmlToText(part.html ?? '');
  const site = SITES.find(({ cause }) => text.includes(cause));
  if (site === undefined) return;
  const wanted = care === 'careful' ? 5 : care === 'usual' ? 3 : 1;
  const templates = NOTES.map((note) => ({ note, order: random() })).sort((a, b) => a.order - b.order);
  let made = 0;
  for (const { note } of templates) {
    const start = text.indexOf(note.passage(site));
    if (start === -1 || made === wanted) continue;
    made += 1;
    const anchor = describeTextAnchor(text, { start, end: start + note.passage(site).length });
    await app.get(ReviewsService).saveNote(student, reviewId, app.get(Ids).uuid(), {
      revision: 0,
      kind: note.kind,
      body: pick(note.bodies, random),
      place: {
        version,
        partId: part.id,
        selector: { type: 'text', quote: { ...anchor.quote }, position: { ...anchor.position } },
      },
    });
  }
}

/** Of the reading sheets that come with some drafts: what stands at the top of the first page. */
const SHEET_TITLE = 'Readings at the gauge';

/** Notes on what comes with the text: words and a region of a page, a point of a sketch, a span of a recording. */
async function addNotesOnFiles(
  { app, random }: Seeder,
  student: Person,
  reviewId: string,
  { version, parts }: DraftReading,
): Promise<void> {
  const leave = (partId: string, selector: AnySelectorRequest, kind: NoteKind, body: string) =>
    app.get(ReviewsService).saveNote(student, reviewId, app.get(Ids).uuid(), {
      revision: 0,
      kind,
      body,
      place: { version, partId, selector },
    });
  for (const { id, show } of parts) {
    if (show === 'pdf') {
      const { quote, position } = describeTextAnchor(SHEET_TITLE, { start: 0, end: SHEET_TITLE.length });
      const title = { type: 'passage' as const, page: 1, quote: { ...quote }, position: { ...position } };
      await leave(id, title, 'change', 'Say in the title which gauge, and in which year.');
      const rows = { type: 'region' as const, page: 1, x: 0.28, y: 0.2, width: 0.16, height: 0.12 };
      await leave(id, rows, 'ask', 'Were these read at low water? The text says spring tides only.');
      if (random() < 0.5)
        await leave(id, { type: 'page', page: 2 }, 'keep', 'A whole page of raw numbers: good to have.');
    }
    if (show === 'picture') {
      const gauge = { type: 'region' as const, page: null, x: 0.333, y: 0.536, width: 0, height: 0 };
      await leave(id, gauge, 'fix', 'This is the landward gauge; the text calls it the seaward one.');
    }
    if (show === 'sound') {
      const swell = { type: 'moment' as const, start: 5, end: 9.5 };
      await leave(id, swell, 'keep', 'One hears how far the waves run up. Say so in the text.');
    }
  }
}
