import { Injectable } from '@nestjs/common';
import type { ReviewNamesView, ReviewNameView } from '@salt-circle/contracts';
import { In, IsNull, type EntityManager } from 'typeorm';
import { Access, see } from '../../access/access.js';
import type { Asker } from '../../access/seeing.js';
import { listedOf, type Listed } from '../../access/listed.js';
import { asked, reviewStanding } from '../../access/review-standing.js';
import { Enrolment } from '../../model/course.js';
import { AnswerRow, NoteRow } from '../../model/review.js';
import { ReviewFile } from '../../model/review-file.js';
import { StoredFile } from '../../model/stored-file.js';
import { Database } from '../../platform/database/database.js';
import { htmlToText } from '../../platform/html/html-to-text.js';
import { FileWorkers } from '../../platform/files/file-workers.js';

/** Names in what a reviewer has written, told before it is submitted. */
@Injectable()
export class ReviewNames {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly workers: FileWorkers,
  ) {}

  /**
   * Where a name of anybody of the course stands. All of them are looked for alike: to say that just the author's name was hit
   * would tell a guesser who wrote the draft.
   */
  async inReview(person: Asker, reviewId: string): Promise<ReviewNamesView> {
    const manager = this.database.read;
    const standing = await reviewStanding(this.access, manager, person, reviewId);
    const { place, review } = standing;
    const submitted = review.submittedAt !== null;
    see(place, { kind: 'review', ...asked(standing), submitted, withheld: review.withheldAt !== null });
    const policy = place.exchange.names;
    if (!standing.byViewer || standing.ofOwnDraft || policy === 'open')
      return { policy, searched: 'none', unread: 0, names: [] };
    const enrolled = await manager.find(Enrolment, {
      select: { personId: true },
      where: { courseId: place.course.id, active: true },
    });
    const answers = await manager.findBy(AnswerRow, { reviewId });
    const notes = await manager.findBy(NoteRow, { reviewId });
    const attached = await attachedTexts(manager, reviewId);
    const all: Written[] = [
      ...attached.texts,
      ...answers.flatMap(({ itemId, text, next }) => [text, next].map((one) => ({ on: { itemId }, text: one }))),
      ...notes.flatMap(({ id, body, edit }) =>
        [body, edit !== null && 'text' in edit ? edit.text : ''].map((text) => ({ on: { noteId: id }, text })),
      ),
    ].filter(({ text }) => text.trim() !== '');
    const texts = upTo(LONGEST, all);
    const searched = texts.length < all.length ? 'beginning' : 'all';
    const { unread } = attached;
    if (texts.length === 0) return { policy, searched, unread, names: [] };
    const listed = await listedOf(
      manager,
      place.course.id,
      enrolled.map(({ personId }) => personId),
    );
    const people = worthSearching([...listed], place.person.id, texts.map(({ text }) => text).join('\n'));
    const finds = await this.workers.findNames({
      texts: texts.map(({ text }) => ({ text, as: 'prose' as const })),
      people: people.map(([, one]) => one),
    });
    const names = texts.flatMap(({ on }, index): ReviewNameView[] => {
      const sure = (finds[index] ?? []).filter(({ certainty }) => certainty === 'sure');
      const words = new Map(sure.map(({ exact, person: at }) => [exact, people[at]?.[0] === place.person.id]));
      return [...words].map(([exact, own]) => ({ itemId: null, noteId: null, ...on, exact, own }));
    });
    return { policy, searched, unread, names };
  }
}

/** Each of them is looked for in every letter of the review: a course of thousands would take seconds. */
const MOST = 200;
/** UTF-16 code units: some fifty pages. What a review has beyond is not looked through. */
const LONGEST = 200_000;

/** A text of a review, and what it is on. */
interface Written {
  readonly on: { readonly itemId: string } | { readonly noteId: string };
  readonly text: string;
}

/** What is in the files of the review; the author gets them under neutral names, so what they are called tells nothing. */
async function attachedTexts(
  manager: EntityManager,
  reviewId: string,
): Promise<{ readonly texts: Written[]; readonly unread: number }> {
  const rows = await manager.findBy(ReviewFile, { reviewId, removedAt: IsNull() });
  if (rows.length === 0) return { texts: [], unread: 0 };
  const stored = await manager.findBy(StoredFile, { digest: In(rows.map(({ digest }) => digest)) });
  const files = new Map(stored.map((file) => [file.digest, file]));
  const texts = rows.flatMap(({ itemId, noteId, digest }): Written[] => {
    const { copyHtml = null, copyText = null } = files.get(digest) ?? {};
    const text = copyHtml === null ? (copyText ?? '') : htmlToText(copyHtml);
    return text.trim() === '' ? [] : [{ on: noteId === null ? { itemId: itemId ?? '' } : { noteId }, text }];
  });
  return { texts, unread: rows.length - texts.length };
}

/** The first of them, as many as are not longer than that together. */
function upTo(longest: number, texts: readonly Written[]): Written[] {
  let length = 0;
  return texts.filter(({ text }) => {
    length += text.length;
    return length <= longest;
  });
}

/**
 * Those of whom a part of the name, the address or the id stands in the text at all; the reviewer always, whose initials tell as
 * well.
 */
function worthSearching(
  people: ReadonlyArray<readonly [string, Listed]>,
  own: string,
  text: string,
): ReadonlyArray<readonly [string, Listed]> {
  const plain = folded(text);
  const words = new Set(plain.match(WORD) ?? []);
  const stands = ({ name, email, campusId }: Listed) =>
    (folded(name).match(WORD) ?? []).some((part) => part.length > 1 && (words.has(part) || unspaced(part, plain))) ||
    [email, campusId].some((sign) => sign !== null && sign !== '' && plain.includes(folded(sign)));
  const mine = people.filter(([id]) => id === own);
  return [...mine, ...people.filter(([id, one]) => id !== own && stands(one)).slice(0, MOST)];
}

const WORD = /[\p{L}\p{N}]+/gu;

/** In scripts that put no spaces between words a name is a part of a word. */
function unspaced(name: string, text: string): boolean {
  return /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}]/u.test(name) && text.includes(name);
}

function folded(text: string): string {
  return text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
}
