import type { GradeGroundsView, GradingWorkView } from '@salt-circle/contracts';
import {
  completeness,
  endOf,
  formMaximum,
  formScore,
  ofMarkKey,
  lateness,
  peerScore,
  qualityOf,
  weightedScore,
  withPersonalDates,
  type Adjusted,
  type Answers,
  type Explanation,
  type GradeEvidence,
  type GradePartName,
  type GradeRule,
  type GradingWork,
  type Override,
  type PersonalDates,
  type PartEvidence,
  type ResolvedDates,
  type ReviewForm,
} from '@salt-circle/core';
import type { ExchangeContext } from '../../permissions/access.js';
import { reviewingFormOf } from '../../queries/grade-rule.js';
import type { Draft } from '../../model/draft.js';
import type { Exchange, Participant } from '../../model/exchange.js';
import type { GradeOverrideRow, ReviewingMark } from '../../model/grade.js';
import type { Review } from '../../model/review.js';
import type { ReflectionRow } from '../../model/revision.js';
import { groupedBy } from '../../platform/grouping/grouped-by.js';
import { peersOf, qualityFrom, type GradedReviews, type ReviewInGrade } from './reviews-in-grades.js';

export interface Evidenced {
  readonly participant: Participant;
  readonly draftId: string | null;
  readonly reviewIds: readonly string[];
  readonly evidence: GradeEvidence;
  readonly grounds: GradeGroundsView;
  readonly mark: ReviewingMark | null;
  /** How far each thing to grade is. */
  readonly work: Readonly<Record<GradingWork, GradedSoFar>>;
}

export interface GradedSoFar {
  readonly state: GradingWorkView['state'];
  /** The own review of somebody of the staff, or the person who marked last. */
  readonly by: { readonly review: Review } | { readonly personId: string } | null;
}

/** An exchange at a moment, in milliseconds. */
export type Around = Pick<ExchangeContext, 'exchange' | 'now'>;

/** All that the evidence of a course is put together from, loaded. */
export interface Sources extends GradedReviews {
  readonly around: Around;
  readonly rule: GradeRule;
  readonly adjusted: Adjusted | null;
  /** By draft, where severity is taken out. */
  readonly explained: ReadonlyMap<string, Explanation>;
  /** How near reviewers came to the key in practice, 0 to 1, by participant; asked for where scores are weighted by it. */
  readonly practised: ReadonlyMap<string, number>;
  /** Of all; null while they are missing. */
  readonly dates: ResolvedDates | null;
  /** By person. */
  readonly own: ReadonlyMap<string, PersonalDates>;
  /** By draft; milliseconds. */
  readonly handedInAt: ReadonlyMap<string, number>;
  /** Participant and review, where its author has answered. */
  readonly answered: ReadonlySet<string>;
  readonly reflections: ReadonlyMap<string, ReflectionRow>;
  readonly marks: ReadonlyMap<string, ReviewingMark>;
  readonly overrides: ReadonlyMap<string, readonly GradeOverrideRow[]>;
}

/** Reviews by what they are of, and by whose they are. */
interface Index {
  readonly draftOf: ReadonlyMap<string, Draft>;
  readonly given: ReadonlyMap<string, readonly ReviewInGrade[]>;
  /** By peers, of drafts of others: those that give a score, those that their author reads; by draft. */
  readonly scored: ReadonlyMap<string, readonly ReviewInGrade[]>;
  readonly received: ReadonlyMap<string, readonly ReviewInGrade[]>;
  readonly byStaff: ReadonlyMap<string, readonly ReviewInGrade[]>;
  /** Also those that are not submitted, or give no score. */
  readonly begunByStaff: ReadonlyMap<string, readonly ReviewInGrade[]>;
  readonly adjusted: ReadonlyMap<string, Adjusted['drafts'][number]>;
}

