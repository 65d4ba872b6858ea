import type { DeskView, NoteView } from '@salt-circle/contracts';
import { OVERALL_ID, submitFacts, TELLING_WORDS, type Answer, type FactPart } from '@salt-circle/core';
import type { ReactNode } from 'react';
import { plainText } from '../../app/reading/plainText.js';
import { useUnattached } from '../../app/recording/useUnattached.js';
import { isText } from '../../app/reading/useAnnotation.js';
import { partLabel } from '../../app/viewing/partWords.js';
import { Button } from '../../kit/index.js';
import { useNamesInReviewQuery } from './deskApi.js';
import { namesWords } from './namesWords.js';
import { say } from '../../words/desk.js';

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
  const recordings = useUnattached(`remark:${desk.id}:`);
  const partNames = (ids: readonly string[]) =>
    draft.parts
      .filter(({ id }) => ids.includes(id))
      .map((part) => partLabel(part, draft.parts))
      .join(', ');
  return (
    <div className="space-y-4">
      <dl className="space-y-3">
        <Fact title={say('whatToDoNext')}>
          {facts.notes === 0
            ? say('thereAreNoNotesOn')
            : say('notesSayWhatToDo', { telling: facts.telling, notes: facts.notes, tellingwords: TELLING_WORDS })}
        </Fact>
        <Fact title={say('nothingSaidAbout')}>
          {facts.silentItems.length + facts.silentParts.length + facts.halfSilentParts.length === 0 &&
            say('everyItemAndEveryPart')}
          {facts.silentItems.length > 0 && (
            <ul>
              {facts.silentItems.map((id) => (
                <li key={id}>
                  <button type="button" className="min-h-6 text-left text-dusk underline" onClick={() => onJump(id)}>
                    {id === OVERALL_ID ? say('overallComment') : form.items.find((item) => item.id === id)?.title}
                  </button>
                </li>
              ))}
            </ul>
          )}
          {facts.silentParts.length > 0 && <p>{say('noNoteStandsOn', { partNames: partNames(facts.silentParts) })}</p>}
          {facts.halfSilentParts.length > 0 && (
            <p>
              {say('noNoteStandsOnSecond', {
                partNames: draft.parts.length === 1 ? say('draft') : partNames(facts.halfSilentParts),
              })}
            </p>
          )}
        </Fact>
        {recordings > 0 && (
          <Fact title={say('recordings')}>
            <span className="text-copper">{say('recordingsUnattached', { recordings })}</span>
          </Fact>
        )}
        <Fact title={say('names')}>
          {names.isFetching ? say('beingLookedFor') : namesWords(names.isError ? undefined : names.data, desk.self)}
        </Fact>
      </dl>
      <div className="flex justify-end gap-2">
        <Button onClick={onClose}>{say('lookAgain')}</Button>
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
