import { say } from '../words/planSummary.js';
import { listed } from '../words/listed.js';
import { wordsBy } from '../words/wordsBy.js';
import type { Deliverable, FileFamily } from '../setup/deliverables.js';
import type { GradePart, GradePartName } from '../setup/gradeParts.js';
import type { LateRule, Lateness } from '../timeline/late.js';

export const FAMILY_WORDS: Readonly<Record<FileFamily, string>> = wordsBy(say, {
  pdf: 'pdf',
  document: 'wordProcessor',
  image: 'picture',
  audio: 'sound',
  video: 'video',
  'plain-text': 'plainText',
});

export const KIND_WORDS: Readonly<Record<Deliverable['kind'], string>> = wordsBy(say, {
  text: 'typedText',
  file: 'file',
  link: 'link',
  recording: 'recording',
});

export const PART_WORDS: Readonly<Record<GradePartName, string>> = wordsBy(say, {
  'handing-in': 'handingIn',
  'reviews-done': 'reviewsDone',
  'form-completed': 'formCompleted',
  'notes-made': 'notesMade',
  'peer-score': 'peerScore',
  'review-quality': 'reviewQuality',
  replies: 'repliesPart',
  reflection: 'reflectionPart',
  'instructor-mark': 'instructorMark',
});

/** "Report (typed text)", "Data (file: PDF or spreadsheet; may be left out)". */
export function deliverableWords({ title, kind, families, required }: Deliverable): string {
  return say('deliverable', {
    title: title === '' ? say('untitled') : title,
    families: kind === 'file' && families.length > 0 ? 'some' : 'none',
    kinds: listed(
      families.map((family) => FAMILY_WORDS[family]),
      'or',
    ),
    kind: KIND_WORDS[kind],
    required: required ? 'yes' : 'no',
  });
}

export function lateWords({ amount, unit, per, cap, graceMinutes }: LateRule): string {
  const capped = cap !== null && per === 'day' ? unit : 'no';
  return say('lateLoses', { amount, unit, per, capped, cap: cap ?? 0, grace: graceMinutes });
}

/** Parts with their share of the whole, rounded to a percent. */
export function gradeWords(parts: readonly GradePart[]): string {
  const sum = parts.reduce((total, { weight }) => total + weight, 0);
  const shares = parts.map(({ part, weight }) =>
    say('gradePart', { part: PART_WORDS[part], share: sum > 0 ? Math.round((weight / sum) * 100) : 0 }),
  );
  return say('grade', { parts: listed(shares) });
}

const MINUTE = 60_000;

/** "35 minutes late: loses 5 percentage points." */
export function lateInWords({ by, startedDays, loses, rule }: Lateness & { readonly rule: LateRule | null }): string {
  const minutes = Math.max(1, Math.ceil(by / MINUTE));
  const hours = Math.floor(minutes / 60);
  const long =
    minutes < 120
      ? { long: 'minutes', count: minutes }
      : hours < 48
        ? { long: 'hours', count: hours }
        : { long: 'days', count: Math.floor(hours / 24) };
  if (startedDays === 0) return say('lateInGrace', long);
  if (rule === null || loses === 0) return say('lateForNothing', long);
  return say('lateWithLoss', { ...long, loses, unit: rule.unit });
}
