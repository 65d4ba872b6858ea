import type { Topic } from '@salt-circle/core';
import { api } from '../app/api.js';
import { store } from '../app/store.js';
import { tagsOf } from '../app/changes/freshness.js';
import '../app/after/afterApi.js';
import '../app/moderation/checkApi.js';
import '../app/progressApi.js';
import '../app/reviewApi.js';
import '../features/allocation/allocationApi.js';
import '../features/grades/gradesApi.js';
import '../features/hand-in/handInApi.js';
import '../features/outbox/OutboxPage.js';
import '../features/people/peopleApi.js';
import '../features/today/todayApi.js';

jest.mock('../app/saving/browserStore.js', () => ({ browserStore: () => ({}) }));

/** What is on a page of the exchange `x` of the course `c`, as it would be asked for. */
const SHOWN: ReadonlyArray<readonly [endpoint: string, argument: unknown]> = [
  ['courses', undefined],
  ['course', 'c'],
  ['today', undefined],
  ['inbox', undefined],
  ['exchange', 'x'],
  ['progress', 'x'],
  ['allocation', 'x'],
  ['queue', 'x'],
  ['releaseView', 'x'],
  ['draftFeedback', { exchangeId: 'x', draftId: 'd' }],
  ['reviewCheck', 'r'],
  ['threads', 'r'],
  ['grades', 'x'],
  ['after', 'x'],
  ['feedback', 'x'],
  ['myDraft', 'x'],
  ['desk', 'r'],
  ['people', 'c'],
  ['outbox', 'c'],
];

const STAFF_BOARDS = ['draftFeedback', 'exchange', 'grades', 'progress', 'queue', 'releaseView'];

/** Which of them news of this topic make ask again. */
function asksAgain(topic: Topic, exchangeId: string | null = 'x'): string[] {
  const tags = tagsOf({ topics: [topic], courseId: 'c', exchangeId });
  const found = api.util.selectInvalidatedBy(store.getState(), tags);
  return found.map(({ endpointName }) => endpointName).sort();
}

describe('what is asked again for', () => {
  beforeAll(async () => {
    const { upsertQueryData } = api.util as unknown as {
      upsertQueryData: (endpoint: string, argument: unknown, data: unknown) => () => Promise<unknown>;
    };
    for (const [endpoint, argument] of SHOWN) await store.dispatch(upsertQueryData(endpoint, argument, {}));
  });

  it('is, when a review was submitted or noted on, every board that shows or counts it', () => {
    expect(asksAgain('reviews')).toEqual(expect.arrayContaining([...STAFF_BOARDS, 'reviewCheck', 'threads', 'today']));
  });

  it.each<[Topic, string[]]>([
    [
      'plan',
      [
        'after',
        'course',
        'courses',
        'draftFeedback',
        'exchange',
        'feedback',
        'inbox',
        'progress',
        'releaseView',
        'today',
      ],
    ],
    ['drafts', ['after', 'exchange', 'grades', 'progress', 'today']],
    ['allocation', ['allocation', 'exchange', 'today']],
    ['grades', ['grades']],
    ['people', ['course', 'courses', 'grades', 'people', 'queue', 'reviewCheck']],
    ['mail', ['outbox']],
    ['own-draft', ['exchange', 'feedback', 'inbox', 'myDraft', 'threads', 'today']],
    ['own-review', ['desk', 'inbox', 'threads', 'today']],
    ['preview', []],
  ])('is, after news of %s, what they change', (topic, endpoints) => {
    const exchangeId = topic === 'people' ? null : 'x';
    expect(asksAgain(topic, exchangeId)).toEqual(endpoints);
  });

  it('is, when somebody of the course is dropped, what each of its exchanges shows of people', () => {
    expect(asksAgain('drafts', null)).toEqual(asksAgain('drafts'));
    expect(asksAgain('allocation', null)).toEqual(asksAgain('allocation'));
  });

  it('is nothing of this exchange for news of another one, but what is about all of them', () => {
    expect(asksAgain('reviews', 'another')).toEqual(['inbox', 'reviewCheck', 'threads', 'today']);
  });
});
