import { sentences } from './sentences.js';
import type { Settings } from './settings.js';

const NOW = Date.UTC(2026, 1, 20);
const iso = (day: number, hour = 12) => new Date(Date.UTC(2026, 2, day, hour)).toISOString();
const SETTINGS: Settings = {
  title: 'Field report',
  briefHtml: '<p>Write.</p>',
  guideHtml: '',
  dates: { draftsOpen: iso(2), draftsDue: iso(12), reviewsOpen: iso(14), reviewsDue: iso(20), release: iso(26) },
  reviewsPerStudent: 2,
  names: 'both-ways',
};
const account = (part: Partial<Settings>, students = 24) =>
  sentences({ ...SETTINGS, ...part }, students, 'UTC', NOW).join(' ');

describe('the plan in plain words', () => {
  it('says who does what, until when', () => {
    expect(sentences(SETTINGS, 24, 'UTC', NOW)).toEqual([
      '24 students hand in a typed draft by Thu 12 Mar, 12:00 UTC. Writing opens Mon 2 Mar, 12:00 UTC.',
      'From Sat 14 Mar, 12:00 UTC to Fri 20 Mar, 12:00 UTC, each who handed in reviews 2 drafts by others, and gets about as many reviews.',
      'Nobody sees a name but you and your assistants: authors and reviewers know each other by an alias that stays the same.',
      'You can check the reviews until Thu 26 Mar, 12:00 UTC; then authors read their feedback.',
    ]);
  });

  it('uses the defaults of blank dates', () => {
    const dates = { ...SETTINGS.dates, reviewsOpen: null, release: null };
    expect(account({ dates })).toContain('From Thu 12 Mar, 12:00 UTC to');
    expect(account({ dates })).toContain(
      'Authors read their feedback as soon as reviews are due, Fri 20 Mar, 12:00 UTC.',
    );
  });

  it('does not pretend to know a date that is missing', () => {
    expect(account({ dates: { ...SETTINGS.dates, draftsDue: null } })).toContain('when, is not settled yet');
  });

  it('counts one as one, and tells open names', () => {
    expect(account({ reviewsPerStudent: 1 }, 1)).toMatch(/^One student hands in .* reviews 1 draft by others/);
    expect(account({ names: 'open' })).toContain('Authors and reviewers see each other’s names.');
  });
});
