import { diffWordsWithSpace } from 'diff';
import { useMemo, useRef } from 'react';

function told(changed: number): string {
  if (changed === 0) return 'The words are the same.';
  return changed === 1 ? 'One passage differs.' : `${changed} passages differ.`;
}

/** Two texts as one: what went is struck through, what came is underlined. Word by word. */
export function Compare({ before, after }: { readonly before: string; readonly after: string }) {
  const parts = useMemo(() => diffWordsWithSpace(before, after), [before, after]);
  const changed = parts.filter(({ added, removed }) => added || removed).length;
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
        {parts.map(({ value, added, removed }, index) => {
          if (added) {
            return (
              <ins key={index} className="text-kelp">
                {value}
              </ins>
            );
          }
          return removed ? (
            <del key={index} className="text-madder">
              {value}
            </del>
          ) : (
            <span key={index}>{value}</span>
          );
        })}
      </div>
    </div>
  );
}
