import { Injectable } from '@nestjs/common';
import { NOTE_KINDS, type InsightsView } from '@salt-circle/contracts';
import {
  alongDraft,
  draftPartOf,
  explainAdjusted,
  levelShares,
  localTime,
  peerScore,
  placeShare,
  readItems,
  reliabilityOf,
  type Explanation,
  type ReviewForm,
} from '@salt-circle/core';
import { In, type EntityManager } from 'typeorm';
import { Access, assertCanSee, type ExchangeContext } from '../../permissions/access.js';
import { PersonLabels } from '../../queries/person-labels.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { Enrolment } from '../../model/course.js';
import { DraftPart, type Draft } from '../../model/draft.js';
import { Participant } from '../../model/exchange.js';
import { GroupMemberRow, GroupSet, StudentGroup } from '../../model/group.js';
import type { Review } from '../../model/review.js';
import { StoredFile } from '../../model/stored-file.js';
import { Database } from '../../platform/database/database.js';
import { portions } from '../../platform/database/portions.js';
import { groupedBy } from '../../platform/grouping/grouped-by.js';
import { htmlToText } from '../../platform/html/html-to-text.js';
import { Adjusting } from './adjusting.js';
import { within } from './person-evidence.js';
import { peersOf, ratingsOf, reviewsInGrades, type GradedReviews, type ReviewInGrade } from './reviews-in-grades.js';
import { adjustSentence } from './rule-asked.js';
import { uptakeOf } from './uptake.js';
import { stillWorking, withinReason } from './within-reason.js';

/** What the reviews of an exchange say together. */
@Injectable()
export class Insights {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly adjusting: Adjusting,
  ) {}

  async of(person: CurrentUser, exchangeId: string): Promise<InsightsView> {
    const context = await this.access.exchange(person, exchangeId);
    assertCanSee(context, { kind: 'workspace' });
    const manager = this.database.read;
    const read = await reviewsInGrades(manager, context);
    const { form, reviews } = read;
    const labels = await PersonLabels.ofExchange(manager, context);
    const peers = peersOf(reviews);
    const ratings = ratingsOf(reviews);
    const adjusted = await withinReason(this.adjusting.of(exchangeId, ratings));
    const explained = adjusted === null ? new Map<string, Explanation>() : explainAdjusted(adjusted, ratings);
    const items = readItems(
      form,
      peers.map(({ review, answers }) => ({ draftId: review.draftId, answers })),
    );
    const along = await notePlaces(manager, peers);
    const draftOf = new Map(read.drafts.map((draft) => [draft.id, draft]));
    const beside = besideThePeers(
      reviews,
      peers,
      form,
      items.map(({ itemId }) => itemId),
    );
    return {
      items,
      groupings: await groupings(manager, context, read),
      drafts: (adjusted?.drafts ?? []).flatMap((one) => {
        const draft = draftOf.get(one.id);
        if (draft === undefined) return [];
        const { id, mean, adjusted: fair, low, high, ratings: given } = one;
        const { less = 0, more = 0, forHalf = null } = explained.get(id) ?? {};
        const company = { less, more, forHalf, ...beside(id) };
        const bounds = { adjusted: within(fair), low: within(low), high: within(high) };
        return [{ id, author: labels.authorOf(draft), mean, ...bounds, reviews: given, ...company }];
      }),
      reviewers: (adjusted?.reviewers ?? []).map(({ id, severity, low, high, ratings: given }) => ({
        ...{ id, person: labels.reviewer(id), severity, low, high, reviews: given },
      })),
      reliability: adjusted === null ? null : reliabilityOf(adjusted),
      reviews: peers.flatMap(({ review, words, notes, answers, places }) => {
        const draft = draftOf.get(review.draftId);
        if (draft === undefined) return [];
        const minutes = context.course.measuresTime ? review.spentSeconds / 60 : null;
        const [who, author] = [labels.reviewer(review.reviewerId), labels.authorOf(draft)];
        const shares = levelShares(form, answers);
        const levels = items.map(({ itemId }) => shares[itemId] ?? null);
        const day = dayOf(review, context.course.timeZone);
        const stand = places.flatMap(({ id, kind }): Array<[typeof kind, number]> => {
          const part = draftPartOf(along.get(id) ?? null);
          return part === null ? [] : [[kind, part]];
        });
        return [{ id: review.id, person: who, author, words, notes, minutes, day, levels, along: stand }];
      }),
      notes: NOTE_KINDS.map((kind) => ({
        kind,
        ...alongDraft(
          peers.flatMap(({ places }) =>
            places.filter((note) => note.kind === kind).map(({ id }) => along.get(id) ?? null),
          ),
        ),
      })),
      uptake: context.facts.may.released ? await uptakeOf(manager, exchangeId, peers) : [],
      days: daysOf(peers, context.course.timeZone),
      provisional: adjusted === null,
      problem: adjusted === null ? stillWorking() : adjusted.problem === null ? null : adjustSentence(adjusted.problem),
    };
  }
}

