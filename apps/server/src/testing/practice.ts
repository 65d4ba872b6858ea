import type { PracticeView } from '@salt-circle/contracts';
import { submitFilled } from './acts.js';
import { INES } from './people.js';
import { PLAN } from './plan.js';
import { type World } from './world.js';

/** A practice draft with its key, offered to everybody of the exchange. It is anybody’s to try from the opening of drafts on. */
export async function practiceOn(world: World, exchangeId: string): Promise<{ practiceId: string; keyId: string }> {
  const sample = { from: 'text', title: 'Tides', html: '<p>The bed rose by four metres.</p>' };
  const { drafts } = await world.do<PracticeView>(INES, 'post', `/exchanges/${exchangeId}/practice`, sample);
  const [card] = drafts;
  const keyId = card?.staff?.keyReviewId ?? '';
  await submitFilled(world, INES, keyId);
  const { revision, ...plan } = await world.do(INES, 'get', `/exchanges/${exchangeId}/plan`);
  const practice = { when: 'offered', tries: null, closeEnough: null };
  await world.do(INES, 'put', `/exchanges/${exchangeId}/plan`, { ...settingsIn(plan), practice, revision });
  return { practiceId: card?.id ?? '', keyId };
}

/** Of a plan as it is read, what can be saved. */
function settingsIn(plan: object): object {
  return Object.fromEntries(Object.entries(plan).filter(([key]) => key in PLAN));
}

export async function tryPractice(world: World, person: number, practiceId: string): Promise<string> {
  const body = { again: false };
  const { reviewId } = await world.do<{ reviewId: string }>(person, 'post', `/practice/${practiceId}/begin`, body);
  await submitFilled(world, person, reviewId);
  return reviewId;
}
