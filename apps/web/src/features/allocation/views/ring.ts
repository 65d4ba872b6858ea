import { pairKey } from '@salt-circle/core';
import type { Model } from '../model.js';

export interface RingNode {
  readonly key: string;
  readonly words: string;
  /** As reviewer, as author, or as both. */
  readonly reviewerId: string | null;
  readonly draftId: string | null;
  /** From the top, clockwise, in radians. */
  readonly angle: number;
  readonly x: number;
  readonly y: number;
}

export interface RingArc {
  readonly key: string;
  readonly from: string;
  readonly to: string;
  /** SVG path, from the reviewer to the author. */
  readonly path: string;
}

export interface Ring {
  readonly nodes: readonly RingNode[];
  readonly arcs: readonly RingArc[];
}

/** Past so many people arcs can no longer be told apart. */
export const RING_MOST = 150;

/** People on a circle, by name; drafts of groups stand beside them as points of their own. Centre 0, radius 1. */
export function ringOf(model: Model): Ring {
  // Whoever is left out and has nothing to do with any pair is not drawn.
  const involved = model.view.reviewers.filter(({ id, leftOut }) => {
    const own = model.ownOf.get(id);
    return leftOut === null || model.given(id) > 0 || (own !== undefined && model.load(own.id) > 0);
  });
  const entries = involved.map(({ id }) => {
    const own = model.ownOf.get(id);
    const single = own !== undefined && own.authorIds.length === 1 ? own.id : null;
    return { key: `r ${id}`, words: model.reviewerName(id), reviewerId: id, draftId: single };
  });
  const drawn = new Set(entries.map(({ draftId }) => draftId));
  const others = model.view.drafts
    .filter(({ id }) => !drawn.has(id))
    .map(({ id }) => ({ key: `d ${id}`, words: model.authorName(id), reviewerId: null, draftId: id }));
  const all = [...entries, ...others].sort((a, b) => a.words.localeCompare(b.words));
  const nodes = all.map((entry, index): RingNode => {
    const angle = (index / Math.max(1, all.length)) * 2 * Math.PI;
    return { ...entry, angle, x: Math.sin(angle), y: -Math.cos(angle) };
  });
  const byReviewer = new Map(
    nodes.flatMap((node) => (node.reviewerId === null ? [] : [[node.reviewerId, node] as const])),
  );
  const byDraft = new Map(nodes.flatMap((node) => (node.draftId === null ? [] : [[node.draftId, node] as const])));
  const arcs = model.pairs.flatMap(({ reviewerId, draftId }): RingArc[] => {
    const from = byReviewer.get(reviewerId);
    const to = byDraft.get(draftId);
    if (from === undefined || to === undefined) return [];
    return [{ key: pairKey({ reviewerId, draftId }), from: from.key, to: to.key, path: arc(from, to) }];
  });
  return { nodes, arcs };
}

/** Bent towards the middle, the more so the farther apart, and a little aside, so that there and back are two arcs. */
function arc(from: RingNode, to: RingNode): string {
  const middle = { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 };
  const chord = Math.hypot(to.x - from.x, to.y - from.y);
  const pull = 0.85 - 0.3 * chord;
  const aside = { x: (to.y - from.y) * 0.06, y: (from.x - to.x) * 0.06 };
  const bend = { x: middle.x * pull + aside.x, y: middle.y * pull + aside.y };
  return `M${point(from)} Q${point(bend)} ${point(to)}`;
}

function point({ x, y }: { readonly x: number; readonly y: number }): string {
  return `${x.toFixed(4)} ${y.toFixed(4)}`;
}
