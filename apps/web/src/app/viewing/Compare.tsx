import { type ComparedPart } from '@salt-circle/core';
import { useRef } from 'react';
import { Loading, Notice } from '../../kit/index.js';
import { useCompared } from './useCompared.js';
import { say } from '../../words/app.js';

function told(changed: number): string {
  if (changed === 0) return say('wordsAreSame');
  return say('passagesDiffer', { changed });
}

/** Two texts as one: what went is struck through, what came is underlined. */
export function Compare({ before, after }: { readonly before: string; readonly after: string }) {
  const compared = useCompared(before, after);
  if (compared.state === 'working') return <Loading what={say('comparison')} />;
  if (compared.state === 'given-up') {
    return <Notice tone="waiting">{say('theseTwoTextsAreToo')}</Notice>;
  }
  return <AsOne parts={compared.parts} />;
}

const MARKS = { out: ['del', 'text-madder'], in: ['ins', 'text-kelp'], same: ['span', undefined] } as const;

function AsOne({ parts }: { readonly parts: readonly ComparedPart[] }) {
  const changed = parts.filter(({ change }) => change !== 'same').length;
  const root = useRef<HTMLDivElement>(null);
  const at = useRef(0);
  const next = () => {
    const all = root.current?.querySelectorAll('ins, del');
    if (all === undefined || all.length === 0) return;
    all[at.current % all.length]?.scrollIntoView({ block: 'center' });
    at.current += 1;
  };
  return (
    <div>
      <p className="mb-2 text-sm text-ink-soft" role="status">
        {say('putInAndTaken', {
          told: told(changed),
          out: (words) => <del className="text-madder">{words}</del>,
          in: (words) => <ins className="text-kelp">{words}</ins>,
        })}
        {changed > 0 && (
          <button type="button" className="ml-3 text-dusk underline" onClick={next}>
            {say('toNextOne')}
          </button>
        )}
      </p>
      <div ref={root} className="prose-reading font-serif whitespace-pre-wrap">
        {parts.map(({ text, change }, index) => {
          const [Mark, className] = MARKS[change];
          return (
            <Mark key={index} className={className}>
              {text}
            </Mark>
          );
        })}
      </div>
    </div>
  );
}
