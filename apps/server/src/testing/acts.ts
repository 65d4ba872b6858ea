import type {
  AllocationView,
  DeskView,
  HandInCheck,
  JobView,
  MyDraftView,
  NoteRequest,
  PlanSettings,
  PreviewRequest,
  PreviewView,
  VersionMeta,
} from '@salt-circle/contracts';
import { INES, ANN, BEN } from './people.js';
import { AT, FORM, PLAN } from './plan.js';
import type { World } from './world.js';

/** A published exchange with the plan and form above. */
export async function publishedExchange(world: World, part: Partial<PlanSettings> = {}): Promise<string> {
  const { id } = await world.do(INES, 'post', '/courses/course/exchanges', { title: 'Field report' });
  await world.do(INES, 'put', `/exchanges/${id}/plan`, { ...PLAN, ...part, revision: 1 });
  await world.do(INES, 'put', `/exchanges/${id}/form`, { ...FORM, revision: 1 });
  await world.do(INES, 'post', `/exchanges/${id}/publish`);
  return id;
}

export async function handIn(
  world: World,
  person: number,
  exchangeId: string,
  text = 'The bed rose by four centimetres a decade.',
): Promise<void> {
  await write(world, person, exchangeId, text);
  await handInSaved(world, person, exchangeId);
}

/** Saves a title and a text, without handing in. */
export async function write(
  world: World,
  person: number,
  exchangeId: string,
  text: string,
  title = 'On the basin',
): Promise<void> {
  const draft = await world.do<MyDraftView>(person, 'get', `/exchanges/${exchangeId}/draft`);
  await world.do(person, 'put', `/exchanges/${exchangeId}/draft`, { revision: draft.revision, title, context: '' });
  await world.do(person, 'put', `/exchanges/${exchangeId}/draft/texts/text`, {
    revision: draft.texts['text']?.revision ?? 0,
    html: `<p>${text}</p>`,
  });
}

export async function handInSaved(world: World, person: number, exchangeId: string): Promise<VersionMeta> {
  const { fingerprint } = await world.do<HandInCheck>(person, 'get', `/exchanges/${exchangeId}/draft/check`);
  return world.do(person, 'post', `/exchanges/${exchangeId}/draft/hand-in`, { fingerprint, namesSeen: true });
}

/** A preview, as soon as it is there. */
export async function previewOf(
  world: World,
  exchangeId: string,
  part: Partial<PreviewRequest> = {},
  person: number = INES,
): Promise<PreviewView> {
  const path = `/exchanges/${exchangeId}/allocation`;
  let job = await world.do<JobView>(person, 'post', `${path}/previews`, {
    kind: 'new',
    seed: 1,
    wishes: null,
    ...part,
  });
  while (job.state === 'running') job = await world.do<JobView>(person, 'get', `${path}/jobs/${job.id}`);
  if (job.preview === null) throw new Error(job.problem?.sentence ?? job.state);
  return job.preview;
}

/** Previews an allocation and applies it. */
export async function allocateAll(
  world: World,
  exchangeId: string,
  part: Partial<PreviewRequest> = {},
): Promise<AllocationView> {
  const { id: previewId } = await previewOf(world, exchangeId, part);
  return world.do<AllocationView>(INES, 'post', `/exchanges/${exchangeId}/allocation`, { previewId });
}

/** Ann and Ben have handed in and review each other; Cho has not. It is reviewing time. */
export async function reviewedExchange(
  world: World,
  part: Partial<PlanSettings> = {},
): Promise<{ id: string; byAnn: string; byBen: string }> {
  const id = await publishedExchange(world, part);
  world.clock.goTo(AT.drafting);
  await handIn(world, ANN, id, 'The bed rose by four centimetres a decade.');
  await handIn(world, BEN, id, 'Geese have grazed the islands bare since 2009.');
  await allocateAll(world, id);
  world.clock.goTo(AT.reviewing);
  const [byAnn] = await world.do<Array<{ id: string }>>(ANN, 'get', `/exchanges/${id}/reviews`);
  const [byBen] = await world.do<Array<{ id: string }>>(BEN, 'get', `/exchanges/${id}/reviews`);
  return { id, byAnn: byAnn?.id ?? '', byBen: byBen?.id ?? '' };
}

export const NOTE_ID = '7f1c2a34-5b6d-4e8f-9a0b-1c2d3e4f5a6b';
/** A note on a passage of the first text of the draft that a review is of. */
export async function noteFor(
  world: World,
  person: number,
  reviewId: string,
  { start = 4, end = 12, ...part }: Partial<NoteRequest> & { readonly start?: number; readonly end?: number } = {},
): Promise<NoteRequest> {
  const { draft } = await world.do<DeskView>(person, 'get', `/reviews/${reviewId}`);
  const text = draft.parts.find(({ show }) => show === 'html');
  return {
    revision: 0,
    kind: 'ask',
    body: 'How was this measured?',
    place: {
      version: draft.version,
      partId: text?.id ?? '',
      selector: {
        type: 'text',
        quote: { type: 'TextQuoteSelector', exact: 'bed rose', prefix: 'The ', suffix: ' by four' },
        position: { type: 'TextPositionSelector', start, end },
      },
    },
    ...part,
  };
}

/** Leaves that note. */
export async function leaveNote(
  world: World,
  person: number,
  reviewId: string,
  part: Parameters<typeof noteFor>[3] = {},
  id = NOTE_ID,
): Promise<void> {
  const note = await noteFor(world, person, reviewId, part);
  await world.do(person, 'put', `/reviews/${reviewId}/notes/${id}`, note);
}

export async function fillIn(world: World, person: number, reviewId: string): Promise<void> {
  await world.do(person, 'put', `/reviews/${reviewId}/answers/evidence`, {
    revision: 0,
    levelId: 'high',
    text: 'Dated readings.',
  });
  await world.do(person, 'put', `/reviews/${reviewId}/answers/first`, {
    revision: 0,
    text: 'Say how large the site is.',
  });
}

/** Fills a review in and submits it. */
export async function submitFilled(world: World, person: number, reviewId: string): Promise<void> {
  await fillIn(world, person, reviewId);
  await world.do(person, 'post', `/reviews/${reviewId}/submit`);
}
