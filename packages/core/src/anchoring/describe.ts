import { MisuseError } from '../problem.js';
import type { TextAnchor, TextRange } from './selectors.js';

/** Enough to tell repeated phrases apart in prose; the specification leaves the length open. */
export const CONTEXT_LENGTH = 32;

/**
 * Describes a passage of `text` by its words with some of what stands around it, and by its position.
 * Context is cut so that no surrogate pair is split.
 *
 * @throws MisuseError when the range is empty or not inside the text
 */
export function describeTextAnchor(text: string, range: TextRange): TextAnchor {
  const { start, end } = range;
  if (!(start >= 0 && end <= text.length && start < end)) {
    throw new MisuseError(
      'range-invalid',
      `The range ${start} to ${end} is not a passage of a text of ${text.length}.`,
      {
        start,
        end,
        length: text.length,
      },
    );
  }
  const from = wholeCharacter(text, Math.max(0, start - CONTEXT_LENGTH), 1);
  const to = wholeCharacter(text, Math.min(text.length, end + CONTEXT_LENGTH), -1);
  return {
    quote: {
      type: 'TextQuoteSelector',
      exact: text.slice(start, end),
      prefix: text.slice(Math.min(from, start), start),
      suffix: text.slice(end, Math.max(to, end)),
    },
    position: { type: 'TextPositionSelector', start, end },
  };
}

function wholeCharacter(text: string, at: number, step: 1 | -1): number {
  const code = text.charCodeAt(at);
  const insidePair = at > 0 && code >= 0xdc00 && code <= 0xdfff;
  return insidePair ? at + step : at;
}
