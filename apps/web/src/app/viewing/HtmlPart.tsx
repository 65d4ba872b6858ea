import { useMemo, useRef } from 'react';
import { Prose } from '../../kit/index.js';
import { say } from '../../words/app.js';

interface Heading {
  readonly text: string;
  readonly level: number;
}

/** Fewer headings need no outline. */
const WORTH_AN_OUTLINE = 3;

/** A text to read, with its headings as an outline that leads to them. */
export function HtmlPart({ html }: { readonly html: string }) {
  const root = useRef<HTMLDivElement>(null);
  const headings = useMemo(() => headingsOf(html), [html]);
  const go = (index: number) => {
    const heading = root.current?.querySelectorAll<HTMLElement>('h1, h2, h3, h4')[index];
    heading?.scrollIntoView({ block: 'start' });
  };
  return (
    <div className="@container">
      {headings.length >= WORTH_AN_OUTLINE && (
        <details className="mb-4 border-b border-line pb-2 text-sm">
          <summary className="cursor-pointer text-ink-soft">
            {say('outlineHeadings', { headings: headings.length })}
          </summary>
          <ol className="mt-1">
            {headings.map(({ text, level }, index) => (
              <li key={index} style={{ paddingLeft: `${(level - 1) * 0.9}rem` }}>
                <button type="button" className="text-left text-dusk hover:underline" onClick={() => go(index)}>
                  {text}
                </button>
              </li>
            ))}
          </ol>
        </details>
      )}
      <div ref={root}>
        <Prose html={html} reading />
      </div>
    </div>
  );
}

function headingsOf(html: string): Heading[] {
  const page = new DOMParser().parseFromString(html, 'text/html');
  return [...page.querySelectorAll('h1, h2, h3, h4')].map((one) => ({
    text: one.textContent.trim(),
    level: Number(one.tagName.slice(1)),
  }));
}
