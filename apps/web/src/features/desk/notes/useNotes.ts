import type { DraftReading, NoteKind, NoteView } from '@salt-circle/contracts';
import { comparePlaces, type Place, type TextAnchor } from '@salt-circle/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { isText } from '../../../app/reading/useAnnotation.js';
import { saveQueue } from '../../../app/store.js';

export interface Notes {
  /** In the order of their places. */
  readonly list: readonly NoteView[];
  readonly add: (kind: NoteKind, place: Place, body?: string) => string;
  readonly change: (id: string, part: Partial<Pick<NoteView, 'kind' | 'body' | 'place' | 'edit' | 'itemId'>>) => void;
  readonly remove: (id: string) => void;
  /** The note removed last, which can be brought back. */
  readonly removed: NoteView | null;
  readonly bringBack: () => void;
  /** Takes over what the server holds after a conflict; null when it was removed there. */
  readonly replace: (id: string, theirs: NoteView | null) => void;
}

type Draft = Pick<DraftReading, 'version' | 'parts'>;
type Kept = Pick<NoteView, 'kind' | 'body'> &
  Partial<Pick<NoteView, 'place' | 'edit' | 'itemId'>> & { readonly anchor?: TextAnchor };

/**
 * The place of a note that waits in this browser to be sent. Before notes had places, they stood on the first text of
 * the draft.
 */
function placeOf({ place, anchor }: Kept, { version, parts }: Draft): NoteView['place'] | null {
  if (place !== undefined) return place;
  const text = parts.find(isText);
  if (anchor === undefined || text === undefined) return null;
  return { version, partId: text.id, selector: { type: 'text', ...anchor } };
}

/** Notes as they are on this page, unsent ones of an earlier visit included. */
function startNotes(saved: readonly NoteView[], prefix: string, draft: Draft): ReadonlyMap<string, NoteView> {
  const notes = new Map(saved.map((note) => [note.id, note]));
  for (const { key, method, body, revision } of saveQueue.pendingWithPrefix(prefix)) {
    const id = key.slice(prefix.length);
    const { kind, body: words, edit = null, itemId = null } = body as Kept;
    const place = placeOf(body as Kept, draft);
    if (method === 'DELETE') notes.delete(id);
    else if (place !== null) notes.set(id, { id, kind, body: words, place, edit, itemId, revision });
  }
  return notes;
}

/** Notes of which the server would not know what to do with what is kept here. */
function keptByOlderPages(prefix: string, draft: Draft): NoteView[] {
  const kept = startNotes([], prefix, draft);
  return saveQueue.pendingWithPrefix(prefix).flatMap(({ key, method, body }) => {
    const note = kept.get(key.slice(prefix.length));
    return method === 'PUT' && 'anchor' in body && note !== undefined ? [note] : [];
  });
}

interface Theirs {
  readonly saved: readonly NoteView[];
  /** Ids of notes that are no longer there. */
  readonly gone: readonly string[];
  readonly prefix: string;
}

/** The notes with what another tab or device has saved since; what is typed here and not yet sent stays as it is. */
function withTheirs(
  all: ReadonlyMap<string, NoteView>,
  { saved, gone, prefix }: Theirs,
): ReadonlyMap<string, NoteView> {
  const open = (id: string) => saveQueue.pending(prefix + id) === null;
  const newer = saved.filter(({ id, revision }) => {
    const mine = all.get(id);
    return open(id) && revision > saveQueue.revision(prefix + id, mine?.revision ?? 0);
  });
  const left = gone.filter((id) => open(id) && all.has(id));
  if (newer.length === 0 && left.length === 0) return all;
  const next = new Map(all);
  for (const note of newer) next.set(note.id, note);
  for (const id of left) next.delete(id);
  return next;
}

function send({ id, kind, body, place, edit, itemId, revision }: NoteView, reviewId: string, prefix: string): void {
  saveQueue.put({
    key: prefix + id,
    url: `/api/reviews/${reviewId}/notes/${id}`,
    method: 'PUT',
    body: { kind, body, place, edit, itemId },
    revision,
  });
}

export function useNotes(saved: readonly NoteView[], reviewId: string, prefix: string, draft: Draft): Notes {
  const [notes, setNotes] = useState(() => startNotes(saved, prefix, draft));
  const [removed, setRemoved] = useState<NoteView | null>(null);
  const { parts, version } = draft;
  const list = useMemo(() => {
    const byPlace = comparePlaces(parts.map(({ id }) => id));
    return [...notes.values()].sort((a, b) => byPlace(a.place, b.place) || (a.id < b.id ? -1 : 1));
  }, [notes, parts]);
  const [outdated] = useState(() => keptByOlderPages(prefix, draft));
  useEffect(() => {
    for (const note of outdated) send(note, reviewId, prefix);
  }, [outdated, reviewId, prefix]);
  const told = useRef(new Set(saved.map(({ id }) => id)));
  useEffect(() => {
    // Gone elsewhere is what the server told of before and no longer does; what is on its way here it cannot tell of yet.
    const gone = [...told.current].filter((id) => !saved.some((note) => note.id === id));
    told.current = new Set(saved.map(({ id }) => id));
    setNotes((all) => withTheirs(all, { saved, gone, prefix }));
  }, [saved, prefix]);
  const put = (note: NoteView) => {
    setNotes((all) => new Map(all).set(note.id, note));
    send(note, reviewId, prefix);
  };
  const drop = (id: string) => setNotes((all) => new Map([...all].filter(([key]) => key !== id)));
  return {
    list,
    removed,
    add: (kind, place, body = '') => {
      const id = crypto.randomUUID();
      put({ id, kind, body, place: { version, ...place }, edit: null, itemId: null, revision: 0 });
      return id;
    },
    change: (id, part) => {
      const note = notes.get(id);
      if (note !== undefined) put({ ...note, ...part });
    },
    remove: (id) => {
      const note = notes.get(id);
      if (note === undefined) return;
      drop(id);
      setRemoved(note);
      saveQueue.put({
        key: prefix + id,
        url: `/api/reviews/${reviewId}/notes/${id}`,
        method: 'DELETE',
        body: {},
        revision: note.revision,
      });
    },
    bringBack: () => {
      // On the server it may be gone by now, and then begins anew.
      if (removed !== null) put({ ...removed, revision: 0 });
      setRemoved(null);
    },
    replace: (id, theirs) => {
      if (theirs === null) drop(id);
      else setNotes((all) => new Map(all).set(id, theirs));
    },
  };
}

/** A note without a word and without a proposal is not counted, and nobody else reads it. */
export function saysSomething({ body, edit }: Pick<NoteView, 'body' | 'edit'>): boolean {
  return body.trim() !== '' || edit !== null;
}
