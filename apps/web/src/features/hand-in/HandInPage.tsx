import type { MyDraftView, VersionMeta } from '@salt-circle/contracts';
import { countWords } from '@salt-circle/core';
import { useState } from 'react';
import { Empty, Loading, RichText } from '../../kit/index.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { Conflict } from '../../app/saving/Conflict.js';
import { useSaver, useSavingState } from '../../app/saving/useSaving.js';
import { useMe } from '../../app/session/useMe.js';
import { saveQueue } from '../../app/store.js';
import { When } from '../../app/time/When.js';
import { useSeeing } from '../../app/seeing/useSeeing.js';
import { useFresh } from '../../app/useFresh.js';
import { useExchange } from '../../app/useExchange.js';
import { DraftSide } from './DraftSide.js';
import { HandInBar } from './HandInBar.js';
import { useMyDraftQuery } from './handInApi.js';
import { plainText } from './plainText.js';

/** Writing the draft, and handing it in. */
export function HandInPage() {
  const exchange = useExchange();
  const query = useMyDraftQuery(exchange.id, { refetchOnMountOrArgChange: true });
  const draft = useFresh(query);
  const opened = exchange.stage !== 'planning';
  if (!opened && exchange.dates.draftsOpen !== null) {
    return (
      <div className="px-5">
        <Empty title="Drafts have not opened yet.">
          <p>
            You can write and hand in from <When at={exchange.dates.draftsOpen} timeZone={exchange.course.timeZone} />.
            The brief is there to read already.
          </p>
        </Empty>
        <DraftSide draft={null} />
      </div>
    );
  }
  if (query.error !== undefined) return <ProblemNotice error={query.error} />;
  if (draft === undefined) return <Loading what="your draft" />;
  return <Writing draft={draft} />;
}

interface Text {
  readonly title: string;
  readonly html: string;
}

function Writing({ draft }: { readonly draft: MyDraftView }) {
  const exchange = useExchange();
  const me = useMe();
  const seeing = useSeeing() !== null;
  const key = `${me.id}:draft:${exchange.id}`;
  const [text, setText] = useState<Text>(() => ({
    title: draft.title,
    html: draft.html,
    ...saveQueue.pending(key)?.body,
  }));
  const [receipt, setReceipt] = useState<VersionMeta | null>(null);
  const save = useSaver(key, `/api/exchanges/${exchange.id}/draft`, draft.revision);
  const saving = useSavingState(key, draft.savedAt);
  const words = countWords(plainText(text.html));
  const theirs = saving.problem?.current as MyDraftView | undefined;
  const change = (part: Partial<Text>) => {
    const next = { ...text, ...part };
    setText(next);
    save({ ...next });
  };
  return (
    <>
      <div className="grid flex-1 grid-cols-1 lg:grid-cols-[1fr_22rem]">
        <div className="min-w-0 px-5 py-4 lg:px-12">
          {saving.state === 'conflict' && saving.problem !== null && theirs !== undefined && (
            <Conflict
              saveKey={key}
              problem={saving.problem}
              revision={theirs.revision}
              theirs={
                <>
                  <p className="font-semibold">{theirs.title}</p>
                  <p>{plainText(theirs.html).slice(0, 600)}</p>
                </>
              }
              onTake={() => setText({ title: theirs.title, html: theirs.html })}
            />
          )}
          <label>
            <span className="sr-only">Title of your draft</span>
            <textarea
              rows={1}
              value={text.title}
              maxLength={200}
              readOnly={seeing}
              placeholder="Title of your draft"
              onChange={(event) => change({ title: event.target.value.replace(/\n/g, ' ') })}
              className="field-sizing-content block w-full max-w-[68ch] resize-none border-b border-transparent bg-transparent font-serif text-2xl font-semibold placeholder:font-normal placeholder:text-ink-soft hover:border-line"
            />
          </label>
          <RichText
            label="Your draft"
            html={text.html}
            reading
            editable={!seeing}
            onChange={(html) => change({ html })}
            aside={<span className="text-sm text-ink-soft">{words === 1 ? '1 word' : `${words} words`}</span>}
          />
          {saving.state === 'refused' && saving.problem !== null && (
            <div className="mt-4">
              <ProblemNotice error={saving.problem} />
            </div>
          )}
        </div>
        <DraftSide draft={draft} />
      </div>
      <HandInBar
        draft={draft}
        text={text}
        words={words}
        saveKey={key}
        saving={saving}
        receipt={receipt}
        onReceipt={setReceipt}
      />
    </>
  );
}
