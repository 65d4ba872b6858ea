import { Injectable } from '@nestjs/common';
import type { FieldProblem, PlanRequest, PlanView, SavedView } from '@salt-circle/contracts';
import { checkDates, checkForm, type ExchangeDates } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import type { Person } from '../accounts/entities.js';
import { Clock } from '../clock/clock.js';
import { Enrolment } from '../courses/entities.js';
import { Database, type Report } from '../database/database.js';
import { cleanHtml } from '../html/clean-html.js';
import { Ids } from '../ids/ids.js';
import { ProblemError } from '../problems/problem-error.js';
import { conflict, dateInWords, dateProblem, formProblem, invalid } from '../problems/sentences.js';
import { Review } from '../reviews/entities.js';
import { Access, act, datesOf, see, type Place } from './access.js';
import { Exchange, Participant, ReviewFormRow } from './entities.js';
import { datesView, iso } from './mapper.js';
import { enrolParticipants } from './participants.js';

type PlanRow = ExchangeDates & Pick<Exchange, 'title' | 'briefHtml' | 'guideHtml' | 'reviewsPerStudent' | 'names'>;

@Injectable()
export class PlanService {
  constructor(
    private readonly database: Database,
    private readonly access: Access,
    private readonly clock: Clock,
    private readonly ids: Ids,
  ) {}

  async one(person: Person, exchangeId: string): Promise<PlanView> {
    const place = await this.access.exchange(person, exchangeId);
    see(place, { kind: 'workspace' });
    return this.#view(this.database.read, place);
  }

  save(person: Person, exchangeId: string, request: PlanRequest): Promise<SavedView> {
    return this.database.write(async (manager, happened) => {
      const place = await this.access.exchange(person, exchangeId, manager);
      act(place, { kind: 'plan' });
      const { exchange } = place;
      const next = this.#asRow(request);
      if (exchange.revision !== request.revision && !sameSettings(exchange, next)) {
        throw conflict('The plan', await this.#view(manager, place));
      }
      await this.#check(manager, place, next);
      const revision = exchange.revision + 1;
      await manager.update(Exchange, { id: exchangeId }, { ...next, revision });
      reportChange(place, next, happened);
      return { revision, savedAt: iso(this.clock.now()) };
    });
  }

  publish(person: Person, exchangeId: string): Promise<PlanView> {
    return this.database.write(async (manager, happened) => {
      const place = await this.access.exchange(person, exchangeId, manager);
      act(place, { kind: 'publish' });
      const missing = await this.#missing(manager, place);
      if (missing.length > 0) {
        throw new ProblemError({
          code: 'plan-incomplete',
          sentence: `${missing.length === 1 ? 'One thing is' : `${missing.length} things are`} missing before this exchange can be published.`,
          whatToDo: 'Mend what is listed, then publish.',
          fields: missing,
        });
      }
      const publishedAt = this.clock.now();
      await manager.update(Exchange, { id: exchangeId }, { publishedAt });
      await enrolParticipants(manager, place.exchange, this.ids);
      happened({ action: 'exchange-published', actorId: person.id, courseId: place.course.id, exchangeId });
      return this.#view(manager, await this.access.exchange(person, exchangeId, manager));
    });
  }

  /** Moves the release date: to a given instant, or to this very moment. */
  release(person: Person, exchangeId: string, at: string | null): Promise<{ release: string }> {
    return this.database.write(async (manager, happened) => {
      const place = await this.access.exchange(person, exchangeId, manager);
      act(place, { kind: 'release' });
      const release = at === null ? place.now : Date.parse(at);
      const problems = checkDates({ ...datesOf(place.exchange), release }, true);
      if (problems.length > 0) throw invalid(problems.map((one) => dateProblem(one, place.course.timeZone)));
      await manager.update(Exchange, { id: exchangeId }, { release, revision: place.exchange.revision + 1 });
      happened({
        action: at === null ? 'feedback-released' : 'dates-changed',
        actorId: person.id,
        courseId: place.course.id,
        exchangeId,
        details: { release: iso(release) },
      });
      return { release: iso(release) };
    });
  }

  #asRow(request: PlanRequest): PlanRow {
    const at = (text: string | null) => (text === null ? null : Date.parse(text));
    const { dates } = request;
    return {
      title: request.title.trim(),
      briefHtml: cleanHtml(request.briefHtml),
      guideHtml: cleanHtml(request.guideHtml),
      reviewsPerStudent: request.reviewsPerStudent,
      names: request.names,
      draftsOpen: at(dates.draftsOpen),
      draftsDue: at(dates.draftsDue),
      reviewsOpen: at(dates.reviewsOpen),
      reviewsDue: at(dates.reviewsDue),
      release: at(dates.release),
    };
  }

