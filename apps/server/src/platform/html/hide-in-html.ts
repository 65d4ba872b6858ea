import { TextCollector, type TextRange } from '@salt-circle/core';
import { Parser } from 'htmlparser2';
import { escapeHtml } from './escape.js';

/** Stands where something was hidden. */
export const HIDDEN = '[hidden]';

const VOID = new Set(['br', 'hr', 'img']);

/**
 * Replaces passages of cleaned HTML by a mark, whatever elements they run through.
 *
 * @param ranges in UTF-16 code units of the plain text of `html`, in any order; parts outside of it are left aside
 * @param mark stands once for each of them
 */
export function hideInHtml(
  html: string,
  ranges: readonly TextRange[],
  mark: (range: TextRange) => string = () => HIDDEN,
): string {
  if (ranges.length === 0) return html;
  const collector = new TextCollector();
  const out: string[] = [];
  const begun = new Set<TextRange>();
  const parser = new Parser(
    {
      onopentag: (name, attributes) => {
        collector.boundary(name);
        const words = Object.entries(attributes).map(([key, value]) => ` ${key}="${escapeHtml(value)}"`);
        out.push(`<${name}${words.join('')}>`);
      },
      onclosetag: (name) => {
        collector.boundary(name);
        if (!VOID.has(name)) out.push(`</${name}>`);
      },
      ontext: (run) => {
        const placed = collector.text(run);
        out.push(placed === null ? escapeHtml(run) : cut(run, placed, ranges, { begun, mark }));
      },
    },
    { decodeEntities: true },
  );
  parser.write(html);
  parser.end();
  return out.join('');
}

function cut(
  run: string,
  { start, skip }: { readonly start: number; readonly skip: number },
  ranges: readonly TextRange[],
  { begun, mark }: { readonly begun: Set<TextRange>; readonly mark: (range: TextRange) => string },
): string {
  let result = '';
  let at = 0;
  const inRun = ranges
    .map((range) => ({ range, from: range.start - start + skip, to: range.end - start + skip }))
    .filter(({ from, to }) => from < run.length && to > skip)
    .sort((a, b) => a.from - b.from);
  for (const { range, from, to } of inRun) {
    const first = Math.max(from, at, skip);
    result += escapeHtml(run.slice(at, first));
    if (!begun.has(range)) result += escapeHtml(mark(range));
    begun.add(range);
    at = Math.max(at, Math.min(to, run.length));
  }
  return result + escapeHtml(run.slice(at));
}
