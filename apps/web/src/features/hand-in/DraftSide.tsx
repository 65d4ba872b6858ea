import type { MyDraftView, VersionMeta } from '@salt-circle/contracts';
import { useState } from 'react';
import { Loading, Prose, Tabs } from '../../kit/index.js';
import { Attachments } from '../../app/attachments/Attachments.js';
import { FormPreview } from '../../app/form/FormPreview.js';
import { When } from '../../app/time/When.js';
import { useExchange } from '../../app/useExchange.js';
import { deliverableWords, gradeWords, lateInWords, lateWords } from '@salt-circle/core';
import { useAskedFormQuery } from './handInApi.js';
import { ReadVersion } from './ReadVersion.js';
import { say } from '../../words/hand-in.js';

/** Beside the draft: the brief, what reviewers will be asked, and what was handed in. */
export function DraftSide({ draft }: { readonly draft: MyDraftView | null }) {
  const exchange = useExchange();
  const [tab, setTab] = useState('brief');
  return (
    <aside className="border-l border-line bg-crust px-5 py-2 pb-24">
      <div className="lg:sticky lg:top-2 lg:max-h-[calc(100vh-6rem)] lg:overflow-y-auto">
        <Tabs
          label={say('besideDraft')}
          value={tab}
          onChange={setTab}
          tabs={[
            {
              key: 'brief',
              words: say('brief'),
              content: (
                <div className="pt-3">
                  <Prose html={exchange.briefHtml} />
                  <Attachments exchangeId={exchange.id} attachments={exchange.attachments} place="brief" />
                  <WhatIsAsked />
                </div>
              ),
            },
            { key: 'form', words: say('reviewForm'), content: <AskedForm exchangeId={exchange.id} /> },
            ...(draft === null || draft.versions.length === 0
              ? []
              : [
                  {
                    key: 'versions',
                    words: say('handedIn', { versions: draft.versions.length }),
                    content: <Versions versions={draft.versions} />,
                  },
                ]),
          ]}
        />
      </div>
    </aside>
  );
}

function AskedForm({ exchangeId }: { readonly exchangeId: string }) {
  const { data } = useAskedFormQuery(exchangeId);
  if (data === undefined) return <Loading what={say('form')} />;
  return (
    <div className="space-y-5 pt-3">
      <p className="text-sm text-ink-soft">{say('yourClassmatesWillReviewYour')}</p>
      <FormPreview form={data} />
    </div>
  );
}

/** What a hand-in contains, what being late costs, and what the grade is made of. */
function WhatIsAsked() {
  const { deliverables, late, gradeParts } = useExchange();
  return (
    <div className="mt-4 space-y-4 border-t border-line pt-3">
      {deliverables.length > 1 && (
        <section>
          <h3 className="font-semibold">{say('handInContains')}</h3>
          <ul className="list-disc pl-5">
            {deliverables.map((one) => (
              <li key={one.id}>
                {deliverableWords(one)}
                {one.description !== '' && <span className="block text-sm text-ink-soft">{one.description}</span>}
              </li>
            ))}
          </ul>
        </section>
      )}
      {late !== null && <p>{lateWords(late)}</p>}
      {gradeParts.length > 0 && <p>{gradeWords(gradeParts)}</p>}
    </div>
  );
}

function Versions({ versions }: { readonly versions: readonly VersionMeta[] }) {
  const { course } = useExchange();
  const [reading, setReading] = useState<number | null>(null);
  const counting = versions.findLast(({ withdrawn }) => !withdrawn);
  return (
    <ol className="pt-3">
      {versions.toReversed().map(({ number, title, words, handedInAt, handedInBy, digest, late, withdrawn }) => (
        <li key={number} className="border-b border-line py-2">
          <p className="font-semibold">
            {say('version', { number })}{' '}
            {number === counting?.number && <span className="font-normal text-kelp">{say('counts')}</span>}
            {withdrawn && <span className="font-normal text-ink-soft">{say('takenBack')}</span>}
          </p>
          <p>{title}</p>
          <p className="text-sm text-ink-soft">
            {handedInBy !== null
              ? say('wordsBy', { words, when: <When at={handedInAt} timeZone={course.timeZone} />, handedInBy })
              : say('words', { words, when: <When at={handedInAt} timeZone={course.timeZone} /> })}
          </p>
          {late !== null && <p className="text-sm text-madder">{lateInWords(late)}</p>}
          <p className="truncate text-sm text-ink-soft" title={say('sha256', { digest })}>
            {say('digest', { digest: digest.slice(0, 16) })}
          </p>
          <button type="button" className="text-dusk underline" onClick={() => setReading(number)}>
            {say('read')}
          </button>
        </li>
      ))}
      {reading !== null && <ReadVersion number={reading} versions={versions} onClose={() => setReading(null)} />}
    </ol>
  );
}
