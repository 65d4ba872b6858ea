import type { DraftReading, FieldProblem } from '@salt-circle/contracts';
import { isFilled, missingDeliverables, type Filled } from '@salt-circle/core';
import type { ExchangeContext } from '../../permissions/access.js';
import type { Draft, DraftPart } from '../../model/draft.js';
import type { StoredFile } from '../../model/stored-file.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { say } from '../../words/drafts.js';

/** All that handing in is decided on, at one moment. */
export interface HandInState {
  readonly context: ExchangeContext;
  readonly draft: Draft;
  readonly parts: readonly DraftPart[];
  readonly files: ReadonlyMap<string, StoredFile>;
  readonly reading: DraftReading;
  readonly fingerprint: string;
}

function filledBy({ parts, reading }: HandInState): Filled[] {
  return parts.map(({ id, deliverableId }) => {
    const count = parts.filter((one) => one.deliverableId === deliverableId).length;
    return { deliverableId, count, words: reading.parts.find((one) => one.id === id)?.words ?? 0 };
  });
}

/** What keeps it from being handed in, at the place where it can be mended. */
export function problemsOf(state: HandInState): FieldProblem[] {
  const { context, draft } = state;
  const problems: FieldProblem[] = [];
  if (draft.title.trim() === '') {
    problems.push({ path: 'title', code: 'missing', sentence: say('giveYourDraftTitle') });
  }
  const filled = filledBy(state);
  for (const { id, title, kind } of missingDeliverables(context.exchange.deliverables, filled)) {
    problems.push({
      path: `parts.${id}`,
      code: 'missing',
      sentence: say(MISSING[kind], { title }),
    });
  }
  if (problems.length === 0 && !context.exchange.deliverables.some((one) => isFilled(one, filled))) {
    problems.push({ path: 'parts', code: 'missing', sentence: say('thereIsNothingInThis') });
  }
  return problems;
}

const MISSING = {
  text: 'writeOrPasteIt',
  file: 'chooseFile',
  link: 'addLink',
  recording: 'recordItOrChooseFile',
} as const;

export function remarksOf({ parts, files, reading }: HandInState): string[] {
  return parts.flatMap(({ id, name, digest }) => {
    const file = files.get(digest ?? '');
    const title = reading.parts.find((one) => one.id === id)?.deliverable ?? '';
    if (file?.copyState === 'failed') {
      return [say('reviewersWillNotBeAble', { name, title, copyProblem: file.copyProblem ?? '' }).trim()];
    }
    return file?.copyState === 'waiting'
      ? [say('copyOfThatReviewersRead', { name })]
      : (file?.remarks ?? []).map((remark) => say('remarkOn', { name, title, remark }));
  });
}

export function assertComplete(problems: readonly FieldProblem[]): void {
  if (problems.length === 0) return;
  throw new ProblemError({
    code: 'hand-in-incomplete',
    sentence:
      problems.length === 1
        ? (problems[0] as FieldProblem).sentence
        : say('thingsAreMissingBeforeThis', { problems: problems.length }),
    whatToDo: say('addWhatIsMissingThen'),
    fields: problems,
  });
}
