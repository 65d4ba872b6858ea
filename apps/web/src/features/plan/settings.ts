import type { DatesView, PlanView } from '@salt-circle/contracts';
import type { NamesPolicy } from '@salt-circle/core';

/** What the plan page edits: the settings without the server's remarks on them. */
export interface Settings {
  readonly title: string;
  readonly briefHtml: string;
  readonly guideHtml: string;
  readonly dates: DatesView;
  readonly reviewsPerStudent: number;
  readonly names: NamesPolicy;
}

export function settingsOf({ title, briefHtml, guideHtml, dates, reviewsPerStudent, names }: PlanView): Settings {
  return { title, briefHtml, guideHtml, dates, reviewsPerStudent, names };
}
