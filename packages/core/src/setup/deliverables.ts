import { problem, type CoreProblem } from '../problem.js';

export const DELIVERABLE_KINDS = ['text', 'file', 'link', 'recording'] as const;
export type DeliverableKind = (typeof DELIVERABLE_KINDS)[number];

/**
 * Families of files, told by content when one is handed in. Only what can be read in the browser and cleaned of names
 * in its metadata: slides and sheets are handed in as PDF.
 */
export const FILE_FAMILIES = ['pdf', 'document', 'plain-text', 'image', 'audio', 'video'] as const;
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
  /** For files and recordings: the largest size of one of them, in millions of bytes, 1 to 200. */
  readonly maxMegabytes: number;
}

export const DEFAULT_MEGABYTES = 50;
export const MAX_MEGABYTES = 200;
/** Files of one deliverable. */
export const MAX_FILES = 10;

export const MAX_DELIVERABLES = 10;

export type DeliverableProblemCode =
  | 'deliverables-none'
  | 'deliverables-too-many'
  | 'deliverables-none-required'
  | 'deliverable-untitled'
  | 'deliverable-duplicate'
  | 'deliverable-same-title'
  | 'deliverable-no-family'
  | 'deliverable-size';

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
  deliverables.forEach(({ id, kind, title, families, maxMegabytes }, index) => {
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
    const sized = Number.isInteger(maxMegabytes) && maxMegabytes >= 1 && maxMegabytes <= MAX_MEGABYTES;
    if (!sized) problems.push(problem('deliverable-size', [...at, 'maxMegabytes'], { ...facts, max: MAX_MEGABYTES }));
  });
  return problems;
}

/** What of a deliverable is there: for typed text its words, for the other kinds how many there are. */
export interface Filled {
  readonly deliverableId: string;
  readonly words: number;
  readonly count: number;
}

/** The required deliverables that a hand-in still lacks, in their order. */
export function missingDeliverables(deliverables: readonly Deliverable[], filled: readonly Filled[]): Deliverable[] {
  return deliverables.filter((one) => one.required && !isFilled(one, filled));
}

export function isFilled({ id, kind }: Deliverable, filled: readonly Filled[]): boolean {
  const own = filled.find(({ deliverableId }) => deliverableId === id);
  return own !== undefined && (kind === 'text' ? own.words > 0 : own.count > 0);
}
