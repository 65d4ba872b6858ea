import { say } from '../words/planSummary.js';
import { listed } from '../words/listed.js';
import { wordsBy } from '../words/wordsBy.js';
import type { AfterRule } from '../after/afterRule.js';
import type { ReviewForm } from '../form/form.js';
import { needsGroups, type Setup } from '../setup/setup.js';
import type { NamesPolicy } from '../visibility/facts.js';
import type { Deliverable } from '../setup/deliverables.js';
import type { PracticeRule } from '../practice/practice.js';
import type { GradePart } from '../setup/gradeParts.js';
import { resolveDates, type ExchangeDates, type Instant, type ResolvedDates } from '../timeline/dates.js';
import type { LateRule } from '../timeline/late.js';
import { formWords } from './formWords.js';
import { deliverableWords, gradeWords, lateWords } from './settingWords.js';

/** All that an account of an exchange tells of. */
export interface PlanSummarySettings extends Setup {
  readonly dates: ExchangeDates;
  readonly late: LateRule | null;
  readonly deliverables: readonly Deliverable[];
  readonly showNamesAtRelease: boolean;
  readonly feedbackEach: boolean;
  readonly reviewsFinal: boolean;
  readonly practice: PracticeRule;
  readonly after: AfterRule;
  readonly gradeParts: readonly GradePart[];
}

/** What the account needs beside the settings. */
export interface PlanSummaryContext {
  /** Who takes part, by the settings as they are saved. */
  readonly students: number;
  /** What ids in the settings are called. */
  readonly choices: {
    readonly groupSets: ReadonlyArray<{
      readonly id: string;
      readonly title: string;
      readonly groups: ReadonlyArray<{ readonly id: string; readonly title: string }>;
    }>;
    readonly students: ReadonlyArray<{ readonly id: string; readonly name: string }>;
  };
  readonly form: ReviewForm | null;
  /** When drafts are allocated by themselves. */
  readonly allocation: { readonly kind: 'command' | 'at-due' | 'at' | 'nightly'; readonly at: Instant | null };
  /** A time in words, in the time zone of the course: "Thu 12 Mar, 23:59 EET". */
  readonly inWords: (at: Instant) => string;
}

/** The exchange as it is set up, in plain words, in the order in which it happens. */
export function planSummary(settings: PlanSummarySettings, around: PlanSummaryContext): string[] {
  const dates = resolveDates(settings.dates);
  const at = around.inWords;
  const lines = [
    handInSentence(settings, around, dates === null ? null : at(dates.draftsDue)),
    dates === null ? '' : say('writingOpens', { opens: at(dates.draftsOpen) }),
    lateSentence(settings, at),
    practiceSentence(settings.practice),
    selfSentence(settings, at),
    allocationSentence(around, at),
    reviewSentence(settings, around, dates === null ? null : [at(dates.reviewsOpen), at(dates.reviewsDue)]),
    formSentence(around.form),
    namesSentence(settings),
  ];
  if (dates !== null) {
    if (settings.reviewsFinal) lines.push(say('reviewsFinal'));
    lines.push(releaseSentence(settings, dates, at), afterSentence(settings, at), ...afterWords(settings.after));
  }
  if (settings.gradeParts.length > 0) lines.push(gradeWords(settings.gradeParts));
  return lines.filter((line) => line !== '');
}

function groupSetOf(
  { groupSetId }: PlanSummarySettings,
  { choices }: PlanSummaryContext,
): PlanSummaryContext['choices']['groupSets'][number] | undefined {
  return choices.groupSets.find(({ id }) => id === groupSetId);
}

function handInSentence(settings: PlanSummarySettings, around: PlanSummaryContext, due: string | null): string {
  const [only, ...more] = settings.deliverables;
  const what =
    only === undefined
      ? say('nothingYet')
      : more.length === 0 && only.kind === 'text'
        ? say('typedDraft')
        : listed(settings.deliverables.map(deliverableWords));
  const slots = {
    ...participants(settings, around),
    what,
    when: due === null ? 'open' : 'set',
    due: due ?? '',
  };
  if (settings.handInAs === 'alone') return say('handIn', slots);
  const set = groupSetOf(settings, around);
  return say('handInTogether', {
    ...slots,
    groups: set === undefined ? 'open' : 'chosen',
    title: set?.title ?? '',
  });
}

function participants({ takesPart }: PlanSummarySettings, { students, choices }: PlanSummaryContext) {
  const everybody = { students, which: 'all', named: '' };
  if (takesPart.kind === 'everyone') return everybody;
  const groups = choices.groupSets.flatMap((set) => set.groups).filter(({ id }) => takesPart.groupIds.includes(id));
  const named = [
    ...takesPart.sections.map((words) => say('quoted', { words })),
    ...groups.map(({ title }) => say('quoted', { words: title })),
    ...(takesPart.kind === 'except'
      ? choices.students.filter(({ id }) => takesPart.studentIds.includes(id)).map(({ name }) => name)
      : []),
  ];
  return named.length === 0 ? everybody : { students, which: takesPart.kind, named: listed(named) };
}

