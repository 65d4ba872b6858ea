import { diffWordsWithSpace } from 'diff';
import { useMemo } from 'react';

/** Two texts as one: what went is struck through, what came is underlined. Word by word. */
export function Compare({ before, after }: { readonly before: string; readonly after: string }) {
  const parts = useMemo(() => diffWordsWithSpace(before, after), [before, after]);
  const changed = parts.filter(({ added, removed }) => added || removed).length;
  return (
    <div>
      <p className="mb-2 text-sm text-ink-soft" role="status">
        {changed === 0 ? 'The words are the same.' : `${changed} passages differ.`}{' '}
        <del className="text-madder">taken out</del>, <ins className="text-kelp">put in</ins>
      </p>
      <div className="prose-reading font-serif whitespace-pre-wrap">
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
