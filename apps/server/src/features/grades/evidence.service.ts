import { Injectable } from '@nestjs/common';
import type { GradeGroundsView } from '@salt-circle/contracts';
import {
  completeness,
  endOf,
  formMaximum,
  formScore,
  lateness,
  peerScore,
  qualityOf,
  READY_REVIEWING_FORM,
  resolveDates,
  USUAL_GRADE_RULE,
  withOwnTimes,
  type Adjusted,
  type FormItem,
  type GradeEvidence,
  type GradePartName,
  type GradeRule,
  type Override,
  type PartEvidence,
  type Rating,
} from '@salt-circle/core';
import { In, type EntityManager } from 'typeorm';
import type { Place } from '../../access/access.js';
import { Authors } from '../../access/authors.js';
import { datesOf } from '../../access/facts-of.js';
import { allOwnTimes } from '../../access/own-times.js';
import { activeParticipants } from '../../access/participants.js';
import { rowsOfReviews } from '../../access/rows-of-reviews.js';
import { isHandedIn, countingNumber } from '../../access/versions.js';
import { Draft, DraftVersion } from '../../model/draft.js';
import type { Exchange, Participant } from '../../model/exchange.js';
import { GradeOverrideRow, ReviewingMark } from '../../model/grade.js';
import { ReplyRow } from '../../model/reply.js';
import { ReflectionRow } from '../../model/revision.js';
import { groupedBy } from '../../platform/grouping/grouped-by.js';
import { Adjusting } from './adjusting.js';
import { qualityFrom, reviewsInGrades, type ReviewInGrade } from './reviews-in-grades.js';

export interface Evidenced {
  readonly participant: Participant;
  readonly draftId: string | null;
  readonly reviewIds: readonly string[];
  readonly evidence: GradeEvidence;
  readonly grounds: GradeGroundsView;
  readonly mark: ReviewingMark | null;
}

/** An exchange at a moment, in milliseconds. */
export type Around = Pick<Place, 'exchange' | 'now'>;

export interface AllEvidence {
  readonly people: readonly Evidenced[];
  readonly adjusted: Adjusted | null;
}

/** How parts become a grade, of an exchange. */
export function ruleOf({ gradeRule }: Pick<Exchange, 'gradeRule'>): GradeRule {
  return gradeRule ?? USUAL_GRADE_RULE;
}

/** The form by which reviewing is marked. */
export function reviewingFormOf({ reviewingForm }: Pick<Exchange, 'reviewingForm'>): readonly FormItem[] {
  return reviewingForm ?? READY_REVIEWING_FORM;
}

/** What everybody did, as the parts of the grade ask for it. */
@Injectable()
export class Evidence {
  constructor(private readonly adjusting: Adjusting) {}

