import { counted } from '../words/counted.js';
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
import { deliverableWords, gradeWords, lateWords, listed } from './settingWords.js';

/** All that an account of an exchange tells of. */
export interface AccountSettings extends Setup {
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
export interface AccountAround {
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
export function accountOf(settings: AccountSettings, around: AccountAround): string[] {
  const dates = resolveDates(settings.dates);
  const at = around.inWords;
  const lines = [
    handInSentence(settings, around, dates === null ? null : at(dates.draftsDue)),
    dates === null ? '' : `Writing opens ${at(dates.draftsOpen)}.`,
    lateSentence(settings, at),
    practiceSentence(settings.practice),
    selfSentence(settings, at),
    allocationSentence(around, at),
    reviewSentence(settings, around, dates === null ? null : [at(dates.reviewsOpen), at(dates.reviewsDue)]),
    formSentence(around.form),
    namesSentence(settings),
  ];
  if (dates !== null) {
    if (settings.reviewsFinal) lines.push('A review is final once it is submitted; you can reopen one, with a reason.');
    lines.push(releaseSentence(settings, dates, at), afterSentence(settings, at), ...afterWords(settings.after));
  }
  if (settings.gradeParts.length > 0) lines.push(gradeWords(settings.gradeParts));
  return lines.filter((line) => line !== '');
}

function groupSetOf(
  { groupSetId }: AccountSettings,
  { choices }: AccountAround,
): AccountAround['choices']['groupSets'][number] | undefined {
  return choices.groupSets.find(({ id }) => id === groupSetId);
}

function handInSentence(settings: AccountSettings, around: AccountAround, due: string | null): string {
  const [only, ...more] = settings.deliverables;
  const what =
    only === undefined
      ? 'nothing yet'
      : more.length === 0 && only.kind === 'text'
        ? 'a typed draft'
        : listed(settings.deliverables.map(deliverableWords));
  const when = due === null ? '; when, is not settled yet' : ` by ${due}`;
  const who = participants(settings, around);
  if (settings.handInAs === 'group') {
    const set = groupSetOf(settings, around);
    const groups = set === undefined ? 'in groups' : `in their groups of “${set.title}”`;
    return `${who} hand in together, ${groups}, one hand-in for each: ${what}${when}.`;
  }
  return `${who} ${counted(around.students, 'hands', 'hand')} in ${what}${when}.`;
}

function participants({ takesPart }: AccountSettings, { students, choices }: AccountAround): string {
  const count = counted(students, 'One student', '# students');
  if (takesPart.kind === 'everyone') return count;
  const groups = choices.groupSets.flatMap((set) => set.groups).filter(({ id }) => takesPart.groupIds.includes(id));
  const named = [
    ...takesPart.sections.map((one) => `“${one}”`),
    ...groups.map(({ title }) => `“${title}”`),
    ...(takesPart.kind === 'except'
      ? choices.students.filter(({ id }) => takesPart.studentIds.includes(id)).map(({ name }) => name)
      : []),
  ];
  if (named.length === 0) return count;
  return takesPart.kind === 'chosen' ? `${count} of ${listed(named)}` : `${count} (all but ${listed(named)})`;
}

function lateSentence({ dates, late }: AccountSettings, at: (time: number) => string): string {
  if (dates.lateUntil === null) return '';
  const loses = late === null ? 'Being late loses nothing.' : lateWords(late);
  return `Late hand-ins are taken until ${at(dates.lateUntil)}. ${loses}`;
}

function practiceSentence({ when, tries, closeEnough }: PracticeRule): string {
  if (when === 'off') return '';
  const who =
    when === 'first'
      ? 'Before the drafts of others open to them, students review practice drafts and see your key beside their own review'
      : 'Students can review practice drafts first, and see your key beside their own review';
  const often = tries === null ? ', as often as they like' : tries === 1 ? ', once' : `, up to ${tries} times`;
  // Without having to practise there is nothing that closeness opens.
  if (closeEnough === null || when === 'offered') return `${who}${often}.`;
  const until = tries === null ? '' : ', or until no try is left';
  return `${who}${often}: until ${Math.round(100 * closeEnough)}% of the items are near to the key${until}.`;
}

function selfSentence({ selfReview, dates }: AccountSettings, at: (time: number) => string): string {
  const what = {
    off: '',
    first: 'Everybody reviews their own draft first, with the same form; the drafts of others open after that.',
    with: 'Everybody also reviews their own draft, with the same form.',
    after:
      'Everybody reviews their own draft as well, with the same form, once the reviews of the others are submitted.',
  }[selfReview];
  const due = dates.selfReviewDue;
  return what === '' || due === null ? what : `${what} That review is due ${at(due)}.`;
}

function reviewSentence(
  settings: AccountSettings,
  around: AccountAround,
  span: readonly [string, string] | null,
): string {
  const number = settings.reviewsPerStudent;
  const drafts = counted(number, '1 draft', '# drafts');
  const title = groupSetOf(settings, around)?.title;
  const of = title === undefined ? 'a group set that is not chosen yet' : `“${title}”`;
  const what = {
    anyone: settings.handInAs === 'group' ? `reviews ${drafts} by other groups` : `reviews ${drafts} by others`,
    'own-group': `reviews ${drafts} from the own group in ${of}`,
    'other-groups': `reviews ${drafts} from other groups of ${of}`,
    partners: `reviews the drafts of all others in the own group of ${of}`,
  }[settings.whom];
  const who =
    settings.handInAs === 'group'
      ? 'each student alone'
      : settings.ownHandInFirst
        ? 'each who handed in'
        : 'each, handed in or not,';
  const fair = settings.whom === 'partners' || needsGroups(settings) ? '' : ', and gets about as many reviews';
  if (span === null) return `Then ${who} ${what}.`;
  const nightly = around.allocation.kind === 'nightly';
  // Reviewing goes on beside drafting where drafts are allocated as they come in.
  return nightly
    ? `Until ${span[1]}, ${who} ${what}, as drafts come in.`
    : `From ${span[0]} to ${span[1]}, ${who} ${what}${fair}.`;
}

function allocationSentence({ allocation }: AccountAround, at: (time: number) => string): string {
  switch (allocation.kind) {
    case 'nightly':
      return 'Every night, whoever has handed in is given drafts to review.';
    case 'at-due':
      return 'Drafts are allocated by themselves as soon as they are due.';
    case 'at':
      return allocation.at === null ? '' : `Drafts are allocated by themselves on ${at(allocation.at)}.`;
    case 'command':
      return 'Drafts are allocated when you say so; nobody has one to review before.';
  }
}

function releaseSentence(settings: AccountSettings, dates: ResolvedDates, at: (time: number) => string): string {
  if (settings.feedbackEach) return 'Authors read each review as soon as it is submitted.';
  const check = settings.dates.checkUntil;
  if (dates.release === dates.reviewsDue)
    return `Authors read their feedback as soon as reviews are due, ${at(dates.release)}.`;
  if (check === null)
    return `Authors read their feedback on ${at(dates.release)}; until then you can look at the reviews.`;
  return check === dates.release
    ? `You can check the reviews until ${at(check)}; then authors read their feedback.`
    : `You can check the reviews until ${at(check)}; authors read their feedback on ${at(dates.release)}.`;
}

function formSentence(form: ReviewForm | null): string {
  if (form === null) return '';
  const asksNothing = form.items.length === 0 && form.overall !== 'required' && form.minimumNotes === 0;
  return asksNothing ? 'The review form asks for nothing yet.' : `The form: ${formWords(form)}.`;
}

const NAMES: Readonly<Record<NamesPolicy, string>> = {
  open: 'Authors and reviewers see each other’s names.',
  'both-ways':
    'Nobody sees a name but you and your assistants: authors and reviewers know each other by an alias that stays the same.',
  'reviewers-only': 'Authors do not learn who reviewed them; reviewers see whose draft they read.',
  'authors-only': 'Reviewers do not learn whose draft they read; authors see who reviewed them.',
};

function namesSentence({ names, showNamesAtRelease }: AccountSettings): string {
  return names !== 'open' && showNamesAtRelease ? `${NAMES[names]} At release, names are shown.` : NAMES[names];
}

function afterWords({ ratings, reflection, othersReviews, revisionShown }: AfterRule): string[] {
  const rated = {
    off: '',
    staff: 'Authors say how each review helped them; only you and your assistants read that.',
    'at-once': 'Authors say how each review helped them, and its reviewer reads that at once.',
    'at-end': 'Authors say how each review helped them; its reviewer reads that once answers and revisions are over.',
  }[ratings];
  const minimum =
    reflection === null || reflection.minimumWords === 0
      ? ''
      : `, in at least ${counted(reflection.minimumWords, 'one word', '# words')}`;
  return [
    rated,
    reflection === null
      ? ''
      : `Authors think their feedback over and answer ${counted(reflection.prompts.length, 'a question', '# questions')}${minimum}.`,
    othersReviews ? 'After release, reviewers read the other reviews of the drafts that they reviewed.' : '',
    revisionShown ? 'Reviewers see what became of the drafts that they reviewed.' : '',
  ];
}

/** What comes after the release. */
function afterSentence({ dates }: AccountSettings, at: (time: number) => string): string {
  const { repliesDue, revisionDue } = dates;
  if (repliesDue === null) {
    return revisionDue === null ? '' : `Authors hand in a revision by ${at(revisionDue)}.`;
  }
  const replies = `Authors and reviewers answer each other by ${at(repliesDue)}`;
  return revisionDue === null ? `${replies}.` : `${replies}; a revision is due by ${at(revisionDue)}.`;
}
