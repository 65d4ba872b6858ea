import type { Turn } from '@salt-circle/core';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { ViewerBar, BarButton } from './ViewerBar.js';
import { say } from '../../words/app.js';

const STEPS = [0.25, 0.5, 0.75, 1, 1.5, 2, 3, 4] as const;

export interface PicturePartProps {
  readonly address: string;
  readonly name: string;
  /** CSS pixels of the picture at full size. */
  readonly width: number;
  readonly height: number;
  /** What is laid over the picture; it turns and grows with it. */
  readonly over?: (turn: Turn) => ReactNode;
  /** More commands in the strip above. */
  readonly tools?: ReactNode;
}

/** A picture, fitted to the width or at a size of one's own, turned as it is read best; larger than the window it is moved about. */
export function PicturePart({ address, name, width, height, over, tools }: PicturePartProps) {
  const box = useRef<HTMLDivElement>(null);
  const [room, setRoom] = useState<{ readonly width: number; readonly height: number } | null>(null);
  const [zoom, setZoom] = useState<number | null>(null);
  const [turn, setTurn] = useState<Turn>(0);
  useEffect(() => {
    if (box.current === null) return;
    const observer = new ResizeObserver(([entry]) => entry !== undefined && setRoom(entry.contentRect));
    observer.observe(box.current);
    return () => observer.disconnect();
  }, []);
  const lying = turn % 2 === 1;
  const [across, down] = lying ? [height, width] : [width, height];
  const fitted = room === null ? 1 : Math.min(1, room.width / across, Math.max(room.height, 80) / down);
  const scale = zoom ?? fitted;
  const step = (by: 1 | -1) => {
    const next = by === 1 ? STEPS.find((one) => one > scale + 0.01) : STEPS.findLast((one) => one < scale - 0.01);
    setZoom(next ?? scale);
  };
  return (
    <div className="flex h-full min-h-80 flex-col">
      <ViewerBar label={say('viewOf', { name })}>
        <BarButton words={say('smaller')} onPress={() => step(-1)} />
        <span className="w-14 text-center text-sm text-ink-soft">
          {zoom === null ? say('fitted') : `${Math.round(zoom * 100)}%`}
        </span>
        <BarButton words={say('larger')} onPress={() => step(1)} />
        <BarButton words={say('fit')} pressed={zoom === null} onPress={() => setZoom(null)} />
        <BarButton words={say('turn')} onPress={() => setTurn(((turn + 1) % 4) as Turn)} />
        {tools}
      </ViewerBar>
      <div
        ref={box}
        className="min-h-0 flex-1 overflow-auto bg-crust p-3"
        tabIndex={0}
        role="group"
        aria-label={say('arrowKeysMoveAbout', { name })}
      >
        <div
          className="relative mx-auto overflow-hidden"
          style={{ width: `${across * scale}px`, height: `${down * scale}px` }}
        >
          <div
            className="absolute top-1/2 left-1/2"
            style={{
              width: `${width * scale}px`,
              height: `${height * scale}px`,
              transform: `translate(-50%, -50%) rotate(${turn * 90}deg)`,
            }}
          >
            <img src={address} alt={name} className="block h-full w-full max-w-none" draggable={false} />
            {over?.(turn)}
          </div>
        </div>
      </div>
    </div>
  );
}
