import type { FieldProblem, PlaceRequest } from '@salt-circle/contracts';
import { checkPlace, type Place as DraftPlace, type PlaceablePart, type PlaceProblemCode } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import type { Place } from '../../access/access.js';
import { partsOf } from '../../access/versions.js';
import type { Draft, DraftVersion } from '../../model/draft.js';
import { htmlToText } from '../../platform/html/html-to-text.js';
import { invalid } from '../../platform/problems/sentences.js';
import type { Readings } from '../reading/readings.service.js';

/** What is kept of the place that a request names. */
export function placeFrom({ partId, selector: { type, quote, position } }: PlaceRequest): DraftPlace {
  return { partId, selector: { type, quote: { ...quote }, position: { ...position } } };
}

const SENTENCES: Readonly<Record<PlaceProblemCode, string>> = {
  'part-unknown':
    'This part is not in the version of the draft that you review. Load the page again; your note stays in this browser.',
  'place-unfit': 'This part of the draft has no such places. Choose a passage of a text.',
  'place-empty': 'A note needs a passage. Select some text first.',
  'place-outside': 'This place is not in the draft. Select the passage again.',
};

/**
 * Whether a note can stand there, in the parts as their reviewers read them.
 * @throws ProblemError `invalid` with the reason
 */
export async function assertPlace(
  manager: EntityManager,
  readings: Readings,
  place: Place,
  { draft, version, at }: { readonly draft: Draft; readonly version: DraftVersion; readonly at: DraftPlace },
): Promise<void> {
  const rows = await partsOf(manager, draft.id, version.id, place.exchange.deliverables);
  const views = await readings.parts(
    manager,
    place,
    draft,
    rows.filter(({ id }) => id === at.partId),
    'reviewer',
  );
  const parts = views.map(({ id, show, html, facts }): PlaceablePart => ({
    id,
    textLength: show === 'html' && html !== null ? htmlToText(html).length : null,
    pages: facts.pages ?? null,
    picture: show === 'picture',
    seconds: facts.seconds ?? null,
  }));
  const problem = checkPlace(at, parts);
  if (problem === null) return;
  const field: FieldProblem = { path: problem.path.join('.'), code: problem.code, sentence: SENTENCES[problem.code] };
  throw invalid([field]);
}
