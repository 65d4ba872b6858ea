import type { NoteKind, NoteView } from '@salt-circle/contracts';
import type { TextAnchor } from '@salt-circle/core';
import { useMemo, useState } from 'react';
import { saveQueue } from '../../app/store.js';

export interface Notes {
  /** In the order of their passages. */
  readonly list: readonly NoteView[];
  readonly add: (kind: NoteKind, anchor: TextAnchor) => string;
  readonly change: (id: string, part: Partial<Pick<NoteView, 'kind' | 'body'>>) => void;
  readonly remove: (id: string) => void;
  /** The note removed last, which can be brought back. */
  readonly removed: NoteView | null;
  readonly bringBack: () => void;
  /** Takes over what the server holds after a conflict; null when it was removed there. */
  readonly replace: (id: string, theirs: NoteView | null) => void;
}

/** Notes as they are on this page, unsent ones of an earlier visit included. */
function startNotes(saved: readonly NoteView[], prefix: string): ReadonlyMap<string, NoteView> {
  const notes = new Map(saved.map((note) => [note.id, note]));
  for (const { key, method, body, revision } of saveQueue.pendingWithPrefix(prefix)) {
    const id = key.slice(prefix.length);
    if (method === 'DELETE') notes.delete(id);
    else notes.set(id, { ...(body as Pick<NoteView, 'kind' | 'body' | 'anchor'>), id, revision });
  }
  return notes;
}

export function useNotes(saved: readonly NoteView[], reviewId: string, prefix: string): Notes {
  const [notes, setNotes] = useState(() => startNotes(saved, prefix));
  const [removed, setRemoved] = useState<NoteView | null>(null);
  const list = useMemo(
    () =>
      [...notes.values()].sort((a, b) => a.anchor.position.start - b.anchor.position.start || (a.id < b.id ? -1 : 1)),
    [notes],
  );
  const put = (note: NoteView) => {
    const { id, kind, body, anchor, revision } = note;
    setNotes((all) => new Map(all).set(id, note));
    saveQueue.put({
      key: prefix + id,
      url: `/api/reviews/${reviewId}/notes/${id}`,
      method: 'PUT',
      body: { kind, body, anchor },
      revision,
    });
  };
  const drop = (id: string) => setNotes((all) => new Map([...all].filter(([key]) => key !== id)));
  return {
    list,
    removed,
    add: (kind, anchor) => {
      const id = crypto.randomUUID();
      put({ id, kind, body: '', anchor, revision: 0 });
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
