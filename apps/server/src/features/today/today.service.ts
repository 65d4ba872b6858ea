import { Injectable } from '@nestjs/common';
import type { TodayItem, TodayKind, TodayView, WaitingItem } from '@salt-circle/contracts';
import {
  DATE_ORDER,
  endOf,
  hasPractised,
  isOver,
  resolveDates,
  staffNeeds,
  studentNeeds,
  studentStatus,
  withPersonalDates,
  type DateName,
  type Need,
  type OwnReview,
  type PersonalDates,
  type StaffSituation,
  type StudentSituation,
} from '@salt-circle/core';
import { practiceStates } from '../../permissions/practice.js';
import { In, IsNull, MoreThan, Not } from 'typeorm';
import { draftOf, groupIdOf } from '../../permissions/own-draft.js';
import { datesOf } from '../../permissions/exchange-facts.js';
import { isoOrNull } from '../../platform/wire/instants.js';
import { ALLOCATED, isChanging } from '../../permissions/review-state.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { AllocationService } from '../allocation/allocation.service.js';
import { AllocationPreview } from '../../model/allocation.js';
import { Clock } from '../../platform/clock/clock.js';
import { Enrolment } from '../../model/course.js';
import { GroupMemberRow } from '../../model/group.js';
import { Database } from '../../platform/database/database.js';
import { Exchange, Participant, PersonalDatesRow } from '../../model/exchange.js';
import { ExchangesService } from '../planning/exchanges.service.js';
import { nextView } from '../../queries/exchange-views.js';
import type { Draft } from '../../model/draft.js';
import { Review } from '../../model/review.js';
import type { ExchangeView } from '@salt-circle/contracts';

/** What the core says is to be done, or what only the allocation can tell. */
type Found = Omit<Need, 'kind'> & { readonly kind: TodayKind };

/** As much of an exchange as tells whether it is over: whole ones are large, and somebody has many. */
interface Outline extends Record<DateName, number | null> {
  readonly id: string;
  readonly courseId: string;
  readonly publishedAt: number | null;
  readonly rolling: number;
  readonly reflects: number;
}

@Injectable()
export class TodayService {
  constructor(
    private readonly database: Database,
    private readonly exchanges: ExchangesService,
    private readonly allocation: AllocationService,
    private readonly clock: Clock,
  ) {}