  /** A fixed number of queries, but for the contents of reviews, which come in portions. */
  async of(manager: EntityManager, around: Around, rule: GradeRule): Promise<AllEvidence> {
    const { exchange, now } = around;
    const people = await activeParticipants(manager, exchange.id);
    const authors = await Authors.load(manager, exchange);
    const drafts = await manager
      .createQueryBuilder(Draft, 'draft')
      .where('draft.exchangeId = :exchangeId', { exchangeId: exchange.id })
      .andWhere(isHandedIn(manager))
      .getMany();
    const draftOf = new Map(drafts.flatMap((draft) => authors.of(draft).map((id) => [id, draft] as const)));
    const ownDrafts = new Map(drafts.map((draft) => [draft.id, authors.of(draft)]));
    const handedIn = await handedInAt(manager, exchange.id);
    const { form, reviews } = await reviewsInGrades(
      manager,
      around,
      ({ draftId, reviewerId }) => ownDrafts.get(draftId)?.includes(reviewerId) === true,
    );
    const peers = reviews.filter(({ review, self }) => review.voice === null && !self);
    const scored = groupedBy(
      peers.filter(({ score, review }) => score !== null && review.withheldAt === null),
      ({ review }) => review.draftId,
    );
    const adjusted = rule.score === 'adjusted' ? await this.#adjusted(exchange.id, peers) : null;
    const adjustedOf = new Map(adjusted?.drafts.map((one) => [one.id, one]) ?? []);
    const byStaff = groupedBy(
      reviews.filter(({ review, score }) => review.voice !== null && score !== null),
      ({ review }) => review.draftId,
    );
    const given = groupedBy(
      reviews.filter(({ review }) => review.voice === null),
      ({ review }) => review.reviewerId,
    );
    const received = groupedBy(
      peers.filter(({ review }) => review.submittedAt !== null && review.withheldAt === null),
      ({ review }) => review.draftId,
    );
    const answered = new Set(
      (await rowsOfReviews(manager, ReplyRow, exchange.id).andWhere("row.as = 'author'").getMany()).map(
        ({ reviewId, participantId }) => `${participantId} ${reviewId}`,
      ),
    );
    const ids = people.map(({ id }) => id);
    const reflections = new Map(
      (await inPortions(ids, (some) => manager.findBy(ReflectionRow, { participantId: In(some) }))).map((one) => [
        one.participantId,
        one,
      ]),
    );
    const marks = new Map(
      (await inPortions(ids, (some) => manager.findBy(ReviewingMark, { participantId: In(some) }))).map((one) => [
        one.participantId,
        one,
      ]),
    );
    const overrides = groupedBy(
      await inPortions(ids, (some) => manager.findBy(GradeOverrideRow, { participantId: In(some) })),
      ({ participantId }) => participantId,
    );
    const own = await allOwnTimes(manager, exchange);
    const common = resolveDates(datesOf(exchange));
    const asked = completeness(form, {}, 0).required;
    const target = form.targetNotes || form.minimumNotes || 1;
    const maximum = formMaximum(form);
    const markForm = { items: reviewingFormOf(exchange), weighting: 'points' as const };
    const one = (participant: Participant): Evidenced => {
      const times = own.get(participant.personId) ?? null;
      const dates = common === null ? null : withOwnTimes(common, times);
      const past = (due: number | null | undefined) => due != null && now >= endOf(due);
      const draft = draftOf.get(participant.id);
      const mine = given.get(participant.id) ?? [];
      const counted = mine.filter(({ review, discounted }) => review.submittedAt !== null && !discounted);
      const got = received.get(draft?.id ?? '') ?? [];
      const scores = (scored.get(draft?.id ?? '') ?? []).flatMap(({ score }) => score ?? []);
      const late = lateOf(exchange, dates?.draftsDue ?? null, handedIn.get(draft?.id ?? ''));
      const lessLate = (score: number | null) =>
        score === null || maximum === null || maximum === 0 ? score : Math.max(0, score - late.points / maximum);
      const mark = marks.get(participant.id) ?? null;
      const marked = mark === null ? null : formScore(markForm, mark.answers);
      const done =
        mark !== null &&
        completeness({ ...form, ...markForm, overall: 'none', minimumNotes: 0 }, mark.answers, 0).complete;
      const quality = {
        ...qualityFrom(mine, (draftId, without) =>
          (scored.get(draftId) ?? []).flatMap(({ review, score }) => (review.id === without ? [] : (score ?? []))),
        ),
        mark: marked === null || !done ? null : marked.percent / 100,
      };
      const taken = adjustedOf.get(draft?.id ?? '');
      const ofPeers =
        rule.score === 'adjusted'
          ? taken === undefined
            ? null
            : within(taken.adjusted)
          : peerScore(scores, rule.score);
      const staff = (byStaff.get(draft?.id ?? '') ?? []).flatMap(({ score }) => score ?? []);
      const excused = times?.excused === true;
      /** Until it is due, what is not begun says nothing. */
      const soFar = (value: number, due: number | null | undefined) => (value > 0 || past(due) ? value : null);
      const part = (value: number | null, of: number, without = false): PartEvidence => ({
        ...{ got: value, of: of > 0 ? of : 1 },
        // Of whom nothing was asked when it was over, nothing is missing.
        excused: excused || without,
      });
      const reviewsOver = past(dates?.reviewsDue);
      const noneAsked = mine.length === 0 && reviewsOver;
      const required = mine.reduce((sum, { review }) => sum + (review.begunAt === null ? asked : review.required), 0);
      const filled = mine.reduce((sum, { review, discounted }) => sum + (discounted ? 0 : review.answered), 0);
      const noted = counted.reduce((sum, { notes }) => sum + Math.min(notes, target), 0);
      const replied = got.filter(({ review }) => answered.has(`${participant.id} ${review.id}`)).length;
      const reflected = reflections.get(participant.id)?.handedInAt != null;
      const afterDue = dates?.revisionDue ?? dates?.repliesDue;
      const parts: Record<GradePartName, PartEvidence> = {
        'handing-in': part(draft === undefined ? soFar(0, dates?.lateUntil) : 1, 1),
        'reviews-done': part(
          mine.length === 0 ? null : soFar(counted.length, dates?.reviewsDue),
          mine.length,
          noneAsked,
        ),
        'form-completed': part(mine.length === 0 ? null : soFar(filled, dates?.reviewsDue), required, noneAsked),
        'notes-made': part(mine.length === 0 ? null : soFar(noted, dates?.reviewsDue), target * mine.length, noneAsked),
        'peer-score': part(lessLate(ofPeers), 1),
        'review-quality': part(qualityOf(quality, rule.quality), 1, noneAsked),
        replies: part(
          got.length === 0 ? null : soFar(replied, dates?.repliesDue),
          got.length,
          got.length === 0 && past(dates?.repliesDue),
        ),
        reflection: part(reflected ? 1 : soFar(0, afterDue), 1),
        'instructor-mark': part(staff.length === 0 ? null : lessLate(peerScore(staff, 'mean')), 1),
      };
      return {
        participant,
        draftId: draft?.id ?? null,
        reviewIds: mine.map(({ review }) => review.id),
        evidence: { parts, lateLoses: excused ? 0 : late.percent, ...overridesOf(overrides.get(participant.id) ?? []) },
        grounds: {
          reviews: scores.length,
          scores: [...scores].sort((a, b) => a - b),
          method: rule.score,
          interval: taken === undefined ? null : { low: within(taken.low), high: within(taken.high) },
          quality,
          late,
        },
        mark,
      };
    };
    return { people: people.map(one), adjusted };
  }

