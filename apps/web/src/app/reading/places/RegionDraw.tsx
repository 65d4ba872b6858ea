import type { NoteKind } from '@salt-circle/contracts';
import { boxBetween, grownBox, movedBox, unturned, type Box, type Point, type Turn } from '@salt-circle/core';
import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { kindsOfNotes } from '../noteKinds.js';
import { SelectionBar } from '../SelectionBar.js';
import { say } from '../../../words/app.js';

export interface RegionDrawProps {
  /** What it is drawn on and how, for those who hear it. */
  readonly label: string;
  readonly turn?: Turn;
  /** Takes the focus at once, with a box to begin from. */
  readonly byKeys: boolean;
  readonly onPick: (kind: NoteKind, box: Box) => void;
  readonly onCancel: () => void;
}

/** Shares of the page that a key moves. */
const STEP = 0.02;
const FIRST: Box = { x: 0.3, y: 0.3, width: 0.25, height: 0.15 };

/** Takes a box drawn over a page or a picture, or placed and grown by keys; a press alone is a point. */
export function RegionDraw({ label, turn = 0, byKeys, onPick, onCancel }: RegionDrawProps) {
  const surface = useRef<HTMLDivElement>(null);
  const drawn = useRef<HTMLDivElement>(null);
  const from = useRef<Point | null>(null);
  const [box, setBox] = useState<Box | null>(byKeys ? FIRST : null);
  const [bar, setBar] = useState<DOMRect | null>(null);
  useEffect(() => {
    if (byKeys) surface.current?.focus({ preventScroll: true });
  }, [byKeys]);

  const at = (event: PointerEvent): Point => {
    const around = (surface.current as HTMLElement).getBoundingClientRect();
    const shown = { x: (event.clientX - around.left) / around.width, y: (event.clientY - around.top) / around.height };
    return unturned(shown, turn);
  };
  const showBar = () => setBar(drawn.current?.getBoundingClientRect() ?? null);
  const pick = (kind: NoteKind) => {
    if (box === null) return;
    onPick(kind, box);
    setBox(null);
    setBar(null);
  };
  const press = (event: KeyboardEvent) => {
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
    const kind = kindsOfNotes().find(({ key }) => key === event.key)?.kind;
    if (by !== undefined) {
      const step = { x: (by[0] as number) * STEP, y: (by[1] as number) * STEP };
      setBox(box === null ? FIRST : event.shiftKey ? grownBox(box, step) : movedBox(box, step));
      setBar(null);
    } else if (kind !== undefined && box !== null) {
      pick(kind);
    } else if (event.key === 'Enter' && box !== null) {
      showBar();
    } else if (event.key === 'Escape') {
      onCancel();
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <div
      ref={surface}
      role="application"
      tabIndex={0}
      aria-label={[label, ...(box === null ? [] : [boxWords(box)])].join(' ')}
      className="absolute inset-0 z-20 cursor-crosshair touch-none"
      onKeyDown={press}
      onPointerDown={(event) => {
        if (event.button !== 0) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        from.current = at(event);
        setBar(null);
        setBox(boxBetween(from.current, from.current));
      }}
      onPointerMove={(event) => {
        if (from.current !== null) setBox(boxBetween(from.current, at(event)));
      }}
      onPointerUp={() => {
        from.current = null;
        showBar();
      }}
    >
      {box !== null && (
        <div
          ref={drawn}
          className={`absolute border-2 border-dashed border-iodine ${box.width === 0 && box.height === 0 ? 'size-3.5 -translate-x-1/2 -translate-y-1/2 rounded-full' : ''}`}
          style={{
            left: `${box.x * 100}%`,
            top: `${box.y * 100}%`,
            ...(box.width === 0 && box.height === 0
              ? {}
              : { width: `${box.width * 100}%`, height: `${box.height * 100}%` }),
          }}
        />
      )}
      {bar !== null && (
        // A press on the bar draws nothing.
        <div onPointerDown={(event) => event.stopPropagation()} onPointerUp={(event) => event.stopPropagation()}>
          <SelectionBar at={bar} label={say('leaveNoteOnMarkedRegion')} onPick={pick} />
        </div>
      )}
    </div>
  );
}

function boxWords({ x, y, width, height }: Box): string {
  const percent = (share: number) => Math.round(share * 100);
  return say('regionBeginsPercentFromLeft', {
    x: percent(x),
    y: percent(y),
    width: percent(width),
    height: percent(height),
  });
}
