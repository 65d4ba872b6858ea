import type { DeskView, NoteView } from '@salt-circle/contracts';
import { counted, OVERALL_ID, submitFacts, TELLING_WORDS, type Answer, type FactPart } from '@salt-circle/core';
import type { ReactNode } from 'react';
import { plainText } from '../../app/reading/plainText.js';
import { isText } from '../../app/reading/useAnnotation.js';
import { partLabel } from '../../app/viewing/partWords.js';
import { Button } from '../../kit/index.js';
import { useNamesInReviewQuery } from './deskApi.js';
import { namesWords } from './namesWords.js';

export interface BeforeSubmitProps {
  readonly desk: Pick<DeskView, 'id' | 'form' | 'draft' | 'self'>;
  readonly answers: Readonly<Record<string, Answer | undefined>>;
  readonly notes: readonly NoteView[];
  readonly busy: boolean;
  readonly words: string;
  readonly onSubmit: () => void;
  readonly onJump: (itemId: string) => void;
  readonly onClose: () => void;
}

/** Three facts about the review, without a grade; the reviewer goes on or looks again. */
export function BeforeSubmit({ desk, answers, notes, busy, words, onSubmit, onJump, onClose }: BeforeSubmitProps) {
  const { form, draft } = desk;
  const facts = submitFacts(form, answers, notes, draft.parts.map(factPart));
  const names = useNamesInReviewQuery(desk.id, { refetchOnMountOrArgChange: true });
  const partNames = (ids: readonly string[]) =>
    draft.parts
      .filter(({ id }) => ids.includes(id))
      .map((part) => partLabel(part, draft.parts))
      .join(', ');
  return (
    <div className="space-y-4">
      <dl className="space-y-3">
        <Fact title="What to do next">
          {facts.notes === 0
            ? 'There are no notes on the draft.'
            : `${counted(facts.telling, '1 note says', '# notes say')} what to do, of ${facts.notes} in all: a Change or Fix with a proposed edit, or with ${TELLING_WORDS} words or more.`}
        </Fact>
        <Fact title="Nothing said about">
          {facts.silentItems.length + facts.silentParts.length + facts.halfSilentParts.length === 0 &&
            'Every item and every part has a word on it.'}
          {facts.silentItems.length > 0 && (
            <ul>
              {facts.silentItems.map((id) => (
                <li key={id}>
                  <button type="button" className="min-h-6 text-left text-dusk underline" onClick={() => onJump(id)}>
                    {id === OVERALL_ID ? 'Overall comment' : form.items.find((item) => item.id === id)?.title}
                  </button>
                </li>
              ))}
            </ul>
          )}
          {facts.silentParts.length > 0 && <p>No note stands on: {partNames(facts.silentParts)}.</p>}
          {facts.halfSilentParts.length > 0 && (
            <p>
              No note stands on the second half of:{' '}
              {draft.parts.length === 1 ? 'the draft' : partNames(facts.halfSilentParts)}.
            </p>
          )}
        </Fact>
        <Fact title="Names">
          {names.isFetching ? 'Being looked for…' : namesWords(names.isError ? undefined : names.data, desk.self)}
        </Fact>
      </dl>
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>Look again</Button>
        <Button look="primary" busy={busy} onClick={onSubmit}>
          {words}
        </Button>
      </div>
    </div>
  );
}

function Fact({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <div>
      <dt className="font-semibold">{title}</dt>
      <dd>{children}</dd>
    </div>
  );
}

function factPart(part: DeskView['draft']['parts'][number]): FactPart {
  const { id, show, facts } = part;
  return {
    id,
    textLength: isText(part) ? plainText(part.html ?? '').length : null,
    pages: show === 'pdf' ? (facts.pages ?? null) : null,
    seconds: facts.seconds ?? null,
  };
}
