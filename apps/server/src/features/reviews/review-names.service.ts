import { Injectable } from '@nestjs/common';
import type { ReviewNameView } from '@salt-circle/contracts';
import { Access, see } from '../../access/access.js';
import type { Asker } from '../../access/seeing.js';
import { listedOf, type Listed } from '../../access/listed.js';
import { relation, standingTo } from '../../access/standing.js';
import { Enrolment } from '../../model/course.js';
import { Draft } from '../../model/draft.js';
import { AnswerRow, NoteRow, Review } from '../../model/review.js';
import { Database } from '../../platform/database/database.js';
import { FileWorkers } from '../../platform/files/file-workers.js';
import { refusal } from '../../platform/problems/sentences.js';

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
  async inReview(person: Asker, reviewId: string): Promise<ReviewNameView[]> {
    const manager = this.database.read;
    const review = await manager.findOneBy(Review, { id: reviewId });
    if (review === null) throw refusal('unknown');
    const place = await this.access.exchange(person, review.exchangeId, manager);
    const draft = await manager.findOneByOrFail(Draft, { id: review.draftId });
    const standing = await standingTo(manager, place, draft);
    const byViewer = standing.review?.id === review.id;
    see(place, {
      kind: 'review',
      byViewer,
      ...relation(standing),
      submitted: review.submittedAt !== null,
      withheld: review.withheldAt !== null,
    });
    if (!byViewer || place.exchange.names === 'open') return [];
    const enrolled = await manager.find(Enrolment, {
      select: { personId: true },
      where: { courseId: place.course.id, active: true },
    });
    const answers = await manager.findBy(AnswerRow, { reviewId });
    const notes = await manager.findBy(NoteRow, { reviewId });
    const texts = upTo(LONGEST, [
      ...answers.flatMap(({ itemId, text, next }) => [text, next].map((one) => ({ on: { itemId }, text: one }))),
      ...notes.flatMap(({ id, body, edit }) =>
        [body, edit !== null && 'text' in edit ? edit.text : ''].map((text) => ({ on: { noteId: id }, text })),
      ),
    ]);
    if (texts.length === 0) return [];
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
    return texts.flatMap(({ on }, index): ReviewNameView[] => {
      const sure = (finds[index] ?? []).filter(({ certainty }) => certainty === 'sure');
      const words = new Map(sure.map(({ exact, person: at }) => [exact, people[at]?.[0] === place.person.id]));
      return [...words].map(([exact, own]) => ({ itemId: null, noteId: null, ...on, exact, own }));
    });
  }
}

/** Each of them is looked for in every letter of the review: a course of thousands would take seconds. */
const MOST = 200;
/** UTF-16 code units: some fifty pages. What a review has beyond is not looked through. */
const LONGEST = 200_000;

/** The texts that say something, as many as are not longer than that together. */
function upTo<T extends { readonly text: string }>(longest: number, texts: readonly T[]): T[] {
  let length = 0;
  return texts.filter(({ text }) => {
    if (text.trim() === '') return false;
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
