import type { DraftReading, NoteView } from '@salt-circle/contracts';
import type { AnchorMatch } from '@salt-circle/core';
import { useCallback, useState } from 'react';
import type { DraftLayout } from './DraftText.js';

export type PlacedNote = Pick<NoteView, 'id' | 'kind' | 'place'> & Partial<Pick<NoteView, 'edit'>>;

/** Which part of a draft is shown with its notes, how its text lies, and which note is chosen. */
export interface Annotation {
  /** The part that is shown. */
  readonly partId: string | null;
  readonly show: (partId: string) => void;
  readonly activeId: string | null;
  readonly release: () => void;
  /** Chooses a note, and shows the part that it stands on. */
  readonly choose: (id: string) => void;
  /** Of the shown part, where it is a text that has been laid out. */
  readonly layout: DraftLayout | null;
  readonly onLayout: (partId: string, layout: DraftLayout) => void;
  /** How a passage was found again; undefined for parts that have not been shown yet. */
  readonly match: (id: string) => AnchorMatch | undefined;
}

export function isText({ show, html }: DraftReading['parts'][number]): boolean {
  return show === 'html' && html !== null;
}

/** Begins with the first text: that is where most notes are. */
export function useAnnotation({ parts }: Pick<DraftReading, 'parts'>, notes: readonly PlacedNote[]): Annotation {
  const [partId, setPartId] = useState<string | null>(() => (parts.find(isText) ?? parts[0])?.id ?? null);
  const [activeId, setActiveId] = useState<string | null>(null);
  const [layouts, setLayouts] = useState<ReadonlyMap<string, DraftLayout>>(new Map());
  const onLayout = useCallback(
    (of: string, layout: DraftLayout) => setLayouts((all) => new Map(all).set(of, layout)),
    [],
  );
  return {
    partId,
    show: setPartId,
    activeId,
    release: () => setActiveId(null),
    choose: (id) => {
      setActiveId(id);
      const on = notes.find((note) => note.id === id)?.place.partId ?? null;
      if (on !== null && parts.some((part) => part.id === on)) setPartId(on);
    },
    layout: layouts.get(partId ?? '') ?? null,
    onLayout,
    match: (id) => {
      for (const { matches } of layouts.values()) if (matches.has(id)) return matches.get(id);
      return undefined;
    },
  };
}
