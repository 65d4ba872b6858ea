import { hits, type Box, type Point } from '@salt-circle/core';
import { KIND_BORDER, KIND_FILL, kindWord } from '../noteKinds.js';
import { noteDomId } from '../passages.js';
import type { PlacedNote } from '../useAnnotation.js';
import { say } from '../../../words/app.js';

export interface BoxedNote extends Pick<PlacedNote, 'id' | 'kind'> {
  /** Where it is on its page or picture, in shares of it; a passage has one for each line. */
  readonly boxes: readonly Box[];
  /** Words are underlined, regions are framed. */
  readonly words: boolean;
  /** What it is called for those who hear it. */
  readonly where: string;
}

interface BoxMarksProps {
  readonly notes: readonly BoxedNote[];
  readonly activeId: string | null;
  readonly onChoose: (id: string) => void;
}

/** Shares of the page within which a point is still hit. */
const REACH = 0.025;

/** Notes at a point of a page, the smallest first: they can lie over one another. */
export function boxedAt(notes: readonly BoxedNote[], at: Point): string[] {
  const size = ({ boxes }: BoxedNote) => boxes.reduce((sum, { width, height }) => sum + width * height, 0);
  return notes
    .filter(({ boxes }) => boxes.some((box) => hits(box, at, REACH)))
    .sort((a, b) => size(a) - size(b))
    .map(({ id }) => id);
}

/** The one to go on to, where several lie under a press: each press goes to the next. */
export function nextOf(ids: readonly string[], activeId: string | null): string | undefined {
  return ids[(ids.indexOf(activeId ?? '') + 1) % ids.length];
}

/**
 * Notes drawn over a page or a picture. They take no press themselves, so that words under them can be selected; whoever lays them
 * there asks `boxedAt`. Each can be reached by Tab.
 */
export function BoxMarks({ notes, activeId, onChoose }: BoxMarksProps) {
  return (
    <div className="pointer-events-none absolute inset-0">
      {notes.map((note) =>
        note.boxes.map((box, index) => (
          <Mark
            key={`${note.id} ${index}`}
            note={note}
            box={box}
            first={index === 0}
            active={note.id === activeId}
            onChoose={onChoose}
          />
        )),
      )}
    </div>
  );
}

interface MarkProps extends Pick<BoxMarksProps, 'onChoose'> {
  readonly note: BoxedNote;
  readonly box: Box;
  readonly first: boolean;
  readonly active: boolean;
}

function Mark({ note: { id, kind, words, where }, box, first, active, onChoose }: MarkProps) {
  const point = box.width === 0 && box.height === 0;
  const look = point
    ? `size-3.5 -translate-x-1/2 -translate-y-1/2 rounded-full border-2 border-white ${KIND_FILL[kind]} ${active ? 'outline-2 outline-iodine' : ''}`
    : words
      ? `border-b-2 ${KIND_BORDER[kind]} ${active ? 'bg-saffron/25' : 'bg-saffron/10'}`
      : `border-2 ${KIND_BORDER[kind]} ${active ? 'bg-saffron/15 outline-2 outline-iodine' : ''}`;
  const style = {
    left: `${box.x * 100}%`,
    top: `${box.y * 100}%`,
    ...(point ? {} : { width: `${box.width * 100}%`, height: `${box.height * 100}%` }),
  };
  if (!first) return <span className={`absolute ${look}`} style={style} />;
  return (
    <button
      type="button"
      className={`absolute ${look}`}
      style={style}
      data-place={id}
      aria-label={say('note', { kindWord: kindWord(kind), where })}
      aria-details={noteDomId(id)}
      aria-pressed={active}
      onClick={() => onChoose(id)}
    />
  );
}
