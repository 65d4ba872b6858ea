import { useCallback, useEffect, useMemo, useRef } from 'react';
import type { Annotation } from '../../app/reading/useAnnotation.js';

/** What two windows of one desk say to each other. */
type Word = { readonly part: string } | { readonly note: string };

/**
 * The draft may stand in a second window: what is chosen in one of them is chosen in the other. What is written goes by the
 * server, as between any two tabs.
 *
 * @returns the annotation, which tells the other window too
 */
export function useLinkedAnnotation(reviewId: string, annotation: Annotation): Annotation {
  const channel = useRef<BroadcastChannel | null>(null);
  const latest = useRef(annotation);
  useEffect(() => {
    latest.current = annotation;
  });
  useEffect(() => {
    const opened = new BroadcastChannel(`desk ${reviewId}`);
    channel.current = opened;
    opened.onmessage = ({ data }) => {
      const word = data as Word;
      if ('part' in word) latest.current.show(word.part);
      else latest.current.choose(word.note);
    };
    return () => {
      channel.current = null;
      opened.close();
    };
  }, [reviewId]);
  const tell = useCallback((word: Word) => channel.current?.postMessage(word), []);
  return useMemo(
    () => ({
      ...annotation,
      show: (part) => {
        annotation.show(part);
        tell({ part });
      },
      choose: (note) => {
        annotation.choose(note);
        tell({ note });
      },
    }),
    [annotation, tell],
  );
}

/** Opens the draft in a window of its own, or brings the one that is open to the front. */
export function openDraftWindow(reviewId: string): void {
  window.open(`/reviews/${reviewId}/draft`, `draft ${reviewId}`, 'popup,width=900,height=1000')?.focus();
}
