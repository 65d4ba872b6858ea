import type { Draft, DraftPart } from '../../model/draft.js';
import { withFootnote } from '../../platform/html/footnotes.js';
import { HIDDEN, hideInHtml } from '../../platform/html/hide-in-html.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import type { LocatedFind } from './name-finds.js';
import { say } from '../../words/drafts.js';

export interface WithoutNames {
  readonly title: string;
  readonly context: string;
  readonly parts: DraftPart[];
}

/**
 * A draft whose author’s name is hidden wherever it was found for sure: in typed words by a mark in their place, in documents in
 * their copies.
 *
 * @throws ProblemError where a name stands in a place that cannot be hidden; what the copies for reviewers leave out anyway does not
 * count
 */
export function withoutNames(
  draft: Pick<Draft, 'title' | 'context'>,
  parts: readonly DraftPart[],
  finds: readonly LocatedFind[],
): WithoutNames {
  // Where links lead and what stands for pictures is taken out only where it names whoever handed the draft in: here somebody else.
  const stays = ({ view }: LocatedFind) => !view.removed || view.where === 'behind';
  const sure = finds.filter((one) => one.view.certainty === 'sure' && stays(one));
  const stuck = sure.find(({ view }) => !view.hideable);
  if (stuck !== undefined) throw telling(stuck);
  // From the end on, so that what is found before stays where it is.
  const at = [...sure].sort((a, b) => b.view.start - a.view.start);
  const of = (where: string, part: DraftPart | null) =>
    at.filter(({ view, within }) => view.where === where && within.part?.id === part?.id);
  const cut = (text: string, ranges: readonly LocatedFind[]) =>
    ranges.reduce((rest, { view }) => rest.slice(0, view.start) + HIDDEN + rest.slice(view.end), text);
  return {
    title: cut(draft.title, of('title', null)),
    context: cut(draft.context, of('context', null)),
    parts: parts.map((part) => {
      const hidden = [...part.hidden, ...of('copy', part).map(({ view: { start, end } }) => ({ start, end }))];
      const notes = new Map<number, LocatedFind[]>();
      for (const find of of('footnote', part)) {
        const number = find.within.footnote ?? 0;
        notes.set(number, [...(notes.get(number) ?? []), find]);
      }
      let html = hideInHtml(
        part.html,
        of('text', part).map(({ view: { start, end } }) => ({ start, end })),
      );
      for (const [number, ranges] of notes)
        html = withFootnote(html, number, cut(ranges[0]?.within.text ?? '', ranges));
      return { ...part, html, hidden: hidden.sort((a, b) => a.start - b.start), uploadId: null };
    }),
  };
}

function telling({ view }: LocatedFind): ProblemError {
  return new ProblemError({
    code: 'names-found',
    sentence: say('authorsNameStandsInWhere', { whereWords: view.whereWords }),
    whatToDo: say('takeAnotherDraftOrPaste'),
  });
}
