import type { AnyEditRequest, FieldProblem, NoteKind } from '@salt-circle/contracts';
import type { Place, ProposedEdit } from '@salt-circle/core';
import type { ProblemError } from '../../platform/problems/problem-error.js';
import { invalid } from '../../platform/problems/sentences.js';
import { anchorFrom } from './places.js';
import { say } from '../../words/reviews.js';

/** What is kept of the edit that a request names, the fields of its kind in one order. */
export function editFrom(edit: AnyEditRequest | null): ProposedEdit | null {
  switch (edit?.type) {
    case undefined:
      return null;
    case 'insert':
      return { type: 'insert', side: edit.side, text: edit.text };
    case 'replace':
      return { type: 'replace', text: edit.text };
    case 'move':
      return { type: 'move', side: edit.side, to: anchorFrom(edit.to) };
    case 'delete':
    case 'split':
    case 'join':
      return { type: edit.type };
  }
}

/** @throws ProblemError `invalid` for an edit of something that has no words, or under a kind that changes nothing */
export function assertEdit(kind: NoteKind, { selector }: Place, edit: ProposedEdit | null): void {
  if (edit === null) return;
  if (kind !== 'fix' && kind !== 'change') {
    throw wrong('edit-kind', say('editIsProposedWithChange'));
  }
  if (selector.type === 'text') return;
  if (selector.type === 'passage' && edit.type !== 'move') return;
  throw wrong('edit-place', say('editIsProposedForPassage'));
}

export function unknownItem(): ProblemError {
  const field: FieldProblem = {
    path: 'itemId',
    code: 'item-unknown',
    sentence: say('formHasNoSuchItem'),
  };
  return invalid([field]);
}

function wrong(code: string, sentence: string): ProblemError {
  return invalid([{ path: 'edit', code, sentence }]);
}
