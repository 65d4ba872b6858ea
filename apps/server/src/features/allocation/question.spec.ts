import type { LeftOut, WishesView } from '@salt-circle/contracts';
import { pairKey } from '@salt-circle/core';
import type { ForbiddenPair } from '../../model/allocation.js';
import type { Exchange, Participant } from '../../model/exchange.js';
import type { Review } from '../../model/review.js';
import type { Circumstances } from './circumstances.js';
import type { Earlier } from './earlier.js';
import type { HandedIn } from './handed-in.js';
import { questionOf } from './question.js';
import { aloneIn } from './since.js';

/** Put together from nothing but values: no database, no clock. */

const WISHES: WishesView = { whom: 'anyone', reviewsEach: 2, avoid: 'all', mix: false, maxPerDraft: null };
const EXCHANGE = { id: 'x', selfReview: 'off', groupSetId: null } as Exchange;

const participant = (id: string, extraReviews: number | null = null) =>
  ({ id, personId: `person-${id}`, extraReviews }) as Participant;
const draft = (...authorIds: string[]): HandedIn => ({
  draftId: `d-${authorIds.join('-')}`,
  participantId: authorIds[0] as string,
  groupId: null,
  alias: null,
  title: '',
  firstAt: 0,
  authorIds,
});
const review = (reviewerId: string, author: string, part: Partial<Review> = {}) =>
  ({
    id: `${reviewerId}-${author}`,
    reviewerId,
    draftId: `d-${author}`,
    begunAt: null,
    submittedAt: null,
    locked: false,
    ...part,
  }) as Review;
const apart = (reviewerId: string, authorId: string) => ({ reviewerId, authorId }) as ForbiddenPair;

/** Four students with a draft each, and nothing earlier. */
function circumstances(
  part: Partial<Omit<Circumstances, 'leftOut'>> & { readonly leftOut?: Readonly<Record<string, LeftOut>> } = {},
): Circumstances {
  const students = ['ann', 'ben', 'cho', 'dee'].map((id) => participant(id));
  const { leftOut = {}, ...rest } = part;
  return {
    participants: students,
    students,
    extras: [],
    drafts: ['ann', 'ben', 'cho', 'dee'].map((id) => draft(id)),
    groups: new Map(),
    earlier: { exchanges: [], strengths: new Map(), pairs: () => [] } as unknown as Earlier,
    ...rest,
    leftOut: new Map(Object.entries(leftOut)),
  };
}

interface Given {
  readonly reviews?: readonly Review[];
  readonly keptApart?: readonly ForbiddenPair[];
  readonly exchange?: Exchange;
  readonly wishes?: WishesView;
}

const question = (
  given: Circumstances = circumstances(),
  { reviews = [], keptApart = [], exchange = EXCHANGE, wishes = WISHES }: Given = {},
) => questionOf(exchange, wishes, given, { reviews, keptApart, voiced: [] });

const capacities = ({ problem }: ReturnType<typeof question>) =>
  Object.fromEntries(problem.reviewers.map(({ id, capacity }) => [id, capacity]));

