import { resolveDates } from '@salt-circle/core';
import { toDates } from '../../app/time/dates.js';
import { exactly } from '../../app/time/words.js';
import type { Settings } from './settings.js';

/** The exchange as it is set up, in plain words. */
export function sentences(settings: Settings, students: number, timeZone: string, now: number): string[] {
  const dates = resolveDates(toDates(settings.dates));
  const count = students === 1 ? 'One student hands' : `${students} students hand`;
  const each = settings.reviewsPerStudent;
  const names =
    settings.names === 'open'
      ? 'Authors and reviewers see each other’s names.'
      : 'Nobody sees a name but you and your assistants: authors and reviewers know each other by an alias that stays the same.';
  if (dates === null) {
    return [
      `${count} in a typed draft; when, is not settled yet.`,
      `Each then reviews ${each} ${each === 1 ? 'draft' : 'drafts'} by others.`,
      names,
    ];
  }
  const at = (time: number) => exactly(time, timeZone, now);
  return [
    `${count} in a typed draft by ${at(dates.draftsDue)}. Writing opens ${at(dates.draftsOpen)}.`,
    `From ${at(dates.reviewsOpen)} to ${at(dates.reviewsDue)}, each who handed in reviews ${each} ${each === 1 ? 'draft' : 'drafts'} by others, and gets about as many reviews.`,
    names,
    dates.release === dates.reviewsDue
      ? `Authors read their feedback as soon as reviews are due, ${at(dates.release)}.`
      : `You can check the reviews until ${at(dates.release)}; then authors read their feedback.`,
  ];
}
