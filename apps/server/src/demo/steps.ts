import { TZDate } from '@date-fns/tz';
import type { FormRequest, PlanRequest } from '@salt-circle/contracts';
import { EMPTY_FORM, type AfterRule, type Deliverable, type FormItem, type GradePart } from '@salt-circle/core';
import { AllocationService } from '../features/allocation/allocation.service.js';
import { PreviewsService } from '../features/allocation/previews.service.js';
import { DraftsService } from '../features/drafts/drafts.service.js';
import { HandInService } from '../features/drafts/hand-in.service.js';
import { ExchangesService } from '../features/planning/exchanges.service.js';
import { FormsService } from '../features/planning/forms.service.js';
import { NewExchangesService } from '../features/planning/new-exchanges.service.js';
import { PlanService } from '../features/planning/plan.service.js';
import type { Person } from '../model/person.js';
import { Clock } from '../platform/clock/clock.js';
import type { Seeder } from './seeder.js';
import { SITES, type Site } from './sites.js';
import type { DemoText } from './texts.js';

const DAY = 24 * 3_600_000;
export const TIME_ZONE = 'Europe/Tallinn';

export interface Planned {
  readonly title: string;
  readonly brief: string;
  readonly guide: string;
  readonly items: readonly FormItem[];
  /** What is handed in beside the text. */
  readonly more?: readonly Deliverable[];
  /** Days from the start: drafts open, drafts due, reviews open, reviews due, release. */
  readonly days: readonly [number, number, number, number, number];
  /** Days from the start: answers due, revision due. */
  readonly later?: readonly [number | null, number];
  readonly after?: AfterRule;
  readonly gradeParts?: readonly GradePart[];
}

/** A plan, and the shorthand set that its reviewers are offered. */
export type PlannedWith = Planned & { readonly shorthandId: string | null };

/** Moves the application's time to so many days from the start. */
export function at({ app, start }: Seeder, days: number, hours = 0): void {
  app.get(Clock).move(start + days * DAY + hours * 3_600_000 - Date.now());
}

/** A time of day in the time zone of the course, so many days from the start, in ISO 8601. */
function localTime(start: number, days: number, hours: number, minutes: number): string {
  const day = new TZDate(start + days * DAY, TIME_ZONE);
  return new Date(
    new TZDate(day.getFullYear(), day.getMonth(), day.getDate(), hours, minutes, TIME_ZONE).getTime(),
  ).toISOString();
}

export async function planned(seeder: Seeder, teacher: Person, courseId: string, plan: PlannedWith): Promise<string> {
  const { app, start } = seeder;
  at(seeder, plan.days[0] - 2);
  const { id } = await app.get(NewExchangesService).create(teacher, courseId, plan.title, 'none');
  const [draftsOpen, draftsDue, reviewsOpen, reviewsDue, release] = plan.days;
  const morning = (day: number) => localTime(start, day, 8, 0);
  const midnight = (day: number) => localTime(start, day, 23, 59);
  const plans = app.get(PlanService);
  const now = structuredClone(await plans.one(teacher, id)) as unknown as PlanRequest;
  await plans.save(teacher, id, {
    ...now,
    briefHtml: plan.brief,
    guideHtml: plan.guide,
    deliverables: [...now.deliverables, ...(plan.more ?? [])] as PlanRequest['deliverables'],
    dates: {
      ...now.dates,
      draftsOpen: morning(draftsOpen),
      draftsDue: midnight(draftsDue),
      reviewsOpen: morning(reviewsOpen),
      reviewsDue: midnight(reviewsDue),
      release: localTime(start, release, 12, 0),
      repliesDue: plan.later?.[0] == null ? null : midnight(plan.later[0]),
      revisionDue: plan.later === undefined ? null : midnight(plan.later[1]),
    },
    ...(plan.after !== undefined && { after: structuredClone(plan.after) as unknown as PlanRequest['after'] & object }),
    gradeParts: [...(plan.gradeParts ?? [])],
    shorthandId: plan.shorthandId,
  });
  const form = { ...EMPTY_FORM, overall: 'none' as const, items: plan.items };
  await app.get(FormsService).save(teacher, id, { ...(structuredClone(form) as unknown as FormRequest), revision: 1 });
  await plans.publish(teacher, id);
  return id;
}

export function siteOf(index: number): { site: Site; variant: 0 | 1 } {
  return { site: SITES[index % SITES.length] as Site, variant: index < SITES.length ? 0 : 1 };
}

export async function save(
  seeder: Seeder,
  student: Person,
  exchangeId: string,
  { title, html }: DemoText,
): Promise<void> {
  const drafts = seeder.app.get(DraftsService);
  const { revision, context, texts } = await drafts.mine(student, exchangeId);
  await drafts.save(student, exchangeId, { revision, title, context });
  const { deliverables } = await seeder.app.get(ExchangesService).one(student, exchangeId);
  const [text] = deliverables.filter(({ kind }) => kind === 'text');
  if (text === undefined) return;
  await drafts.saveText(student, exchangeId, text.id, { revision: texts[text.id]?.revision ?? 0, html });
}

export async function handIn(seeder: Seeder, student: Person, exchangeId: string, text: DemoText): Promise<void> {
  await save(seeder, student, exchangeId, text);
  const handing = seeder.app.get(HandInService);
  const { fingerprint } = await handing.check(student, exchangeId);
  await handing.handIn(student, exchangeId, { fingerprint, namesSeen: true });
}

export async function allocateAll(seeder: Seeder, teacher: Person, exchangeId: string): Promise<void> {
  const allocation = seeder.app.get(AllocationService);
  const previews = seeder.app.get(PreviewsService);
  let job = await previews.start(teacher, exchangeId, { kind: 'new', seed: 1962, wishes: null });
  while (job.state === 'running') {
    await new Promise((resolve) => setTimeout(resolve, 20));
    job = await previews.job(teacher, exchangeId, job.id);
  }
  if (job.preview === null) throw new Error(job.problem?.sentence ?? 'the demo could not be allocated');
  await allocation.apply(teacher, exchangeId, job.preview.id);
}
