import type { MyDraftView, VersionMeta } from '@salt-circle/contracts';
import type { FormItem } from '@salt-circle/core';
import { useState } from 'react';
import { Dialog, Levels, Loading, Prose, Tabs } from '../../kit/index.js';
import { useNow } from '../../app/time/useNow.js';
import { exactly } from '../../app/time/words.js';
import { useExchange } from '../../app/useExchange.js';
import { useAskedFormQuery, useVersionQuery } from './handInApi.js';

/** Beside the draft: the brief, what reviewers will be asked, and what was handed in. */
export function DraftSide({ draft }: { readonly draft: MyDraftView | null }) {
  const exchange = useExchange();
  const [tab, setTab] = useState('brief');
  return (
    <aside className="border-l border-line bg-crust px-5 py-2 pb-24">
      <Tabs
        label="Beside the draft"
        value={tab}
        onChange={setTab}
        tabs={[
          {
            key: 'brief',
            words: 'Brief',
            content: (
              <div className="pt-3">
                <Prose html={exchange.briefHtml} />
              </div>
            ),
          },
          { key: 'form', words: 'Review form', content: <FormPreview exchangeId={exchange.id} /> },
          ...(draft === null || draft.versions.length === 0
            ? []
            : [
                {
                  key: 'versions',
                  words: `Handed in ${draft.versions.length}`,
                  content: <Versions versions={draft.versions} />,
                },
              ]),
        ]}
      />
    </aside>
  );
}

function FormPreview({ exchangeId }: { readonly exchangeId: string }) {
  const { data } = useAskedFormQuery(exchangeId);
  if (data === undefined) return <Loading what="the form" />;
  return (
    <div className="@container space-y-5 pt-3">
      <p className="text-sm text-ink-soft">Your classmates will review your draft with this form.</p>
      {data.items.map((item) => (
        <PreviewItem key={item.id} item={item} />
      ))}
    </div>
  );
}

function PreviewItem({ item }: { readonly item: FormItem }) {
  return (
    <div>
      <h3 className="font-semibold">{item.title}</h3>
      {item.guidance !== '' && <p className="mb-1 text-sm text-ink-soft">{item.guidance}</p>}
      {item.kind === 'criterion' ? (
        <Levels label={item.title} levels={item.levels} value={null} />
      ) : (
        <p className="rounded border border-line px-2.5 py-2 text-sm text-ink-soft">
          {item.minimumWords > 0 ? `At least ${item.minimumWords} words` : 'Free text'}
          {item.required ? '' : '; may be left out'}
        </p>
      )}
    </div>
  );
}

function Versions({ versions }: { readonly versions: readonly VersionMeta[] }) {
  const { course } = useExchange();
  const now = useNow();
  const [reading, setReading] = useState<number | null>(null);
  return (
    <ol className="pt-3">
      {versions.toReversed().map(({ number, title, words, handedInAt, digest }, index) => (
        <li key={number} className="border-b border-line py-2">
          <p className="font-semibold">
            Version {number} {index === 0 && <span className="font-normal text-kelp">counts</span>}
          </p>
          <p>{title}</p>
          <p className="text-sm text-ink-soft">
            {words} words, {exactly(Date.parse(handedInAt), course.timeZone, now)}
          </p>
          <p className="truncate text-sm text-ink-soft" title={`SHA-256 ${digest}`}>
            digest {digest.slice(0, 16)}…
          </p>
          <button type="button" className="text-dusk underline" onClick={() => setReading(number)}>
            Read
          </button>
        </li>
      ))}
      {reading !== null && <ReadVersion number={reading} onClose={() => setReading(null)} />}
    </ol>
  );
}

function ReadVersion({ number, onClose }: { readonly number: number; readonly onClose: () => void }) {
  const exchange = useExchange();
  const { data } = useVersionQuery({ exchangeId: exchange.id, number });
  return (
    <Dialog
      open
      onClose={onClose}
      title={data === undefined ? `Version ${number}` : `${data.title} (version ${number})`}
      wide
    >
      {data === undefined ? <Loading what="the version" /> : <Prose html={data.html} reading />}
    </Dialog>
  );
}
