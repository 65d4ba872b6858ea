import { problem, type CoreProblem } from '../problem.js';

export const DELIVERABLE_KINDS = ['text', 'file', 'link', 'recording'] as const;
export type DeliverableKind = (typeof DELIVERABLE_KINDS)[number];

/** Families of files, told by content when one is handed in. */
export const FILE_FAMILIES = [
  'pdf',
  'document',
  'slides',
  'sheet',
  'image',
  'audio',
  'video',
  'plain-text',
  'archive',
] as const;
export type FileFamily = (typeof FILE_FAMILIES)[number];

/** One thing that a hand-in contains. */
export interface Deliverable {
  readonly id: string;
  readonly kind: DeliverableKind;
  readonly title: string;
  readonly description: string;
  readonly required: boolean;
  /** For files: what is taken. Empty for the other kinds. */
  readonly families: readonly FileFamily[];
}

export const MAX_DELIVERABLES = 10;

export type DeliverableProblemCode =
  | 'deliverables-none'
  | 'deliverables-too-many'
  | 'deliverables-none-required'
  | 'deliverable-untitled'
  | 'deliverable-duplicate'
  | 'deliverable-same-title'
  | 'deliverable-no-family';

/** Says what is wrong with what a hand-in is to contain. */
export function checkDeliverables(deliverables: readonly Deliverable[]): CoreProblem<DeliverableProblemCode>[] {
  const problems: CoreProblem<DeliverableProblemCode>[] = [];
  if (deliverables.length === 0) return [problem('deliverables-none', ['deliverables'])];
  if (deliverables.length > MAX_DELIVERABLES) {
    problems.push(problem('deliverables-too-many', ['deliverables'], { max: MAX_DELIVERABLES }));
  }
  // Something must be there to review.
  if (!deliverables.some(({ required }) => required))
    problems.push(problem('deliverables-none-required', ['deliverables']));
  const ids = new Set<string>();
  const titles = new Set<string>();
  deliverables.forEach(({ id, kind, title, families }, index) => {
    const at = ['deliverables', index] as const;
    const facts = { number: index + 1, title };
    const key = title.trim().toLowerCase();
    if (ids.has(id)) problems.push(problem('deliverable-duplicate', [...at, 'id'], facts));
    ids.add(id);
    if (key === '') problems.push(problem('deliverable-untitled', [...at, 'title'], facts));
    else if (titles.has(key)) problems.push(problem('deliverable-same-title', [...at, 'title'], facts));
    titles.add(key);
    if (kind === 'file' && families.length === 0)
      problems.push(problem('deliverable-no-family', [...at, 'families'], facts));
  });
  return problems;
}