/** @returns the evidence of one of the participants, of these sources */
export function evidenceOf(sources: Sources): (participant: Participant) => Evidenced {
  const index = indexOf(sources);
  return (participant) => {
    const { around, dates: common, own, marks, handedInAt, rule } = sources;
    const times = own.get(participant.personId) ?? null;
    const dates = common === null ? null : withPersonalDates(common, times);
    // A draft that is only saved is none.
    const saved = index.draftOf.get(participant.id);
    const draft = saved !== undefined && handedInAt.has(saved.id) ? saved : undefined;
    const mine = index.given.get(participant.id) ?? [];
    const late = lateOf(around.exchange, dates?.draftsDue ?? null, handedInAt.get(draft?.id ?? ''));
    const excused = times?.excused === true;
    const quality = { ...qualityOfGiven(mine, index), mark: markOf(sources, marks.get(participant.id), mine) };
    const draftId = draft?.id ?? null;
    const taken = index.adjusted.get(draftId ?? '');
    const scores = scoresOf(index.scored.get(draftId ?? ''));
    const asks = { participant, dates, draftId, mine, late, excused };
    return {
      ...{
        participant,
        draftId,
        reviewIds: mine.map(({ review }) => review.id),
        mark: marks.get(participant.id) ?? null,
        work: {
          draft: draftWork(index, draftId),
          reviewing: reviewingWork(sources, marks.get(participant.id), mine),
        },
      },
      evidence: {
        parts: partsOf(sources, index, asks, qualityOf(quality, rule.quality)),
        lateLoses: excused ? 0 : late.percent,
        ...overridesOf(sources.overrides.get(participant.id) ?? []),
      },
      grounds: {
        ...{ reviews: scores.length, scores: scores.sort((a, b) => a - b), quality, late },
        interval: taken === undefined ? null : { low: within(taken.low), high: within(taken.high) },
        company: companyOf(sources, taken),
      },
    };
  };
}

function companyOf({ explained }: Sources, taken: Adjusted['drafts'][number] | undefined): GradeGroundsView['company'] {
  const known = explained.get(taken?.id ?? '');
  return taken === undefined || known === undefined ? null : { mean: taken.mean, ...known };
}

function indexOf({ reviews, drafts, authors, adjusted }: Sources): Index {
  const ofDraft = ({ review }: ReviewInGrade) => review.draftId;
  const peers = peersOf(reviews);
  const allocated = reviews.filter(({ review }) => review.voice === null);
  const staff = reviews.filter(({ review, score }) => review.voice !== null && score !== null);
  return {
    draftOf: new Map(drafts.flatMap((draft) => authors.of(draft).map((id) => [id, draft] as const))),
    given: groupedBy(allocated, ({ review }) => review.reviewerId),
    scored: groupedBy(
      peers.filter(({ score }) => score !== null),
      ofDraft,
    ),
    received: groupedBy(peers, ofDraft),
    byStaff: groupedBy(staff, ofDraft),
    begunByStaff: groupedBy(
      reviews.filter(({ review }) => review.voice !== null && review.begunAt !== null),
      ofDraft,
    ),
    adjusted: new Map(adjusted?.drafts.map((one) => [one.id, one]) ?? []),
  };
}

interface Asks {
  readonly participant: Participant;
  /** With the person's own due times. */
  readonly dates: ResolvedDates | null;
  readonly draftId: string | null;
  /** Reviews that the person was given. */
  readonly mine: readonly ReviewInGrade[];
  readonly late: GradeGroundsView['late'];
  readonly excused: boolean;
}

function partsOf(
  sources: Sources,
  index: Index,
  { participant, dates, draftId, mine, late, excused }: Asks,
  quality: number | null,
): Record<GradePartName, PartEvidence> {
  const { around, form, answered, reflections } = sources;
  const past = (due: number | null | undefined) => due != null && around.now >= endOf(due);
  /** Until it is due, what is not begun says nothing. */
  const soFar = (value: number, due: number | null | undefined) => (value > 0 || past(due) ? value : null);
  /** @param without of whom nothing was asked when it was over, nothing is missing */
  const part = (got: number | null, of: number, without = false): PartEvidence => ({
    ...{ got, of: of > 0 ? of : 1, excused: excused || without },
  });
  const maximum = formMaximum(form);
  const lessLate = (score: number | null) =>
    score === null || maximum === null || maximum === 0 ? score : Math.max(0, score - late.points / maximum);
  const none = mine.length === 0;
  const noneAsked = none && past(dates?.reviewsDue);
  const ofReviews = (value: number) => (none ? null : soFar(value, dates?.reviewsDue));
  const counted = mine.filter(({ review, discounted }) => review.submittedAt !== null && !discounted);
  const asked = completeness(form, {}, 0).required;
  const required = mine.reduce((sum, { review }) => sum + (review.begunAt === null ? asked : review.required), 0);
  const filled = mine.reduce((sum, { review, discounted }) => sum + (discounted ? 0 : review.answered), 0);
  const target = form.targetNotes || form.minimumNotes || 1;
  const noted = counted.reduce((sum, { notes }) => sum + Math.min(notes, target), 0);
  const got = index.received.get(draftId ?? '') ?? [];
  const replied = got.filter(({ review }) => answered.has(`${participant.id} ${review.id}`)).length;
  const reflected = reflections.get(participant.id)?.handedInAt != null ? 1 : 0;
  return {
    'handing-in': part(draftId === null ? soFar(0, dates?.lateUntil) : 1, 1),
    'reviews-done': part(ofReviews(counted.length), mine.length, noneAsked),
    'form-completed': part(ofReviews(filled), required, noneAsked),
    'notes-made': part(ofReviews(noted), target * mine.length, noneAsked),
    'peer-score': part(lessLate(scoreOfPeers(sources, index, draftId)), 1),
    'review-quality': part(quality, 1, noneAsked),
    replies: part(
      got.length === 0 ? null : soFar(replied, dates?.repliesDue),
      got.length,
      got.length === 0 && past(dates?.repliesDue),
    ),
    reflection: part(soFar(reflected, dates?.revisionDue ?? dates?.repliesDue), 1),
    'instructor-mark': part(lessLate(peerScore(scoresOf(index.byStaff.get(draftId ?? '')), 'mean')), 1),
  };
}

