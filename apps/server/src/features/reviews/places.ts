import type { AnySelectorRequest, FieldProblem, PlaceRequest, TextSelectorRequest } from '@salt-circle/contracts';
import {
  checkPlace,
  type Place,
  type PlaceablePart,
  type PlaceProblemCode,
  type Selector,
  type TextAnchor,
  wordsBy,
} from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import type { ExchangeContext } from '../../permissions/access.js';
import { partsOf } from '../../queries/versions.js';
import type { Draft, DraftVersion } from '../../model/draft.js';
import { htmlToText } from '../../platform/html/html-to-text.js';
import { invalid } from '../../platform/problems/sentences.js';
import type { Readings } from '../reading/readings.service.js';
import { say } from '../../words/reviews.js';

/** What is kept of the place that a request names: the fields of its kind, in one order, so that the same place reads the same. */
export function placeFrom({ partId, selector }: Pick<PlaceRequest, 'partId' | 'selector'>): Place {
  return { partId, selector: selectorFrom(selector) };
}

function selectorFrom(selector: AnySelectorRequest): Selector {
  switch (selector.type) {
    case 'text':
      return { type: 'text', ...anchorFrom(selector) };
    case 'passage':
      return { type: 'passage', page: selector.page, ...anchorFrom(selector) };
    case 'page':
      return { type: 'page', page: selector.page };
    case 'region': {
      const { page, x, y, width, height } = selector;
      return { type: 'region', page, x, y, width, height };
    }
    case 'moment':
      return { type: 'moment', start: selector.start, end: selector.end };
    case 'whole':
      return { type: 'whole' };
  }
}

export function anchorFrom({ quote, position }: Pick<TextSelectorRequest, 'quote' | 'position'>): TextAnchor {
  const { exact, prefix, suffix } = quote;
  const { start, end } = position;
  return {
    quote: { type: 'TextQuoteSelector', exact, prefix, suffix },
    position: { type: 'TextPositionSelector', start, end },
  };
}

/** Seconds: a recording that does not say how long it is takes notes up to a day. */
const LONGEST = 86_400;

const SENTENCES: Readonly<Record<PlaceProblemCode, string>> = wordsBy(say, {
  'part-unknown': 'thisPartIsNotIn',
  'place-unfit': 'thisPartOfDraftHas',
  'place-empty': 'thisPlaceEndsWhereIt',
  'place-outside': 'thisPlaceIsNotIn',
});

/**
 * Whether a note can stand there, in the parts as their reviewers read them.
 * @throws ProblemError `invalid` with the reason
 */
export async function assertPlace(
  manager: EntityManager,
  readings: Readings,
  context: ExchangeContext,
  { draft, version, at }: { readonly draft: Draft; readonly version: DraftVersion; readonly at: Place },
): Promise<void> {
  const parts = await placeableParts(manager, readings, context, { draft, version, only: at.partId });
  assertFits(at, parts);
}

interface Placing {
  readonly draft: Draft;
  readonly version: DraftVersion;
  /** One part alone; all without. */
  readonly only?: string | null;
}

/** The parts of a version as their reviewers read them, as far as notes can stand in them. */
export async function placeableParts(
  manager: EntityManager,
  readings: Readings,
  context: ExchangeContext,
  { draft, version, only }: Placing,
): Promise<PlaceablePart[]> {
  const rows = await partsOf(manager, draft.id, version.id, context.exchange.deliverables);
  const wanted = only === undefined ? rows : rows.filter(({ id }) => id === only);
  const views = await readings.parts(manager, context, draft, wanted, 'reviewer');
  return views.map(({ id, show, html, facts }): PlaceablePart => ({
    id,
    textLength: show === 'html' && html !== null ? htmlToText(html).length : null,
    pages: show === 'pdf' ? (facts.pages ?? null) : null,
    picture: show === 'picture',
    seconds: show === 'video' || show === 'sound' ? (facts.seconds ?? LONGEST) : null,
  }));
}

/** @throws ProblemError `invalid` with the reason */
export function assertFits(at: Place, parts: readonly PlaceablePart[]): void {
  const problem = checkPlace(at, parts);
  if (problem === null) return;
  const field: FieldProblem = { path: problem.path.join('.'), code: problem.code, sentence: SENTENCES[problem.code] };
  throw invalid([field]);
}
