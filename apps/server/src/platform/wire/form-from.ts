import type { FormContent, FormItemRequest } from '@salt-circle/contracts';
import type { FormItem, ReviewForm } from '@salt-circle/core';

/** The form that a request speaks of. Only the fields of a kind are kept, in one order, so that equal forms are equal texts. */
export function formFrom(request: FormContent): ReviewForm {
  const { weighting, overall, overallWords, minimumNotes, targetNotes } = request;
  return { items: request.items.map(asItem), weighting, overall, overallWords, minimumNotes, targetNotes };
}

function asItem(request: FormItemRequest): FormItem {
  const { id, title, guidance, required, weight } = request;
  const base = { id, title, guidance, required, weight };
  const comment = request.comment ?? 'optional';
  switch (request.kind) {
    case 'criterion': {
      const levels = (request.levels ?? []).map((level) => ({
        id: level.id,
        title: level.title,
        description: level.description,
        points: level.points,
      }));
      return { kind: 'criterion', ...base, levels, comment };
    }
    case 'range': {
      const bands = (request.bands ?? []).map((band) => ({
        id: band.id,
        title: band.title,
        description: band.description,
        from: band.from,
        to: band.to,
      }));
      return { kind: 'range', ...base, bands, step: request.step ?? 1, comment };
    }
    case 'checklist': {
      const entries = (request.entries ?? []).map((entry) => ({
        id: entry.id,
        text: entry.text,
        points: entry.points,
      }));
      // Left out where it is not chosen, so that forms of before stay the same text.
      return { kind: 'checklist', ...base, entries, comment, ...(request.cannotTell === true && { cannotTell: true }) };
    }
    case 'prompt':
      return { kind: 'prompt', ...base, minimumWords: request.minimumWords ?? 0 };
    case 'pair': {
      const { worksLabel = '', nextLabel = '', minimumWords = 0 } = request;
      return { kind: 'pair', ...base, worksLabel, nextLabel, minimumWords };
    }
    case 'number': {
      const { minimum = null, maximum = null, whole = true, unit = '' } = request;
      return { kind: 'number', ...base, minimum, maximum, whole, unit };
    }
    case 'choice': {
      const options = (request.options ?? []).map((option) => ({ id: option.id, title: option.title }));
      return { kind: 'choice', ...base, options, multiple: request.multiple ?? false, comment };
    }
  }
}
