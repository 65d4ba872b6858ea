/**
 * Selectors of the W3C Web Annotation Data Model (Recommendation, 23 February 2017), sections
 * 4.2.4 (Text Quote Selector) and 4.2.5 (Text Position Selector).
 * https://www.w3.org/TR/annotation-model/#text-quote-selector
 *
 * Positions are UTF-16 code units. The model counts "characters" of the text; code units are what
 * JavaScript strings, and the DOM, count.
 */
export interface TextQuoteSelector {
  readonly type: 'TextQuoteSelector';
  readonly exact: string;
  readonly prefix: string;
  readonly suffix: string;
}

/** `start` is included, `end` is not: the positions between the characters, as in 4.2.5. */
export interface TextPositionSelector {
  readonly type: 'TextPositionSelector';
  readonly start: number;
  readonly end: number;
}

/** The two ways a passage is described, so that either can find it when the other fails. */
export interface TextAnchor {
  readonly quote: TextQuoteSelector;
  readonly position: TextPositionSelector;
}

/** A stretch of text, `start <= end`. */
export interface TextRange {
  readonly start: number;
  readonly end: number;
}
