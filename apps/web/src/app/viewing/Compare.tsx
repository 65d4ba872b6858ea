import { counted, type ComparedPart } from '@salt-circle/core';
import { useRef } from 'react';
import { Loading, Notice } from '../../kit/index.js';
import { useCompared } from './useCompared.js';

function told(changed: number): string {
  if (changed === 0) return 'The words are the same.';
  return counted(changed, 'One passage differs.', '# passages differ.');
}

/** Two texts as one: what went is struck through, what came is underlined. */
export function Compare({ before, after }: { readonly before: string; readonly after: string }) {
  const compared = useCompared(before, after);
  if (compared.state === 'working') return <Loading what="the comparison" />;
  if (compared.state === 'given-up') {
    return (
      <Notice tone="waiting">These two texts are too long to be compared here. Read them one after the other.</Notice>
    );
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
        {told(changed)} <del className="text-madder">taken out</del>, <ins className="text-kelp">put in</ins>
        {changed > 0 && (
          <button type="button" className="ml-3 text-dusk underline" onClick={next}>
            To the next one
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
