import { useLayoutEffect, useRef, type ReactNode } from 'react';
import type { DraftLayout } from './DraftText.js';

export interface MarginNotesProps {
  readonly ids: readonly string[];
  readonly layout: DraftLayout | null;
  readonly activeId: string | null;
  readonly render: (id: string) => ReactNode;
}

const GAP = 10;

/**
 * Notes beside their passages. Where they would lie over each other they are pushed down, but the active
 * one stands exactly at its passage, and those above it make room upwards.
 */
export function MarginNotes({ ids, layout, activeId, render }: MarginNotesProps) {
  const frame = useRef<HTMLDivElement>(null);
  const shown = ids.filter((id) => layout?.tops.has(id) === true);

  useLayoutEffect(() => {
    const element = frame.current;
    if (element === null || layout === null) return;
    const place = () => {
      const cards = [...element.children].filter((card): card is HTMLElement => card instanceof HTMLElement);
      const boxes = cards.map((card) => ({
        wanted: layout.tops.get(card.dataset['id'] ?? '') ?? 0,
        height: card.offsetHeight,
      }));
      const tops = spread(
        boxes,
        cards.findIndex((card) => card.dataset['id'] === activeId),
      );
      cards.forEach((card, index) => (card.style.top = `${tops[index]}px`));
      // The last one may reach below the text: what comes after both begins there.
      const last = tops.length - 1;
      element.style.minHeight = last < 0 ? '' : `${(tops[last] as number) + (boxes[last] as Box).height}px`;
    };
    place();
    const observer = new ResizeObserver(place);
    for (const card of element.children) observer.observe(card);
    return () => observer.disconnect();
  });

  return (
    <div ref={frame} className="relative">
      {shown.map((id) => (
        <div key={id} data-id={id} className="absolute right-0 left-0">
          {render(id)}
        </div>
      ))}
    </div>
  );
}

interface Box {
  /** Pixels from the top. */
  readonly wanted: number;
  readonly height: number;
}

/** Tops at which boxes, given in the order of their wanted tops, do not overlap; the anchored one keeps its place. */
export function spread(boxes: readonly Box[], anchored: number): number[] {
  const tops = boxes.map(({ wanted }) => wanted);
  const at = Math.max(anchored, 0);
  for (let index = at + 1; index < tops.length; index += 1) {
    const above = (tops[index - 1] as number) + (boxes[index - 1] as Box).height + GAP;
    tops[index] = Math.max(tops[index] as number, above);
  }
  for (let index = at - 1; index >= 0; index -= 1) {
    const below = (tops[index + 1] as number) - (boxes[index] as Box).height - GAP;
    tops[index] = Math.min(tops[index] as number, below);
  }
  // What was pushed above the first line comes down again, and pushes the others with it.
  let floor = 0;
  boxes.forEach(({ height }, index) => {
    tops[index] = Math.max(tops[index] as number, floor);
    floor = tops[index] + height + GAP;
  });
  return tops;
}
