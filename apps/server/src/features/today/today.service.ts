import { Injectable } from '@nestjs/common';
import type { TodayItem, TodayKind, TodayView, WaitingItem } from '@salt-circle/contracts';
import type { Asker } from '../../access/seeing.js';
import { AllocationService } from '../allocation/allocation.service.js';
import { AllocationPreview } from '../../model/allocation.js';
import { Clock } from '../../platform/clock/clock.js';
import { Enrolment } from '../../model/course.js';
import { Database } from '../../platform/database/database.js';
import { Exchange } from '../../model/exchange.js';
import { ExchangesService } from '../planning/exchanges.service.js';
import { nextView } from '../../access/mapper.js';
import { Participant } from '../../model/exchange.js';
import { Review } from '../../model/review.js';
import type { ExchangeView } from '@salt-circle/contracts';

interface Need {
  readonly kind: TodayKind;
  readonly due?: string | null;
  readonly reviewId?: string;
  readonly done?: number;
  readonly of?: number;
}

/** Feedback stays on Today for as long as it is news. */
const NEWS = 14 * 24 * 3_600_000;
/** Missing hand-ins become the instructor's concern this long before the due time. */
const SOON = 48 * 3_600_000;

@Injectable()
export class TodayService {
  constructor(
    private readonly database: Database,
    private readonly exchanges: ExchangesService,
    private readonly allocation: AllocationService,
    private readonly clock: Clock,
  ) {}

  /** What needs this person, most urgent first, and what they are waiting for. */
  async of(person: Asker): Promise<TodayView> {
    const items: TodayItem[] = [];
    const waiting: WaitingItem[] = [];
    // With a student's eyes there is one exchange to look at, and Today is not part of it.
    for (const { exchange, role } of person.seeing === undefined ? await this.#exchangesOf(person) : []) {
      const view = await this.exchanges.one(person, exchange.id);
      const needs =
        role === 'student'
          ? await this.#studentNeeds(person, view, exchange)
          : [
              ...staffNeeds(view, this.clock.now()),
              ...(await this.#allocationNeeds(view, exchange)),
              ...(await this.#ownReviews(person, view)),
            ];
      const base = {
        exchangeId: view.id,
        exchangeTitle: view.title,
        courseTitle: view.course.title,
        timeZone: view.course.timeZone,
      };
      for (const { kind, due = null, reviewId = null, done = 0, of = 0 } of needs) {
        items.push({ ...base, kind, due, reviewId, done, of });
      }
      const next = nextView(exchange, this.clock.now());
      if (next !== null && needs.length === 0) waiting.push({ ...base, role, next });
    }
    const time = (at: string | null) => (at === null ? Infinity : Date.parse(at));
    items.sort((a, b) => time(a.due) - time(b.due) || a.exchangeId.localeCompare(b.exchangeId));
    waiting.sort((a, b) => time(a.next.at) - time(b.next.at));
    return { items, waiting };
  }

  async #exchangesOf(person: Asker): Promise<Array<{ exchange: Exchange; role: Enrolment['role'] }>> {
    const manager = this.database.read;
    const found: Array<{ exchange: Exchange; role: Enrolment['role'] }> = [];
    for (const { courseId, role } of await manager.findBy(Enrolment, { personId: person.id, active: true })) {
      for (const exchange of await manager.findBy(Exchange, { courseId })) {
        const takesPart =
          role !== 'student' || (await manager.existsBy(Participant, { exchangeId: exchange.id, personId: person.id }));
        if (takesPart && (role !== 'student' || exchange.publishedAt !== null)) found.push({ exchange, role });
      }
    }
    return found;
  }

  async #studentNeeds(person: Asker, view: ExchangeView, exchange: Exchange): Promise<Need[]> {
    const { marks, dates } = view;
    if (marks === null || view.own?.excused === true) return [];
    const draftsDue = view.own?.draftsDue ?? (view.handInIsLate ? dates.lateUntil : dates.draftsDue);
    const needs: Need[] = [];
    if (view.mayHandIn) {
      if (marks.draft !== 'handed-in') needs.push({ kind: 'hand-in', due: draftsDue });
      else if (marks.savedSinceHandIn) needs.push({ kind: 'hand-in-again', due: draftsDue });
      if (!view.mayReview) return needs;
    }
    if (view.mayReview) {
      // Drafts of others stay closed to those who have handed in none, where the exchange asks for that.
      if (exchange.ownHandInFirst && marks.draft !== 'handed-in') return needs;
      return [...needs, ...(await this.#ownReviews(person, view))];
    }
    const released = Date.parse(dates.release ?? dates.checkUntil ?? dates.reviewsDue ?? '');
    const news = view.released && this.clock.now() - released < NEWS;
    return news && (marks.reviewsReceived ?? 0) > 0
      ? [{ kind: 'read-feedback', done: marks.reviewsReceived ?? 0 }]
      : [];
  }

  /** Reviews that this person is still to write; of staff only those who review as well. */
  async #ownReviews(person: Asker, view: ExchangeView): Promise<Need[]> {
    if (!view.mayReview) return [];
    const manager = this.database.read;
    const participant = await manager.findOneBy(Participant, { exchangeId: view.id, personId: person.id });
    if (participant === null || (view.figures !== null && participant.extraReviews === null)) return [];
    const mine = await manager.find(Review, { where: { reviewerId: participant.id }, order: { position: 'ASC' } });
    const due = view.own?.reviewsDue ?? view.dates.reviewsDue;
    return mine
      .map(({ id, submittedAt }, index) => ({ id, submittedAt, place: index + 1 }))
      .filter(({ submittedAt }) => submittedAt === null)
      .map(({ id, place }): Need => ({ kind: 'write-review', due, reviewId: id, done: place, of: mine.length }));
  }

  /** A planned run that could not place everybody, and what has happened since the allocation was made. */
  async #allocationNeeds(view: ExchangeView, exchange: Exchange): Promise<Need[]> {
    if (view.figures === null || !view.published || !['drafting', 'reviewing'].includes(view.stage)) return [];
    const kept = await this.database.read.existsBy(AllocationPreview, { exchangeId: exchange.id, madeBy: '' });
    const due = view.dates.reviewsDue;
    if (kept) return [{ kind: 'look-at-allocation', due: view.dates.reviewsOpen ?? view.dates.draftsDue }];
    if (view.figures.allocated === 0) return [];
    const done = await this.allocation.casesSince(exchange, this.clock.now());
    return done === 0 ? [] : [{ kind: 'mend-allocation', due, done }];
  }
}