describe('the question that is put to the solver', () => {
  it('asks of everybody who takes part as many reviews as are wished, for every draft', () => {
    const { problem, open } = question();
    expect(capacities({ problem } as never)).toEqual({ ann: 2, ben: 2, cho: 2, dee: 2 });
    expect([...open].sort()).toEqual(['d-ann', 'd-ben', 'd-cho', 'd-dee']);
    expect([problem.fixed, problem.forbidden]).toEqual([[], []]);
  });

  it('leaves out who has left or is excused, with their drafts; who has not handed in only gives none', () => {
    const left = question(circumstances({ leftOut: { ann: 'left', ben: 'excused', cho: 'not-handed-in' } }));
    expect(capacities(left)).toEqual({ dee: 2 });
    expect([...left.open].sort()).toEqual(['d-cho', 'd-dee']);
  });

  it('keeps a group’s draft open as long as one of its authors takes part', () => {
    const drafts = [draft('ann', 'ben'), draft('cho')];
    expect([...question(circumstances({ drafts, leftOut: { ann: 'left' } })).open]).toContain('d-ann-ben');
    expect([...question(circumstances({ drafts, leftOut: { ann: 'left', ben: 'left' } })).open]).toEqual(['d-cho']);
  });

  it('holds what has begun or is held by hand, and nothing else', () => {
    const { problem } = question(circumstances(), {
      reviews: [
        review('ann', 'ben'),
        review('ann', 'cho', { begunAt: 1 }),
        review('ben', 'cho', { locked: true }),
        review('cho', 'dee', { begunAt: 1, submittedAt: 2 }),
      ],
    });
    expect(problem.fixed.map(pairKey).sort()).toEqual(
      [
        { reviewerId: 'ann', draftId: 'd-cho' },
        { reviewerId: 'ben', draftId: 'd-cho' },
        { reviewerId: 'cho', draftId: 'd-dee' },
      ]
        .map(pairKey)
        .sort(),
    );
  });

  it('keeps what somebody submitted who has left, asks nothing more, and waits no longer for what was only begun', () => {
    const gone = question(circumstances({ leftOut: { ann: 'left' } }), {
      reviews: [review('ann', 'ben', { begunAt: 1, submittedAt: 2 }), review('ann', 'cho', { begunAt: 1 })],
    });
    expect(gone.problem.fixed).toEqual([{ reviewerId: 'ann', draftId: 'd-ben' }]);
    expect(capacities(gone)['ann']).toBe(0);
  });

  it('counts staff who review, by the number of their own', () => {
    const tom = participant('tom', 1);
    const given = circumstances();
    const asked = question({ ...given, participants: [...given.participants, tom], extras: [tom] });
    expect(capacities(asked)).toEqual({ ann: 2, ben: 2, cho: 2, dee: 2, tom: 1 });
  });

  it('keeps two people apart whatever they wrote together, once each, and lets go on what has begun', () => {
    const drafts = [draft('ann', 'ben'), draft('cho'), draft('dee')];
    const { problem } = question(circumstances({ drafts }), {
      keptApart: [apart('cho', 'ann'), apart('cho', 'ben'), apart('dee', 'cho'), apart('nobody', 'ann')],
      reviews: [review('dee', 'cho', { begunAt: 1 })],
    });
    expect(problem.forbidden).toEqual([{ reviewerId: 'cho', draftId: 'd-ann-ben' }]);
  });

  it('sets reviews of the own draft apart, and asks for them only where the exchange does', () => {
    const reviews = [review('ann', 'ann'), review('ann', 'ben')];
    const off = question(circumstances(), { reviews });
    expect([off.own.length, off.current.length, off.selfPairs]).toEqual([1, 1, []]);
    const { selfPairs } = question(circumstances({ leftOut: { dee: 'left' } }), {
      reviews,
      exchange: { ...EXCHANGE, selfReview: 'first' },
    });
    expect(selfPairs.map(({ reviewerId }) => reviewerId)).toEqual(['ann', 'ben', 'cho']);
  });

  it('asks partners for all the others of their group, however many those are', () => {
    const groups = new Map([
      ['ann', 'north'],
      ['ben', 'north'],
      ['cho', 'north'],
      ['dee', 'south'],
    ]);
    const asked = question(circumstances({ groups }), { wishes: { ...WISHES, whom: 'partners' } });
    expect(capacities(asked)).toEqual({ ann: 2, ben: 2, cho: 2, dee: 0 });
    const alone = (reviews: readonly Review[] = []) =>
      aloneIn(question(circumstances({ groups }), { wishes: { ...WISHES, whom: 'partners' }, reviews }));
    expect(alone()).toEqual([{ reviewerId: 'dee', draftId: 'd-dee' }]);
    // Somebody of another group was given the draft by hand, or it is reviewed by its own author.
    expect([alone([review('ann', 'dee')]), alone([review('dee', 'dee')])]).toEqual([[], []]);
    expect(aloneIn(asked)).toHaveLength(1);
    expect(aloneIn(question(circumstances({ groups })))).toEqual([]);
  });

  it('has a fingerprint of people, hand-ins and wishes, and not of what has begun since', () => {
    const { fingerprint } = question();
    const begun = [review('ann', 'ben', { begunAt: 1 })];
    expect(question(circumstances(), { reviews: begun }).fingerprint).toBe(fingerprint);
    const others = [
      question(circumstances({ leftOut: { dee: 'excused' } })),
      question(circumstances({ drafts: [draft('ann'), draft('ben')] })),
      question(circumstances(), { wishes: { ...WISHES, reviewsEach: 3 } }),
      question(circumstances(), { keptApart: [apart('ann', 'ben')] }),
    ];
    expect(new Set([fingerprint, ...others.map((one) => one.fingerprint)]).size).toBe(5);
  });
});
