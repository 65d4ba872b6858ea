import type { MyDraftView } from '@salt-circle/contracts';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { Conflict } from '../../app/saving/Conflict.js';
import { useSaver, useSavingState } from '../../app/saving/useSaving.js';
import { useExchange } from '../../app/useExchange.js';
import { useServerText } from './useServerText.js';
import { say } from '../../words/hand-in.js';

interface Head {
  readonly title: string;
  readonly context: string;
}

export interface DraftHeadProps {
  readonly draft: MyDraftView;
  readonly saveKey: string;
  readonly editable: boolean;
}

/** Title of the draft, and a few words for its reviewers. */
export function DraftHead({ draft, saveKey, editable }: DraftHeadProps) {
  const exchange = useExchange();
  const server: Head = { title: draft.title, context: draft.context };
  const [head, setHead, base] = useServerText<Head>(saveKey, server, draft.revision);
  const save = useSaver(saveKey, `/api/exchanges/${exchange.id}/draft`, base);
  const saving = useSavingState(saveKey);
  const theirs = saving.problem?.current as MyDraftView | undefined;
  const change = (part: Partial<Head>) => {
    const next = { ...head, ...part };
    setHead(next);
    save({ ...next });
  };
  return (
    <div className="mb-4">
      {saving.state === 'conflict' && saving.problem !== null && theirs !== undefined && (
        <Conflict
          saveKey={saveKey}
          problem={saving.problem}
          revision={theirs.revision}
          theirs={
            <>
              <p className="font-semibold">{theirs.title}</p>
              <p>{theirs.context}</p>
            </>
          }
          onTake={() => setHead({ title: theirs.title, context: theirs.context })}
        />
      )}
      <label>
        <span className="sr-only">{say('titleOfYourDraft')}</span>
        <textarea
          rows={1}
          value={head.title}
          maxLength={200}
          readOnly={!editable}
          placeholder={say('titleOfYourDraft')}
          onChange={(event) => change({ title: event.target.value.replace(/\n/g, ' ') })}
          className="field-sizing-content block w-full max-w-[68ch] resize-none border-b border-transparent bg-transparent font-serif text-2xl font-semibold placeholder:font-normal placeholder:text-ink-soft hover:border-line"
        />
      </label>
      <label className="mt-1 block max-w-[68ch]">
        <span className="sr-only">{say('fewWordsForYourReviewers')}</span>
        <textarea
          rows={1}
          value={head.context}
          maxLength={2000}
          readOnly={!editable}
          placeholder={say('fewWordsForYourReviewersIf')}
          onChange={(event) => change({ context: event.target.value })}
          className="field-sizing-content block w-full resize-none border-b border-line bg-transparent pb-1 text-ink-soft placeholder:text-ink-soft focus:text-ink"
        />
      </label>
      {saving.state === 'refused' && saving.problem !== null && <ProblemNotice error={saving.problem} />}
    </div>
  );
}