/** A draft is graded once somebody of the staff has submitted a review of it. */
function draftWork({ begunByStaff }: Index, draftId: string | null): GradedSoFar {
  if (draftId === null) return { state: 'none', by: null };
  const begun = begunByStaff.get(draftId) ?? [];
  const [one] = [...begun].sort(
    (a, b) => Number(b.review.submittedAt !== null) - Number(a.review.submittedAt !== null),
  );
  if (one === undefined) return { state: 'open', by: null };
  return { state: one.review.submittedAt === null ? 'half' : 'done', by: { review: one.review } };
}

/** Reviewing is graded once all that is required of its form is answered, for the person or for each review. */
function reviewingWork(
  { around, form }: Sources,
  mark: ReviewingMark | undefined,
  mine: readonly ReviewInGrade[],
): GradedSoFar {
  if (mine.every(({ review }) => review.submittedAt === null)) return { state: 'none', by: null };
  if (mark === undefined) return { state: 'open', by: null };
  const by = mark.byId === null ? null : { personId: mark.byId };
  const marking = markingForm(around.exchange, form);
  const forms = marksOf(around.exchange, mark, mine);
  const ids = new Set(marking.items.map(({ id }) => id));
  if (forms.every((answers) => completeness(marking, answers, 0).complete)) return { state: 'done', by };
  return forms.some((answers) => Object.keys(answers).some((id) => ids.has(id)))
    ? { state: 'half', by }
    : { state: 'open', by: null };
}

function markingForm(exchange: Exchange, form: ReviewForm): ReviewForm {
  return { ...form, ...reviewingFormOf(exchange), overall: 'none', minimumNotes: 0 };
}

function scoreOfPeers({ rule, practised }: Sources, index: Index, draftId: string | null): number | null {
  const reviews = index.scored.get(draftId ?? '') ?? [];
  switch (rule.score) {
    case 'adjusted': {
      const adjusted = index.adjusted.get(draftId ?? '')?.adjusted;
      return adjusted === undefined ? null : within(adjusted);
    }
    case 'practice':
      return weightedScore(
        reviews.flatMap(({ review, score }) =>
          score === null ? [] : [{ score, weight: practised.get(review.reviewerId) ?? null }],
        ),
      );
    default:
      return peerScore(scoresOf(reviews), rule.score);
  }
}

function scoresOf(reviews: readonly ReviewInGrade[] = []): number[] {
  return reviews.flatMap(({ score }) => score ?? []);
}

function qualityOfGiven(mine: readonly ReviewInGrade[], { scored, byStaff }: Index) {
  return qualityFrom(
    mine,
    (draftId, without) => scoresOf(scored.get(draftId)?.filter(({ review }) => review.id !== without)),
    (draftId) => scoresOf(byStaff.get(draftId)),
  );
}

/** A mark that is half filled in says nothing yet; review by review, it is the mean of those that are filled in. */
function markOf(
  { around, form }: Sources,
  mark: ReviewingMark | undefined,
  mine: readonly ReviewInGrade[],
): number | null {
  if (mark === undefined) return null;
  const marking = markingForm(around.exchange, form);
  const given = marksOf(around.exchange, mark, mine).flatMap((answers) => {
    if (!completeness(marking, answers, 0).complete) return [];
    const score = formScore(marking, answers);
    return score === null ? [] : [score.percent / 100];
  });
  return peerScore(given, 'mean');
}

/** The filled forms of which a mark is made: one, or one for each submitted review. */
function marksOf(
  { reviewingEach }: Pick<Exchange, 'reviewingEach'>,
  { answers }: ReviewingMark,
  mine: readonly ReviewInGrade[],
): Answers[] {
  if (!reviewingEach) return [answers];
  return mine
    .filter(({ review }) => review.submittedAt !== null)
    .map(({ review }) => {
      const own = Object.entries(answers).flatMap(([key, answer]) => {
        const of = ofMarkKey(key);
        return of?.reviewId === review.id ? [[of.itemId, answer] as const] : [];
      });
      return Object.fromEntries(own);
    });
}

/** Scores are shares of a maximum; predictions can lie beyond. */
export function within(share: number): number {
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