function lateSentence({ dates, late }: PlanSummarySettings, at: (time: number) => string): string {
  if (dates.lateUntil === null) return '';
  const loses = late === null ? say('lateLosesNothing') : lateWords(late);
  return `${say('lateUntil', { until: at(dates.lateUntil) })} ${loses}`;
}

function practiceSentence({ when, tries, closeEnough }: PracticeRule): string {
  if (when === 'off') return '';
  const often = { tries: tries ?? 0 };
  if (when === 'offered') return say('practiceOffered', often);
  // Without having to practise there is nothing that closeness opens.
  if (closeEnough === null) return say('practiceFirst', often);
  return say('practiceUntilNear', { ...often, percent: Math.round(100 * closeEnough) });
}

const SELF = { first: 'selfFirst', with: 'selfWith', after: 'selfAfter' } as const;

function selfSentence({ selfReview, dates }: PlanSummarySettings, at: (time: number) => string): string {
  if (selfReview === 'off') return '';
  const what = say(SELF[selfReview]);
  return dates.selfReviewDue === null ? what : `${what} ${say('selfDue', { due: at(dates.selfReviewDue) })}`;
}

function reviewSentence(
  settings: PlanSummarySettings,
  around: PlanSummaryContext,
  span: readonly [string, string] | null,
): string {
  const { whom, handInAs, ownHandInFirst } = settings;
  const title = groupSetOf(settings, around)?.title;
  // Reviewing goes on beside drafting where drafts are allocated as they come in.
  const nightly = span !== null && around.allocation.kind === 'nightly';
  const fair = span !== null && whom !== 'partners' && !needsGroups(settings);
  return say('reviewing', {
    span: nightly ? 'nightly' : span === null ? 'open' : 'dated',
    from: span?.[0] ?? '',
    until: span?.[1] ?? '',
    who: handInAs === 'group' ? 'alone' : ownHandInFirst ? 'handedIn' : 'each',
    whom: {
      anyone: handInAs === 'group' ? 'groups' : 'others',
      'own-group': 'ownGroup',
      'other-groups': 'otherGroups',
      partners: 'partners',
    }[whom],
    drafts: settings.reviewsPerStudent,
    set: title === undefined ? say('setNotChosen') : say('quoted', { words: title }),
    end: nightly ? 'nightly' : fair ? 'fair' : 'open',
  });
}

function allocationSentence({ allocation }: PlanSummaryContext, at: (time: number) => string): string {
  switch (allocation.kind) {
    case 'nightly':
      return say('allocatedNightly');
    case 'at-due':
      return say('allocatedAtDue');
    case 'at':
      return allocation.at === null ? '' : say('allocatedAt', { at: at(allocation.at) });
    case 'command':
      return say('allocatedOnCommand');
  }
}

function releaseSentence(settings: PlanSummarySettings, dates: ResolvedDates, at: (time: number) => string): string {
  if (settings.feedbackEach) return say('feedbackEach');
  const { checkUntil } = settings.dates;
  const release = at(dates.release);
  if (dates.release === dates.reviewsDue) return say('feedbackWhenDue', { release });
  if (checkUntil === null) return say('feedbackOn', { release });
  const check = at(checkUntil);
  return checkUntil === dates.release ? say('feedbackAfterCheck', { check }) : say('feedbackLater', { check, release });
}

function formSentence(form: ReviewForm | null): string {
  if (form === null) return '';
  const asksNothing = form.items.length === 0 && form.overall !== 'required' && form.minimumNotes === 0;
  return asksNothing ? say('formAsksNothing') : say('form', { parts: formWords(form) });
}

const NAMES: Readonly<Record<NamesPolicy, string>> = wordsBy(say, {
  open: 'namesOpen',
  'both-ways': 'namesHidden',
  'reviewers-only': 'reviewersHidden',
  'authors-only': 'authorsHidden',
});

function namesSentence({ names, showNamesAtRelease }: PlanSummarySettings): string {
  return names !== 'open' && showNamesAtRelease ? `${NAMES[names]} ${say('namesAtRelease')}` : NAMES[names];
}

const RATINGS = { staff: 'ratingsForStaff', 'at-once': 'ratingsAtOnce', 'at-end': 'ratingsAtEnd' } as const;

function afterWords({ ratings, reflection, othersReviews, revisionShown }: AfterRule): string[] {
  return [
    ratings === 'off' ? '' : say(RATINGS[ratings]),
    reflection === null
      ? ''
      : say('reflection', { questions: reflection.prompts.length, words: reflection.minimumWords }),
    othersReviews ? say('othersReviews') : '',
    revisionShown ? say('revisionShown') : '',
  ];
}

/** What comes after the release. */
function afterSentence({ dates }: PlanSummarySettings, at: (time: number) => string): string {
  const replies = dates.repliesDue === null ? null : at(dates.repliesDue);
  const revision = dates.revisionDue === null ? null : at(dates.revisionDue);
  if (replies === null) return revision === null ? '' : say('revision', { revision });
  return revision === null ? say('replies', { replies }) : say('repliesAndRevision', { replies, revision });
}
