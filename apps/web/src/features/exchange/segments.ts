import type { ExchangeView } from '@salt-circle/contracts';
import { endOf, resolveDates, type ResolvedDates, dayOf, exactly } from '@salt-circle/core';
import type { RulerSegment } from '../../kit/index.js';
import { toDates } from '../../app/time/dates.js';
import { say } from '../../words/exchange.js';

type Bare = Omit<RulerSegment, 'active' | 'to'>;

/** The stages of an exchange, each with its one figure, for the role of the one who looks. */
export function rulerSegments(exchange: ExchangeView, pathname: string, now: number): RulerSegment[] {
  const dates = resolveDates(toDates(exchange.dates));
  const bare = exchange.marks === null ? staffSegments(exchange, dates, now) : studentSegments(exchange, dates, now);
  const page = pathname.split('/')[3] ?? '';
  const zone = exchange.course.timeZone;
  return bare.map((segment) => ({
    ...segment,
    detail:
      segment.from === null || segment.until === null
        ? undefined
        : say('to', {
            words: segment.words,
            when: exactly(segment.from, zone, now),
            when2: exactly(segment.until, zone, now),
          }),
    to: `/exchanges/${exchange.id}/${segment.key}`,
    // Insights are a page of the grades.
    active: segment.key === (page === 'insights' ? 'grades' : page),
  }));
}

function until(
  at: number | undefined,
  timeZone: string,
  key: 'openOn' | 'opensOn' | 'releaseOn' | 'comesOn' | 'dueOn',
): string {
  return at === undefined ? say('noDateYet') : say(key, { day: dayOf(at, timeZone) });
}

function staffSegments(exchange: ExchangeView, dates: ResolvedDates | null, now: number): Bare[] {
  const { figures, published } = exchange;
  const zone = exchange.course.timeZone;
  const opened = published && dates !== null && now >= dates.draftsOpen;
  const missing =
    !exchange.secondRound &&
    figures !== null &&
    figures.handedIn < figures.students &&
    dates !== null &&
    now >= dates.draftsDue;
  const reviewsOpened = published && dates !== null && (now >= dates.reviewsOpen || exchange.mayReview);
  return [
    {
      key: 'plan',
      words: say('plan'),
      figure: published ? say('published') : say('notPublished'),
      from: null,
      until: null,
    },
    {
      key: 'drafts',
      words: say('drafts'),
      figure: exchange.secondRound
        ? say('revisions', { handedIn: figures?.handedIn ?? 0 })
        : opened
          ? say('ofHandedIn', { handedIn: figures?.handedIn ?? 0, students: figures?.students ?? 0 })
          : until(dates?.draftsOpen, zone, 'openOn'),
      alert: missing,
      ...stretch(dates?.draftsOpen, dates?.draftsDue),
    },
    {
      key: 'allocation',
      words: say('allocation'),
      figure:
        figures !== null && figures.allocated > 0
          ? say('placed', { allocated: figures.allocated })
          : say('notAllocated'),
      alert: published && dates !== null && now >= dates.reviewsOpen && figures?.allocated === 0,
      ...stretch(dates?.draftsDue, dates?.reviewsOpen),
    },
    {
      key: 'reviews',
      words: say('reviews'),
      figure: reviewsOpened
        ? say('ofDoneOf', { submitted: figures?.submitted ?? 0, allocated: figures?.allocated ?? 0 })
        : until(dates?.reviewsOpen, zone, 'openOn'),
      ...stretch(dates?.reviewsOpen, dates?.reviewsDue),
    },
    {
      key: 'check',
      words: say('checkAndRelease'),
      figure: exchange.released ? say('feedbackReleased') : until(dates?.release, zone, 'releaseOn'),
      ...stretch(dates?.reviewsDue, dates?.release),
    },
    {
      key: 'grades',
      words: say('grades'),
      figure: gradesFigure(exchange, zone, now),
      ...{ from: null, until: null },
    },
    {
      key: 'after',
      words: say('after'),
      figure: afterFigure(dates, zone),
      ...stretch(dates?.release, lastOf(dates)),
    },
  ];
}

function gradesFigure({ gradeParts, gradesRelease }: ExchangeView, zone: string, now: number): string {
  if (gradeParts.length === 0) return say('nonePlanned');
  if (gradesRelease === null) return say('notReleased');
  const at = Date.parse(gradesRelease);
  return at <= now ? say('released') : say('release', { when: dayOf(at, zone) });
}

/** The end of what is planned after the release. */
function lastOf(dates: ResolvedDates | null): number | undefined {
  const ends = [dates?.repliesDue, dates?.revisionDue].filter((at) => at != null);
  return ends.length === 0 ? undefined : Math.max(...ends);
}

