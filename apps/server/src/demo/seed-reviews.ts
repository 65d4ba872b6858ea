import type { AnySelectorRequest, DraftReading, NoteKind } from '@salt-circle/contracts';
import { describeTextAnchor, type FormItem, type Random } from '@salt-circle/core';
import type { Person } from '../model/person.js';
import { Clock } from '../platform/clock/clock.js';
import { htmlToText } from '../platform/html/html-to-text.js';
import { Ids } from '../platform/ids/ids.js';
import { ReviewNotes } from '../features/reviews/review-notes.service.js';
import { ReviewsService } from '../features/reviews/reviews.service.js';
import { COMMENTS, FIRST_CHANGES, NEXT, NOTES, PROPOSED, SOURCES, WORKS, type Care } from './remarks.js';
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
const MINUTE = 60_000;

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
  const html = desk.draft.parts.find((part) => part.show === 'html')?.html ?? '';
  const said = new Set<string>();
  const leaning = 0.15 + 0.55 * shareOf(htmlToText(html)) + 0.2 * shareOf(student.name);
  for (const item of items) {
    const answer = answerTo(item, care, leaning, random);
    if (answer?.text !== undefined && care !== 'thin')
      answer.text = ofThisDraft(answer.text, htmlToText(html), said, random);
    if (answer !== null) await reviews.saveAnswer(student, reviewId, item.id, { revision: 0, ...answer });
  }
  // Reading and writing take their time.
  const minutes = care === 'thin' ? 2 + random() : 15 + 40 * random();
  const clock = app.get(Clock);
  clock.move(clock.now() + minutes * MINUTE - Date.now());
  await addNotes(seeder, student, reviewId, desk.draft, care);
  if (care !== 'thin') await addNotesOnFiles(seeder, student, reviewId, desk.draft);
  if (whole) await reviews.submit(student, reviewId);
}

function pick<T>(list: readonly T[], random: Random): T {
  return list[Math.floor(random() * list.length)] as T;
}

/**
 * The remark with words of the draft that it speaks of, as whoever has read it writes: no two of them are alike.
 *
 * @param said what stands in the review already; nothing is said twice
 */
function ofThisDraft(remark: string, draft: string, said: Set<string>, random: Random): string {
  const sentences = draft.split(/(?<=[.;])\s+|\n+/).filter((one) => one.split(' ').length >= 8);
  const fresh = (list: readonly string[]) => {
    const left = list.filter((one) => !said.has(one));
    const one = left.length === 0 ? null : pick(left, random);
    if (one !== null) said.add(one);
    return one;
  };
  const [quoted, sees, wants] = [fresh(sentences), fresh(SEES), fresh(WANTS)];
  if (quoted === null || sees === null || wants === null) return remark;
  const words = quoted.replace(/[.;]$/, '').split(' ').slice(0, 16).join(' ');
  return `${remark} ${sees} “${words}”: ${wants}`;
}

const SEES = [
  ...['You write', 'The draft says', 'I stopped at', 'On my second reading I came back to', 'What stays with me is'],
  ...['Most of it hangs on', 'A councillor will ask about', 'I would begin with', 'I was not sure about'],
];
const WANTS = [
  'that is where I would add the year and who measured it.',
  'I could follow this at once, and it carries what comes after.',
  'say in one more clause what it means for the neighbours.',
  'is that for the whole site, or for the part that you visited?',
  'a small drawing beside it would save three sentences.',
  'put it earlier, and the costs will look smaller.',
  'I would like to see the reading itself, not only its mean.',
  'it is the strongest point that you have, and it stands in the middle.',
  'here I expected the other way of doing it, and why you left that out.',
];

/** The same number, 0 to 1, for the same words. */
function shareOf(words: string): number {
  let state = 7;
  for (const letter of words) state = (state * 31 + (letter.codePointAt(0) ?? 0)) % 1_009;
  return state / 1_009;
}

function answerTo(
  item: FormItem,
  care: Care,
  leaning: number,
  random: Random,
): { levelId?: string; text?: string } | null {
  if (item.kind === 'criterion') {
    // Thin reviewers are lenient ones; the others go by what the draft is worth, and by what they are like.
    const [lean, chance] = care === 'thin' ? [0.75, 0.6] : [leaning, 0.25];
    const at = Math.min(item.levels.length - 1, Math.floor((lean + random() * chance) * item.levels.length));
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
  if (care === 'careful') await propose(app, student, reviewId, version, part.id, text);
  const wanted = care === 'careful' ? 5 : care === 'usual' ? 3 : 1;
  const templates = NOTES.map((note) => ({ note, order: random() })).sort((a, b) => a.order - b.order);
  let made = 0;
  for (const { note } of templates) {
    const start = text.indexOf(note.passage(site));
    if (start === -1 || made === wanted) continue;
    made += 1;
    const anchor = describeTextAnchor(text, { start, end: start + note.passage(site).length });
    await app.get(ReviewNotes).save(student, reviewId, app.get(Ids).uuid(), {
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

async function propose(
  app: Seeder['app'],
  student: Person,
  reviewId: string,
  version: number,
  partId: string,
  text: string,
): Promise<void> {
  const { passage, text: better, body } = PROPOSED;
  const start = text.indexOf(passage);
  if (start === -1) return;
  const { quote, position } = describeTextAnchor(text, { start, end: start + passage.length });
  await app.get(ReviewNotes).save(student, reviewId, app.get(Ids).uuid(), {
    ...{ revision: 0, kind: 'fix', body, edit: { type: 'replace', text: better } },
    place: { version, partId, selector: { type: 'text', quote: { ...quote }, position: { ...position } } },
  });
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
    app.get(ReviewNotes).save(student, reviewId, app.get(Ids).uuid(), {
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
