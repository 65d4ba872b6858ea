import type { MyDraftView, TextView } from '@salt-circle/contracts';
import { countWords, type Deliverable } from '@salt-circle/core';
import { useCallback } from 'react';
import { RichText } from '../../kit/index.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { Conflict } from '../../app/saving/Conflict.js';
import { useSaver, useSavingState } from '../../app/saving/useSaving.js';
import { ownFetch } from '../../app/ownFetch.js';
import { upload } from '../../app/uploading/upload.js';
import { useExchange } from '../../app/useExchange.js';
import { plainText } from '../../app/reading/plainText.js';
import { SectionHead } from './SectionHead.js';
import { useServerText } from './useServerText.js';
import { say } from '../../words/hand-in.js';

export interface TextSectionProps {
  readonly deliverable: Deliverable;
  readonly draft: MyDraftView;
  readonly heading: boolean;
  readonly number: number;
  readonly saveKey: string;
  readonly editable: boolean;
}

const NOTHING: TextView = { html: '', revision: 0, savedAt: null };

/** A typed text: written or pasted, with pictures, saved as it is typed. */
export function TextSection({ deliverable, draft, heading, number, saveKey, editable }: TextSectionProps) {
  const exchange = useExchange();
  const server = draft.texts[deliverable.id] ?? NOTHING;
  const [{ html }, setText, base] = useServerText(saveKey, { html: server.html }, server.revision);
  const save = useSaver(saveKey, `/api/exchanges/${exchange.id}/draft/texts/${deliverable.id}`, base);
  const saving = useSavingState(saveKey);
  const change = (next: string) => {
    setText({ html: next });
    save({ html: next });
  };
  const words = countWords(plainText(html));
  const theirs = saving.problem?.current as TextView | undefined;
  const picture = useCallback(
    async (file: File): Promise<string> => {
      const { done } = upload(
        file,
        { exchangeId: exchange.id, deliverableId: deliverable.id, use: 'picture' },
        () => {},
      );
      const answer = await ownFetch(`/api/exchanges/${exchange.id}/draft/pictures`, 'POST', { uploadId: await done });
      const told = (await answer.json()) as { address?: string; sentence?: string };
      if (told.address === undefined) throw new Error(told.sentence);
      return told.address;
    },
    [exchange.id, deliverable.id],
  );
  const wordCount = <span className="text-sm text-ink-soft">{say('wordsCounted', { words })}</span>;
  return (
    <section
      aria-label={deliverable.title}
      className={heading ? 'editor-among-others mb-6 border-t border-line pt-4' : ''}
    >
      {heading && <SectionHead deliverable={deliverable} number={number} filled={words > 0} />}
      {saving.state === 'conflict' && saving.problem !== null && theirs != null && (
        <Conflict
          saveKey={saveKey}
          problem={saving.problem}
          revision={theirs.revision}
          theirs={<p>{plainText(theirs.html).slice(0, 600)}</p>}
          onTake={() => setText({ html: theirs.html })}
          onBoth={() => change(html + theirs.html)}
        />
      )}
      <RichText
        label={heading ? deliverable.title : say('yourDraftLabel')}
        html={html}
        reading
        editable={editable}
        onPicture={picture}
        onChange={change}
        aside={wordCount}
      />
      {saving.state === 'refused' && saving.problem !== null && (
        <div className="mt-4">
          <ProblemNotice error={saving.problem} />
        </div>
      )}
    </section>
  );
}