function afterFigure(dates: ResolvedDates | null, zone: string): string {
  if (dates?.revisionDue != null) return say('revisionDue', { when: dayOf(dates.revisionDue, zone) });
  return dates?.repliesDue != null ? say('answersUntil', { when: dayOf(dates.repliesDue, zone) }) : say('whoHasRead');
}

function draftFigure({ marks, secondRound }: ExchangeView): string {
  if (marks?.draft === 'handed-in')
    return secondRound ? say('yourRevision') : say('handedInVersion', { versions: marks.versions });
  return secondRound ? say('noRevisionOfYours') : say('notHandedIn');
}

function studentSegments(exchange: ExchangeView, dates: ResolvedDates | null, now: number): Bare[] {
  const { marks } = exchange;
  const zone = exchange.course.timeZone;
  const reviewsOpened = dates !== null && (now >= dates.reviewsOpen || exchange.mayReview);
  const draft = draftFigure(exchange);
  const opened = dates !== null && now >= dates.draftsOpen;
  return [
    {
      key: 'draft',
      words: say('draft'),
      figure: opened ? draft : until(dates?.draftsOpen, zone, 'opensOn'),
      alert: opened && marks?.draft !== 'handed-in' && !exchange.secondRound,
      ...stretch(dates?.draftsOpen, dates?.draftsDue),
    },
    ...practiceSegment(exchange.practice, opened, dates, zone),
    {
      key: 'review',
      words: say('review'),
      figure: reviewsOpened
        ? reviewFigure(marks?.reviewsDone ?? 0, marks?.reviewsAllocated ?? 0)
        : until(dates?.reviewsOpen, zone, 'opensOn'),
      // What is missing at the end is not shown as done.
      alert: dates !== null && now >= endOf(dates.reviewsDue) && !exchange.mayReview && isShort(marks),
      ...stretch(dates?.reviewsOpen, dates?.reviewsDue),
    },
    {
      key: 'feedback',
      words: say('feedback'),
      figure: exchange.feedbackOpen
        ? say('received', { reviewsReceived: marks?.reviewsReceived ?? 0 })
        : until(dates?.release, zone, 'comesOn'),
      ...stretch(dates?.reviewsDue, dates?.release),
    },
    ...afterSegments(exchange, dates, zone),
  ];
}

function afterSegments(exchange: ExchangeView, dates: ResolvedDates | null, zone: string): Bare[] {
  const { marks, mayRevise, mayReflect, reflection, own } = exchange;
  const due = own?.revisionDue == null ? dates?.revisionDue : Date.parse(own.revisionDue);
  const over = dates !== null && exchange.released && !mayRevise;
  const revise: Bare[] =
    due == null
      ? []
      : [
          {
            key: 'revise',
            words: say('revise'),
            figure: marks?.revised === true ? say('handedIn') : over ? say('notHandedIn') : until(due, zone, 'dueOn'),
            alert: marks?.revised !== true && over,
            ...stretch(dates?.release, due),
          },
        ];
  const reflect: Bare[] = !reflection
    ? []
    : [
        {
          key: 'reflection',
          words: say('reflection'),
          figure:
            marks?.reflected === true
              ? say('handedIn')
              : exchange.feedbackOpen
                ? say('notHandedIn')
                : say('afterFeedback'),
          alert: marks?.reflected !== true && exchange.feedbackOpen && !mayReflect,
          ...{ from: null, until: null },
        },
      ];
  const grade: Bare[] =
    exchange.gradeOpen === null
      ? []
      : [
          {
            key: 'grade',
            words: say('grade'),
            figure: exchange.gradeOpen ? say('isThere') : say('notReleased'),
            ...{ from: null, until: null },
          },
        ];
  return [...revise, ...reflect, ...grade];
}

function practiceSegment(
  practice: ExchangeView['practice'],
  opened: boolean,
  dates: ResolvedDates | null,
  zone: string,
): Bare[] {
  if (practice === null) return [];
  const { done, of, first } = practice;
  const figure = opened ? say('ofDoneOf2', { done, of }) : until(dates?.draftsOpen, zone, 'opensOn');
  return [
    { key: 'practice', words: say('practice'), figure, alert: opened && first && done < of, from: null, until: null },
  ];
}

function isShort(marks: ExchangeView['marks']): boolean {
  return marks !== null && marks.reviewsDone < marks.reviewsAllocated;
}

function reviewFigure(done: number, allocated: number): string {
  return allocated === 0 ? say('noneAllocated') : say('ofDoneOf3', { done, allocated });
}

/** A stretch of no length is drawn like a step without a time of its own. */
function stretch(from: number | undefined, end: number | undefined): Pick<Bare, 'from' | 'until'> {
  return from !== undefined && end !== undefined && end > from ? { from, until: end } : { from: null, until: null };
}
