import type { DraftReading, FieldProblem } from '@salt-circle/contracts';
import { isFilled, missingDeliverables, type Filled } from '@salt-circle/core';
import type { Place } from '../../access/access.js';
import type { Draft, DraftPart } from '../../model/draft.js';
import type { StoredFile } from '../../model/stored-file.js';
import { ProblemError } from '../../platform/problems/problem-error.js';

/** All that handing in is decided on, at one moment. */
export interface HandInStanding {
  readonly place: Place;
  readonly draft: Draft;
  readonly parts: readonly DraftPart[];
  readonly files: ReadonlyMap<string, StoredFile>;
  readonly reading: DraftReading;
  readonly fingerprint: string;
}

function filledBy({ parts, reading }: HandInStanding): Filled[] {
  return parts.map(({ id, deliverableId }) => {
    const count = parts.filter((one) => one.deliverableId === deliverableId).length;
    return { deliverableId, count, words: reading.parts.find((one) => one.id === id)?.words ?? 0 };
  });
}

/** What keeps it from being handed in, at the place where it can be mended. */
export function problemsOf(standing: HandInStanding): FieldProblem[] {
  const { place, draft } = standing;
  const problems: FieldProblem[] = [];
  if (draft.title.trim() === '') {
    problems.push({ path: 'title', code: 'missing', sentence: 'Give your draft a title.' });
  }
  const filled = filledBy(standing);
  for (const { id, title, kind } of missingDeliverables(place.exchange.deliverables, filled)) {
    problems.push({ path: `parts.${id}`, code: 'missing', sentence: `“${title}” is missing: ${MISSING[kind]}` });
  }
  if (problems.length === 0 && !place.exchange.deliverables.some((one) => isFilled(one, filled))) {
    problems.push({ path: 'parts', code: 'missing', sentence: 'There is nothing in this draft yet.' });
  }
  return problems;
}

const MISSING = {
  text: 'write or paste it.',
  file: 'choose a file.',
  link: 'add a link.',
  recording: 'record it, or choose a file.',
} as const;

export function remarksOf({ parts, files, reading }: HandInStanding): string[] {
  return parts.flatMap(({ id, name, digest }) => {
    const file = files.get(digest ?? '');
    const title = reading.parts.find((one) => one.id === id)?.deliverable ?? '';
    if (file?.copyState === 'failed') {
      return [`Reviewers will not be able to read “${name}” (${title}). ${file.copyProblem ?? ''}`.trim()];
    }
    return file?.copyState === 'waiting'
      ? [`The copy of “${name}” that reviewers read is still being made, so it has not been searched for names yet.`]
      : (file?.remarks ?? []).map((remark) => `“${name}” (${title}): ${remark}`);
  });
}

export function assertComplete(problems: readonly FieldProblem[]): void {
  if (problems.length === 0) return;
  throw new ProblemError({
    code: 'hand-in-incomplete',
    sentence:
      problems.length === 1
        ? (problems[0] as FieldProblem).sentence
        : `${problems.length} things are missing before this can be handed in.`,
    whatToDo: 'Add what is missing, then hand in. All you have so far is saved.',
    fields: problems,
  });
}