  #adjusted(exchangeId: string, peers: readonly ReviewInGrade[]): Promise<Adjusted> {
    const ratings = peers.flatMap(({ review, score }): Rating[] =>
      score === null || review.withheldAt !== null
        ? []
        : [{ reviewerId: review.reviewerId, draftId: review.draftId, score }],
    );
    return this.adjusting.of(exchangeId, ratings);
  }
}

/** Scores are shares of a maximum; predictions can lie beyond. */
function within(share: number): number {
  return Math.max(0, Math.min(1, share));
}

function lateOf(exchange: Exchange, due: number | null, at: number | undefined): GradeGroundsView['late'] {
  if (exchange.late === null || due === null || at === undefined) return { percent: 0, points: 0 };
  const { loses } = lateness(exchange.late, due, at);
  return exchange.late.unit === 'percent' ? { percent: loses, points: 0 } : { percent: 0, points: loses };
}

function overridesOf(rows: readonly GradeOverrideRow[]): Pick<GradeEvidence, 'overrides' | 'override'> {
  const as = ({ value, reason, computed }: GradeOverrideRow): Override => ({ value, reason, computed });
  const whole = rows.find(({ part }) => part === '');
  return {
    overrides: Object.fromEntries(rows.filter(({ part }) => part !== '').map((row) => [row.part, as(row)])),
    override: whole === undefined ? null : as(whole),
  };
}

/** SQLite takes a bounded number of parameters in one query. */
async function inPortions<T>(ids: readonly string[], ask: (some: readonly string[]) => Promise<T[]>): Promise<T[]> {
  const found: T[] = [];
  for (let from = 0; from < ids.length; from += 5_000) found.push(...(await ask(ids.slice(from, from + 5_000))));
  return found;
}

/** When the version that counts was handed in, by draft. */
async function handedInAt(manager: EntityManager, exchangeId: string): Promise<Map<string, number>> {
  const rows = await manager
    .createQueryBuilder(Draft, 'draft')
    .innerJoin(DraftVersion, 'version', `version.draftId = draft.id AND version.number = ${countingNumber(manager)}`)
    .where('draft.exchangeId = :exchangeId', { exchangeId })
    .select(['draft.id AS id', 'version.handedInAt AS at'])
    .getRawMany<{ id: string; at: number }>();
  return new Map(rows.map(({ id, at }) => [id, at]));
}
