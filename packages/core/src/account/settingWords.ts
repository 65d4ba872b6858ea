import { counted } from '../words/counted.js';
import type { Deliverable, FileFamily } from '../setup/deliverables.js';
import type { GradePart, GradePartName } from '../setup/gradeParts.js';
import type { LateRule, Lateness } from '../timeline/late.js';

export const FAMILY_WORDS: Readonly<Record<FileFamily, string>> = {
  pdf: 'PDF',
  document: 'word processor document',
  image: 'picture',
  audio: 'sound',
  video: 'video',
  'plain-text': 'plain text or Markdown',
};

export const KIND_WORDS: Readonly<Record<Deliverable['kind'], string>> = {
  text: 'typed text',
  file: 'file',
  link: 'link',
  recording: 'recording',
};

export const PART_WORDS: Readonly<Record<GradePartName, string>> = {
  'handing-in': 'handing in',
  'reviews-done': 'reviews done',
  'form-completed': 'form completed',
  'notes-made': 'notes made',
  'peer-score': 'score from peers',
  'review-quality': 'quality of reviewing',
  replies: 'replies',
  reflection: 'reflection',
  'instructor-mark': 'instructor’s mark',
};

/** "a, b and c"; empty for none. */
export function listed(parts: readonly string[]): string {
  if (parts.length < 2) return parts.join('');
  return `${parts.slice(0, -1).join(', ')} and ${parts.at(-1) ?? ''}`;
}

/** "Report (typed text)", "Data (file: PDF or spreadsheet; may be left out)". */
export function deliverableWords({ title, kind, families, required }: Deliverable): string {
  const allowed = families.map((family) => FAMILY_WORDS[family]);
  const choice =
    allowed.length < 2 ? allowed.join('') : `${allowed.slice(0, -1).join(', ')} or ${allowed.at(-1) ?? ''}`;
  const about = kind === 'file' && choice !== '' ? `file: ${choice}` : KIND_WORDS[kind];
  return `${title === '' ? 'Untitled' : title} (${about}${required ? '' : '; may be left out'})`;
}

export function lateWords({ amount, unit, per, cap, graceMinutes }: LateRule): string {
  const words = (number: number) =>
    unit === 'percent'
      ? `${number} percentage ${counted(number, 'point', 'points')}`
      : `${counted(number, '1 point', '# points')}`;
  const grace = graceMinutes > 0 ? `, after ${graceMinutes} minutes of grace` : '';
  const most = cap !== null && per === 'day' ? `, at most ${words(cap)}` : '';
  return `A late hand-in loses ${words(amount)}${per === 'day' ? ' for each day that has been started' : ' once'}${most}${grace}.`;
}

/** Parts with their share of the whole, rounded to a percent. */
export function gradeWords(parts: readonly GradePart[]): string {
  const sum = parts.reduce((total, { weight }) => total + weight, 0);
  const shares = parts.map(
    ({ part, weight }) => `${PART_WORDS[part]} ${sum > 0 ? Math.round((weight / sum) * 100) : 0}%`,
  );
  return `The grade: ${listed(shares)}.`;
}

const MINUTE = 60_000;

/** "35 minutes late: loses 5 percentage points." */
export function lateInWords({ by, startedDays, loses, rule }: Lateness & { readonly rule: LateRule | null }): string {
  const minutes = Math.max(1, Math.ceil(by / MINUTE));
  const hours = Math.floor(minutes / 60);
  const long =
    minutes < 120
      ? counted(minutes, '1 minute', '# minutes')
      : hours < 48
        ? `${hours} hours`
        : `${Math.floor(hours / 24)} days`;
  if (startedDays === 0) return `${long} late, within the time of grace: nothing is lost.`;
  if (rule === null || loses === 0) return `${long} late. Nothing is lost by it.`;
  const unit =
    rule.unit === 'percent'
      ? counted(loses, 'percentage point', 'percentage points')
      : counted(loses, 'point', 'points');
  return `${long} late: loses ${loses} ${unit}.`;
}
