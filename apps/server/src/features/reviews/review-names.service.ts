import { Injectable } from '@nestjs/common';
import type { ReviewNamesView, ReviewNameView } from '@salt-circle/contracts';
import { findLookalikes, shapeOfId, type Identity } from '@salt-circle/core';
import { In, IsNull, type EntityManager } from 'typeorm';
import { Access, assertCanSee } from '../../permissions/access.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { courseIdentities } from '../../queries/course-identities.js';
import { writingState, reviewAccess } from '../../permissions/review-access.js';
import { Enrolment } from '../../model/course.js';
import { GroupMemberRow } from '../../model/group.js';
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
   * What in a review may tell who somebody is. It is compared with what the reviewer knows anyway (their own name, address and id, the names
   * of their groups), and whatever looks like an address or an id of the course is called out whether anybody has it or not: an answer
   * that says who exists would be a way to look people up. Names of others are flagged to the teaching team when the review is checked.
   */
  async inReview(person: CurrentUser, reviewId: string): Promise<ReviewNamesView> {
    const manager = this.database.read;
    const access = await reviewAccess(this.access, manager, person, reviewId);
    const { context, review } = access;
    const submitted = review.submittedAt !== null;
    assertCanSee(context, { kind: 'review', ...writingState(access), submitted, withheld: review.withheldAt !== null });
    const policy = context.exchange.names;
    if (!access.byViewer || access.ofOwnDraft || policy === 'open')
      return { policy, searched: 'none', unread: 0, names: [] };
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
    const own = (await courseIdentities(manager, context.course.id, [context.person.id])).get(context.person.id);
    const mates = await this.#groupMates(manager, context.course.id, context.person.id);
    const people: Identity[] = [...(own === undefined ? [] : [own]), ...mates.map((name) => ({ ...NO_SIGNS, name }))];
    const finds = await this.workers.findNames({
      texts: texts.map(({ text }) => ({ text, as: 'prose' as const })),
      people,
    });
    const shapes = await idShapes(manager, context.course.id);
    const names = texts.flatMap(({ on, text }, index): ReviewNameView[] => {
      const sure = (finds[index] ?? []).filter(({ certainty }) => certainty === 'sure');
      const words = new Map([
        ...findLookalikes(text, shapes).map(({ exact }) => [exact, false] as const),
        ...sure.map(({ exact, person: at }) => [exact, own !== undefined && at === 0] as const),
      ]);
      return [...words].map(([exact, isOwn]) => ({ itemId: null, noteId: null, ...on, exact, own: isOwn }));
    });
    return { policy, searched, unread, names };
  }

  /** Names of people who are in a group with somebody: the application shows them to each other. */
  async #groupMates(manager: EntityManager, courseId: string, personId: string): Promise<string[]> {
    const rows = await manager
      .createQueryBuilder(Enrolment, 'mate')
      .innerJoin(GroupMemberRow, 'theirs', 'theirs.enrolmentId = mate.id')
      .innerJoin(GroupMemberRow, 'mine', 'mine.groupId = theirs.groupId')
      .innerJoin(Enrolment, 'me', 'me.id = mine.enrolmentId AND me.personId = :personId', { personId })
      .where('mate.courseId = :courseId AND mate.personId <> :personId AND mate.active = 1', { courseId, personId })
      .select('DISTINCT mate.name', 'name')
      .getRawMany<{ name: string }>();
    return rows.map(({ name }) => name);
  }
}

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

/** Of somebody of whom the name alone is looked for. */
const NO_SIGNS = { email: '', campusId: null } as const;

/** How the ids of a course look, not which there are. */
async function idShapes(manager: EntityManager, courseId: string): Promise<ReadonlySet<string>> {
  const rows = await manager.find(Enrolment, { select: { id: true, campusId: true }, where: { courseId } });
  return new Set(rows.flatMap(({ campusId }) => shapeOfId(campusId ?? '') ?? []));
}