  /** What can't be kept at all, as opposed to what is missing for publishing. */
  async #check(manager: EntityManager, place: Place, next: PlanRow): Promise<void> {
    const { exchange, course, facts } = place;
    const problems: FieldProblem[] = checkDates(next, facts.published).map((one) => dateProblem(one, course.timeZone));
    const fixed = await this.#fixed(manager, place);
    if (fixed.names !== undefined && next.names !== exchange.names) {
      throw new ProblemError({ code: 'names-fixed', sentence: fixed.names, whatToDo: 'Leave the names as they are.' });
    }
    if (fixed.reviewsPerStudent !== undefined && next.reviewsPerStudent !== exchange.reviewsPerStudent) {
      problems.push({ path: 'reviewsPerStudent', code: 'fixed', sentence: fixed.reviewsPerStudent });
    }
    if (facts.published)
      problems.push(...(await this.#tooManyReviews(manager, exchange.courseId, next.reviewsPerStudent)));
    if (problems.length > 0) throw invalid(problems);
  }

  async #fixed(manager: EntityManager, { exchange, facts }: Place): Promise<PlanView['fixed']> {
    return {
      ...(facts.published && {
        names: 'The exchange is published: people have been told whether their names are shown, so this stays.',
      }),
      ...((await manager.existsBy(Review, { exchangeId: exchange.id })) && {
        reviewsPerStudent: 'Drafts have been allocated, so the number of reviews stays.',
      }),
    };
  }

  async #missing(manager: EntityManager, { exchange, course }: Place): Promise<FieldProblem[]> {
    const form = await manager.findOneByOrFail(ReviewFormRow, { id: exchange.formId });
    const missing: FieldProblem[] = [];
    if (exchange.briefHtml === '') {
      missing.push({
        path: 'briefHtml',
        code: 'brief-missing',
        sentence: 'The brief is empty. Say what authors are to write.',
      });
    }
    missing.push(...checkDates(datesOf(exchange), true).map((one) => dateProblem(one, course.timeZone)));
    const due = exchange.draftsDue;
    if (due !== null && due <= this.clock.now() && exchange.publishedAt === null) {
      missing.push({
        path: 'dates.draftsDue',
        code: 'date-past',
        sentence: `“Drafts due” (${dateInWords(due, course.timeZone)}) has passed, so nobody could hand in. Move it later.`,
      });
    }
    missing.push(...(await this.#tooManyReviews(manager, course.id, exchange.reviewsPerStudent)));
    missing.push(...checkForm(form).map((one) => ({ ...formProblem(one), path: `form.${one.path.join('.')}` })));
    return missing;
  }

  async #tooManyReviews(manager: EntityManager, courseId: string, wanted: number): Promise<FieldProblem[]> {
    const students = await manager.countBy(Enrolment, { courseId, role: 'student', active: true });
    if (wanted <= students - 1) return [];
    const others = Math.max(students - 1, 0);
    const sentence =
      others === 0
        ? `The course has ${students === 0 ? 'no students' : 'one student'}, so there is nobody to review whom. At least two are needed.`
        : `Each student is to give ${wanted} reviews, but there are only ${others} drafts by others to review. Ask for at most ${others}.`;
    return [{ path: 'reviewsPerStudent', code: 'too-many-reviews', sentence }];
  }

  async #view(manager: EntityManager, place: Place): Promise<PlanView> {
    const { exchange, facts } = place;
    const students = facts.published
      ? await manager.countBy(Participant, { exchangeId: exchange.id })
      : await manager.countBy(Enrolment, { courseId: exchange.courseId, role: 'student', active: true });
    return {
      revision: exchange.revision,
      title: exchange.title,
      briefHtml: exchange.briefHtml,
      guideHtml: exchange.guideHtml,
      dates: datesView(datesOf(exchange)),
      reviewsPerStudent: exchange.reviewsPerStudent,
      names: exchange.names,
      published: facts.published,
      students,
      missing: await this.#missing(manager, place),
      fixed: await this.#fixed(manager, place),
    };
  }
}

function sameSettings(exchange: Exchange, next: Partial<Exchange>): boolean {
  return (Object.keys(next) as Array<keyof Exchange>).every((key) => exchange[key] === next[key]);
}

function reportChange(
  { exchange, course, person }: Place,
  next: ExchangeDates & Partial<Exchange>,
  happened: Report,
): void {
  if (sameSettings(exchange, next)) return;
  const old = datesOf(exchange);
  const moved = (Object.keys(old) as Array<keyof ExchangeDates>).filter((name) => old[name] !== next[name]);
  const base = { actorId: person.id, courseId: course.id, exchangeId: exchange.id };
  if (moved.length === 0) {
    happened({ ...base, action: 'plan-changed' });
    return;
  }
  const details = Object.fromEntries(
    moved.map((name) => {
      const at = next[name];
      return [name, at === null ? null : iso(at)];
    }),
  );
  happened({ ...base, action: 'dates-changed', details });
}