  /** What needs this person, most urgent first, and what they are waiting for. */
  async of(person: CurrentUser): Promise<TodayView> {
    const items: TodayItem[] = [];
    const waiting: WaitingItem[] = [];
    // With a student's eyes there is one exchange to look at, and Today is not part of it.
    for (const { exchange, role } of person.viewAs === undefined ? await this.#exchangesOf(person) : []) {
      const view = await this.exchanges.one(person, exchange.id);
      const now = this.clock.now();
      const student = role === 'student' ? await this.#situation(person, view, exchange) : null;
      const needs: Found[] =
        role === 'student'
          ? student === null
            ? []
            : studentNeeds(student, now)
          : [
              ...staffNeeds(staffSituation(view, exchange), now),
              ...(await this.#allocationNeeds(view, exchange)),
              ...(await this.#staffReviews(person, view, exchange)),
            ];
      const base = {
        exchangeId: view.id,
        exchangeTitle: view.title,
        courseTitle: view.course.title,
        timeZone: view.course.timeZone,
      };
      for (const { kind, due = null, reviewId = null, done = 0, of = 0 } of needs) {
        items.push({ ...base, kind, due: isoOrNull(due), reviewId, done, of });
      }
      const next = nextView(exchange, now, student?.own ?? null);
      const standing = student === null ? 'on-time' : studentStatus(student);
      if (next !== null && needs.length === 0) waiting.push({ ...base, role, next, standing });
    }
    const time = (at: string | null) => (at === null ? Infinity : Date.parse(at));
    items.sort((a, b) => time(a.due) - time(b.due) || a.exchangeId.localeCompare(b.exchangeId));
    waiting.sort((a, b) => time(a.next.at) - time(b.next.at));
    return { items, waiting };
  }

  /** Those in which something can be asked of the person: what is over for everybody costs no more than its row. */
  async #exchangesOf(person: CurrentUser): Promise<Array<{ exchange: Exchange; role: Enrolment['role'] }>> {
    const manager = this.database.read;
    const places = new Map(
      (await manager.findBy(Enrolment, { personId: person.id, active: true })).map((one) => [one.courseId, one]),
    );
    const all = await manager
      .createQueryBuilder(Exchange, 'one')
      .where({ courseId: In([...places.keys()]), practiceOf: IsNull() })
      .select(['id', 'courseId', 'publishedAt', 'rolling', ...DATE_ORDER].map((column) => `one.${column} AS ${column}`))
      .addSelect("one.after ->> '$.reflection' IS NOT NULL", 'reflects')
      .getRawMany<Outline>();
    const taken = await manager.find(Participant, { where: { personId: person.id }, select: { exchangeId: true } });
    const takesPart = new Set(taken.map(({ exchangeId }) => exchangeId));
    const ownPlaces = [...places.values()].map(({ id }) => id);
    const personalDates = await manager.find(PersonalDatesRow, {
      where: [
        { enrolmentId: In(ownPlaces) },
        {
          groupId: In((await manager.findBy(GroupMemberRow, { enrolmentId: In(ownPlaces) })).map((one) => one.groupId)),
        },
      ],
      select: { exchangeId: true },
    });
    const hasPersonalDates = new Set(personalDates.map(({ exchangeId }) => exchangeId));
    const now = this.clock.now();
    const roleIn = ({ courseId }: Pick<Exchange, 'courseId'>) => places.get(courseId)?.role ?? 'student';
    const running = all.filter((one) => {
      const isStudent = roleIn(one) === 'student';
      if (isStudent && (one.publishedAt === null || !takesPart.has(one.id))) return false;
      // Where nothing follows the release, a reflection can be handed in for ever.
      const waits = isStudent && one.reflects === 1;
      const state = { dates: one, publishedAt: one.publishedAt, rolling: one.rolling === 1 };
      return waits || hasPersonalDates.has(one.id) || !isOver(state, now);
    });
    const found = await manager.find(Exchange, {
      where: { id: In(running.map(({ id }) => id)) },
      order: { courseId: 'ASC', createdAt: 'ASC' },
    });
    return found.map((exchange) => ({ exchange, role: roleIn(exchange) }));
  }

  /** What the rule is asked about, of a student. */
  async #situation(
    person: CurrentUser,
    view: ExchangeView,
    exchange: Exchange,
  ): Promise<(StudentSituation & { readonly own: PersonalDates | null }) | null> {
    const { marks, own } = view;
    const common = resolveDates(datesOf(exchange));
    if (marks === null || common === null) return null;
    const participant = await this.database.read.findOneBy(Participant, { exchangeId: view.id, personId: person.id });
    const time = (at: string | null | undefined) => (at == null ? null : Date.parse(at));
    const dues = {
      ...{ draftsDue: time(own?.draftsDue), reviewsDue: time(own?.reviewsDue) },
      ...{ repliesDue: time(own?.repliesDue), revisionDue: time(own?.revisionDue) },
    };
    const times = own === null ? null : { ...dues, excused: own.excused };
    return {
      own: times,
      stage: view.stage,
      dates: withPersonalDates(common, times),
      excused: own?.excused === true,
      mayHandIn: view.mayHandIn,
      mayReview: view.mayReview,
      maySelfReview: view.maySelfReview,
      released: view.released,
      // Where revisions are reviewed once more nobody hands in: who has none here has missed nothing.
      handedIn: marks.draft === 'handed-in' || exchange.followsId !== null,
      changedSinceHandIn: marks.savedSinceHandIn,
      ownHandInFirst: exchange.ownHandInFirst,
      practice: await this.#practice(person, exchange, view.mayReview || view.stage === 'drafting'),
      // As far as the student may know of them already.
      reviews:
        participant === null || marks.reviewsAllocated === 0
          ? []
          : await this.#reviewsOf(participant, await this.#ownDraft(participant, exchange)),
      received: marks.reviewsReceived ?? 0,
      feedbackRead: await this.#hasRead(participant, exchange),
      // Before the others, as where each is read by itself.
      feedbackEach: exchange.feedbackEach || (view.feedbackOpen && !view.released),
      toRevise: view.mayRevise && !marks.revised,
      toReflect: view.mayReflect && !marks.reflected,
    };
  }

