import type { AnswerView, DeskView, NoteView } from '@salt-circle/contracts';

type Written = Pick<DeskView, 'answers' | 'notes'>;

/**
 * A desk with what the server has just answered to one save, so that the kept copy of it never lags behind what was saved.
 *
 * @param path of the save, below the review: `answers/<item>` or `notes/<id>`
 * @param saved null for what was removed
 */
export function patchDesk<T extends Written>(desk: T, path: string, saved: unknown): T {
  const [what, id = ''] = path.split('/');
  if (what === 'answers' && saved !== null) return { ...desk, answers: { ...desk.answers, [id]: saved as AnswerView } };
  if (what !== 'notes') return desk;
  const others = desk.notes.filter((note) => note.id !== id);
  return { ...desk, notes: saved === null ? others : [...others, saved as NoteView] };
}
