import type { AnswerView, NoteView } from '@salt-circle/contracts';
import { patchDesk } from './patchDesk.js';

const answer = (text: string): AnswerView => ({
  levelId: null,
  text,
  next: '',
  value: null,
  checks: {},
  choices: [],
  revision: 1,
});
const note = (id: string, body = ''): NoteView => ({
  id,
  kind: 'ask',
  body,
  place: { version: 1, partId: null, selector: { type: 'whole' } },
  edit: null,
  itemId: null,
  revision: 1,
});
const DESK = { title: 'kept', answers: { a: answer('old') }, notes: [note('n'), note('m')] };

describe('a kept desk', () => {
  it('has what was saved since, and all the rest as it was', () => {
    expect(patchDesk(DESK, 'answers/b', answer('new'))).toEqual({
      ...DESK,
      answers: { a: answer('old'), b: answer('new') },
    });
    expect(patchDesk(DESK, 'notes/n', note('n', 'How?')).notes).toEqual([note('m'), note('n', 'How?')]);
    expect(patchDesk(DESK, 'notes/o', note('o')).notes).toHaveLength(3);
    expect(patchDesk(DESK, 'notes/n', null).notes).toEqual([note('m')]);
  });

  it('stays as it is for what it has no place for', () => {
    expect(patchDesk(DESK, 'submit', null)).toBe(DESK);
    expect(patchDesk(DESK, 'answers/a', null)).toBe(DESK);
    expect(DESK.notes).toHaveLength(2);
  });
});