/** What is stuck, not what exists. */
function staffNeeds(view: ExchangeView, now: number): Need[] {
  const { figures, dates, stage } = view;
  if (figures === null) return [];
  if (!view.published) return [{ kind: 'finish-plan', due: dates.draftsOpen }];
  const draftsDue = Date.parse(dates.draftsDue ?? '');
  const needs: Need[] = [];
  const missing = figures.students - figures.handedIn;
  if (view.mayHandIn && missing > 0 && draftsDue - now < SOON) {
    needs.push({ kind: 'remind-drafts', due: dates.draftsDue, done: figures.handedIn, of: figures.students });
  }
  if (now >= draftsDue && figures.allocated === 0 && (stage === 'drafting' || stage === 'reviewing')) {
    needs.push({
      kind: 'allocate',
      due: dates.reviewsOpen ?? dates.lateUntil ?? dates.draftsDue,
      done: figures.handedIn,
      of: figures.students,
    });
  }
  if (
    stage === 'reviewing' &&
    figures.submitted < figures.allocated &&
    Date.parse(dates.reviewsDue ?? '') - now < SOON
  ) {
    needs.push({ kind: 'watch-reviews', due: dates.reviewsDue, done: figures.submitted, of: figures.allocated });
  }
  if (stage === 'checking')
    needs.push({
      kind: 'release',
      due: dates.release ?? dates.checkUntil,
      done: figures.submitted,
      of: figures.allocated,
    });
  return needs;
}