/** What staff and authors say of a draft themselves, and what its peers say item by item. */
function besideThePeers(
  reviews: readonly ReviewInGrade[],
  peers: readonly ReviewInGrade[],
  form: ReviewForm,
  itemIds: readonly string[],
): (draftId: string) => Pick<InsightsView['drafts'][number], 'staff' | 'self' | 'items'> {
  const ofDraft = ({ review }: ReviewInGrade) => review.draftId;
  const submitted = reviews.filter(({ review, score }) => review.submittedAt !== null && score !== null);
  const staff = groupedBy(
    submitted.filter(({ review }) => review.voice !== null),
    ofDraft,
  );
  const own = groupedBy(
    submitted.filter(({ self }) => self),
    ofDraft,
  );
  const byDraft = groupedBy(peers, ofDraft);
  const meanOf = (rows: readonly ReviewInGrade[] = []) =>
    peerScore(
      rows.flatMap(({ score }) => score ?? []),
      'mean',
    );
  return (draftId) => {
    const shares = (byDraft.get(draftId) ?? []).map(({ answers }) => levelShares(form, answers));
    return {
      staff: meanOf(staff.get(draftId)),
      self: meanOf(own.get(draftId)),
      items: itemIds.map((id) =>
        peerScore(
          shares.flatMap((of) => of[id] ?? []),
          'mean',
        ),
      ),
    };
  };
}

/** Of the course's calendar: "2026-03-18". */
function dayOf({ submittedAt }: Review, timeZone: string): string {
  const { year, month, day } = localTime(submittedAt as number, timeZone);
  return [year, month, day].map((part) => String(part).padStart(2, '0')).join('-');
}

function daysOf(peers: readonly ReviewInGrade[], timeZone: string): InsightsView['days'] {
  const days = groupedBy(peers, ({ review }) => dayOf(review, timeZone));
  return [...days].sort(([a], [b]) => (a < b ? -1 : 1)).map(([day, of]) => ({ day, reviews: of.length }));
}

/** By section, and by each set of groups of the course; a draft belongs where the first of its authors does. */
async function groupings(
  manager: EntityManager,
  { course, exchange }: ExchangeContext,
  { drafts, authors }: GradedReviews,
): Promise<InsightsView['groupings']> {
  const people = new Map(
    (await manager.findBy(Participant, { exchangeId: exchange.id })).map((one) => [one.id, one.personId]),
  );
  const enrolled = new Map(
    (await manager.findBy(Enrolment, { courseId: course.id })).map((one) => [one.personId, one]),
  );
  const placeOf = (draft: Draft) => enrolled.get(people.get(authors.of(draft)[0] ?? '') ?? '');
  const by = (title: string, nameOf: (enrolment: Enrolment) => string | null | undefined) => {
    const of = drafts.flatMap((draft) => {
      const enrolment = placeOf(draft);
      const name = enrolment === undefined ? null : nameOf(enrolment);
      return name == null || name === '' ? [] : [[draft.id, name] as const];
    });
    return { title, of: Object.fromEntries(of) };
  };
  const sets = await manager.find(GroupSet, { where: { courseId: course.id }, order: { createdAt: 'ASC', id: 'ASC' } });
  const found = [by('section', ({ section }) => section)];
  for (const { id: setId, title } of sets) {
    const titles = new Map((await manager.findBy(StudentGroup, { setId })).map((one) => [one.id, one.title]));
    const groupOf = new Map(
      (await manager.findBy(GroupMemberRow, { setId })).map((one) => [one.enrolmentId, one.groupId]),
    );
    found.push(by(title, ({ id }) => titles.get(groupOf.get(id) ?? '')));
  }
  // With one of them, or none, there is nothing to put beside each other.
  return found.filter(({ of }) => new Set(Object.values(of)).size > 1);
}

/** How far along their drafts notes stand, by note; null for nowhere along. */
async function notePlaces(
  manager: EntityManager,
  peers: readonly ReviewInGrade[],
): Promise<Map<string, number | null>> {
  const notes = peers.flatMap(({ places }) => places);
  const extents = await extentsOf(manager, [...new Set(notes.flatMap(({ partId }) => partId ?? []))]);
  const none = { textLength: null, pages: null, seconds: null };
  return new Map(
    notes.map(({ id, partId, selector }) => [id, placeShare(selector, extents.get(partId ?? '') ?? none)]),
  );
}

/** How large parts of drafts are, from what is kept of them; a few at a time, since texts are large. */
async function extentsOf(manager: EntityManager, partIds: readonly string[]) {
  const extents = new Map<string, Parameters<typeof placeShare>[1]>();
  for (const some of portions(partIds)) {
    const parts = await manager.findBy(DraftPart, { id: In(some) });
    const digests = parts.flatMap(({ digest }) => digest ?? []);
    const files = new Map((await manager.findBy(StoredFile, { digest: In(digests) })).map((one) => [one.digest, one]));
    for (const { id, kind, html, digest } of parts) {
      const file = files.get(digest ?? '');
      const text = kind === 'text' ? html : (file?.copyHtml ?? null);
      extents.set(id, {
        textLength: text === null ? null : htmlToText(text).length,
        pages: file?.facts.pages ?? null,
        seconds: file?.facts.seconds ?? null,
      });
    }
  }
  return extents;
}
