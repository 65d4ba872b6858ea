import { createElement, Fragment, type ReactNode } from 'react';
import { partsFor, type Catalogue, type Filling, type Slots } from '@salt-circle/core';

/** Text where the slots hold texts and numbers, else something to show. */
type Said<Given extends readonly unknown[]> = Given extends readonly [infer Of]
  ? Of[keyof Of] extends string | number
    ? string
    : ReactNode
  : string;

/** Says a sentence of an area. Slots may hold what can be shown; around the words of a tag goes what its function makes. */
export type SayHere<C extends Catalogue> = <
  Key extends keyof C & string,
  const Given extends Filling<Slots<C[Key], ReactNode, ReactNode>>,
>(
  key: Key,
  ...slots: Given
) => Said<Given>;

/** The sentences of an area, and with them what says them: text, or what is to be shown where a slot holds more than text. */
export function sentences<const C extends Catalogue>(area: string, english: C): SayHere<C> {
  const partsOf = partsFor(area, english);
  const say = (key: string, slots?: Readonly<Record<string, unknown>>): ReactNode => {
    const parts = partsOf<ReactNode>(key, slots && wrapping(slots));
    // As children of their own, so that none wants a key.
    return parts.every((part) => typeof part === 'string') ? parts.join('') : createElement(Fragment, null, ...parts);
  };
  return say as SayHere<C>;
}

/** Functions are given the words of their tag as one thing to show. */
function wrapping(slots: Readonly<Record<string, unknown>>): Readonly<Record<string, unknown>> {
  return Object.fromEntries(
    Object.entries(slots).map(([name, slot]) => [
      name,
      typeof slot === 'function'
        ? (words: ReactNode[]) => (slot as (words: ReactNode) => ReactNode)(createElement(Fragment, null, ...words))
        : slot,
    ]),
  );
}
