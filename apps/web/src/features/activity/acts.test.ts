import type { AuditRow } from '@salt-circle/contracts';
import { activityWords, kindOf, sectionsOf } from './acts.js';

const row = (action: string, about: readonly string[] = []): AuditRow => ({
  ...{ id: 1, at: '2026-03-01T08:00:00.000Z', actor: 'Ines Marchetti', action, about },
  ...{ moved: [], grade: null, changed: [], reason: null },
});

describe('the activity log', () => {
  it('says in one sentence who did what to whom', () => {
    expect(activityWords(row('grade-overridden', ['Yara Costa']))).toBe(
      'Ines Marchetti overrode the grade of Yara Costa',
    );
    expect(activityWords(row('withheld', ['Emeka Obi', 'Sunil Rao']))).toBe(
      'Ines Marchetti hid something in the review by Emeka Obi from Sunil Rao',
    );
    expect(activityWords(row('review-submitted', ['Emeka Obi', 'Sunil Rao', 'Hana Sato']))).toContain(
      'a review of the draft by Sunil Rao and Hana Sato',
    );
    // Whoever it was has left without a trace, or a later version wrote it.
    expect(activityWords(row('grade-overridden'))).toBe('Ines Marchetti overrode the grade of somebody');
    expect(activityWords(row('from-the-future'))).toContain('from-the-future');
  });

  it('files acts under kinds, and settings under the sections of the plan', () => {
    expect(['dates-changed', 'grade-overridden', 'from-the-future'].map(kindOf)).toEqual([
      ...['kindPlan', 'kindGrades', 'kindOther'],
    ]);
    expect(sectionsOf(['briefHtml', 'title', 'late', 'unknown'])).toEqual(['assignment instructions', 'late penalty']);
  });
});