  /** What is to be practised before reviews open, while it can be. */
  async #practice(person: CurrentUser, exchange: Exchange, open: boolean): Promise<StudentSituation['practice']> {
    if (exchange.practice.when !== 'first' || !open) return null;
    const states = (await practiceStates(this.database.read, exchange, person.id))?.(person.id) ?? [];
    return { done: states.filter((state) => hasPractised([state])).length, of: states.length };
  }

  /** Whether there is nothing new: read once, or, review by review, since somebody else last submitted one. */
  async #hasRead(participant: Participant | null, exchange: Exchange): Promise<boolean> {
    const at = participant?.feedbackReadAt ?? null;
    if (participant === null || !exchange.feedbackEach) return at !== null;
    const manager = this.database.read;
    const draft = await this.#ownDraft(participant, exchange);
    if (draft === null) return true;
    const byOthers = { draftId: draft.id, reviewerId: Not(participant.id) };
    return !(await manager.existsBy(Review, { ...byOthers, submittedAt: MoreThan(at ?? 0), withheldAt: IsNull() }));
  }

  async #ownDraft(participant: Participant, exchange: Exchange): Promise<Draft | null> {
    const manager = this.database.read;
    return draftOf(manager, participant, await groupIdOf(manager, exchange, participant.personId));
  }

  async #reviewsOf({ id: reviewerId }: Participant, own: Draft | null): Promise<OwnReview[]> {
    const mine = await this.database.read.find(Review, {
      where: { reviewerId, ...ALLOCATED },
      order: { position: 'ASC' },
    });
    return mine.map((review) => ({
      id: review.id,
      self: review.draftId === own?.id,
      submitted: review.submittedAt !== null,
      changing: isChanging(review),
      reopenedByStaff:
        review.reopenReason !== null &&
        isChanging(review) &&
        (review.reopenUntil === null || this.clock.now() < endOf(review.reopenUntil)),
      reopenUntil: review.reopenUntil,
    }));
  }

  /** Reviews that somebody of the staff is still to write who reviews as well. */
  async #staffReviews(person: CurrentUser, view: ExchangeView, exchange: Exchange): Promise<Need[]> {
    const dates = resolveDates(datesOf(exchange));
    const participant = await this.database.read.findOneBy(Participant, { exchangeId: view.id, personId: person.id });
    if (!view.mayReview || dates === null || participant === null || participant.extraReviews === null) return [];
    const reviews = await this.#reviewsOf(participant, null);
    return reviews.flatMap(({ id, submitted, changing }, index): Need[] =>
      submitted && !changing
        ? []
        : [{ kind: 'write-review', due: dates.reviewsDue, reviewId: id, done: index + 1, of: reviews.length }],
    );
  }

  /** A planned run that could not place everybody, and what has happened since the allocation was made. */
  async #allocationNeeds(view: ExchangeView, exchange: Exchange): Promise<Found[]> {
    if (view.figures === null || !view.published || !['drafting', 'reviewing'].includes(view.stage)) return [];
    const kept = await this.database.read.existsBy(AllocationPreview, { exchangeId: exchange.id, madeBy: '' });
    const dates = resolveDates(datesOf(exchange));
    if (kept) return [{ kind: 'look-at-allocation', due: dates?.reviewsOpen ?? null }];
    if (view.figures.allocated === 0) return [];
    const done = await this.allocation.casesSince(exchange, this.clock.now());
    return done === 0 ? [] : [{ kind: 'mend-allocation', due: dates?.reviewsDue ?? null, done }];
  }
}

function staffSituation({ stage, published, mayHandIn, figures }: ExchangeView, exchange: Exchange): StaffSituation {
  const { students = 0, handedIn = 0, allocated = 0, submitted = 0 } = figures ?? {};
  const rolling = exchange.rolling;
  return {
    stage,
    published,
    dates: resolveDates(datesOf(exchange)),
    mayHandIn,
    students,
    handedIn,
    allocated,
    submitted,
    rolling,
  };
}
