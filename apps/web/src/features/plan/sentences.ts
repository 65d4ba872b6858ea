import type { PlanChoices } from '@salt-circle/contracts';
import { needsGroups, resolveDates, type NamesPolicy, type ReviewForm } from '@salt-circle/core';
import { deliverableWords, gradeWords, lateWords, listed } from '../../app/settingWords.js';
import { toDates } from '../../app/time/dates.js';
import { exactly } from '../../app/time/words.js';
import { formWords } from './formWords.js';
import type { Settings } from './settings.js';

/** What the account of an exchange needs beside its settings. */
export interface Around {
  /** Who takes part, by the settings as they are saved. */
  readonly students: number;
  readonly choices: Pick<PlanChoices, 'groupSets' | 'sections' | 'students'>;
  readonly form: ReviewForm | null;
  readonly timeZone: string;
  readonly now: number;
}

/** Beside the parts of the grade, as long as they are plans only. */
export const GRADES_LATER = 'Grades come later: none is worked out yet.';

/** The exchange as it is set up, in plain words, in the order in which it happens. */
export function sentences(settings: Settings, around: Around): string[] {
  const dates = resolveDates(toDates(settings.dates));
  const at = (time: number) => exactly(time, around.timeZone, around.now);
  const lines = [
    handInSentence(settings, around, dates === null ? null : at(dates.draftsDue)),
    dates === null ? '' : `Writing opens ${at(dates.draftsOpen)}.`,
    lateSentence(settings, at),
    selfSentence(settings),
    reviewSentence(settings, around, dates === null ? null : [at(dates.reviewsOpen), at(dates.reviewsDue)]),
    formSentence(around.form),
    namesSentence(settings),
  ];
  if (dates !== null) {
    lines.push(
      dates.release === dates.reviewsDue
        ? `Authors read their feedback as soon as reviews are due, ${at(dates.release)}.`
        : `You can check the reviews until ${at(dates.release)}; then authors read their feedback.`,
      laterSentence(settings, at),
    );
  }
  if (settings.gradeParts.length > 0) lines.push(`${gradeWords(settings.gradeParts)} ${GRADES_LATER}`);
  return lines.filter((line) => line !== '');
}

function groupSetOf({ groupSetId }: Settings, { choices }: Around): Around['choices']['groupSets'][number] | undefined {
  return choices.groupSets.find(({ id }) => id === groupSetId);
}

function handInSentence(settings: Settings, around: Around, due: string | null): string {
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
  return `${who} ${around.students === 1 ? 'hands' : 'hand'} in ${what}${when}.`;
}

function participants({ takesPart }: Settings, { students, choices }: Around): string {
  const count = students === 1 ? 'One student' : `${students} students`;
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

function lateSentence({ dates, late }: Settings, at: (time: number) => string): string {
  if (dates.lateUntil === null) return '';
  const loses = late === null ? 'Being late loses nothing.' : lateWords(late);
  return `Late hand-ins are taken until ${at(Date.parse(dates.lateUntil))}. ${loses}`;
}

function selfSentence({ selfReview }: Settings): string {
  if (selfReview === 'off') return '';
  return selfReview === 'first'
    ? 'Everybody reviews their own draft first, with the same form; the drafts of others open after that.'
    : 'Everybody also reviews their own draft, with the same form.';
}

function reviewSentence(settings: Settings, around: Around, span: readonly [string, string] | null): string {
  const number = settings.reviewsPerStudent;
  const drafts = number === 1 ? '1 draft' : `${number} drafts`;
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
  return `From ${span[0]} to ${span[1]}, ${who} ${what}${fair}.`;
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

function namesSentence({ names, showNamesAtRelease }: Settings): string {
  return names !== 'open' && showNamesAtRelease ? `${NAMES[names]} At release, names are shown.` : NAMES[names];
}

/** What is set, and does not run yet. */
function laterSentence({ dates }: Settings, at: (time: number) => string): string {
  const replies = dates.repliesDue === null ? [] : [`replies by ${at(Date.parse(dates.repliesDue))}`];
  const revision = dates.revisionDue === null ? [] : [`a revision by ${at(Date.parse(dates.revisionDue))}`];
  const both = [...replies, ...revision];
  return both.length === 0 ? '' : `What comes later, and nothing goes by yet: ${listed(both)}.`;
}
