import { useState } from 'react';
import { ViewerBar, BarButton } from './ViewerBar.js';

const STEPS = [0.25, 0.5, 0.75, 1, 1.5, 2, 3, 4] as const;

/** A picture, fitted to the width or at a size of one's own; larger than the window it is moved about like any page. */
export function PicturePart({
  address,
  name,
  width,
}: {
  readonly address: string;
  readonly name: string;
  readonly width: number;
}) {
  const [zoom, setZoom] = useState<number | null>(null);
  const step = (by: 1 | -1) => {
    const now = zoom ?? 1;
    const next = by === 1 ? STEPS.find((one) => one > now) : STEPS.findLast((one) => one < now);
    setZoom(next ?? now);
  };
  return (
    <div className="flex h-full min-h-80 flex-col">
      <ViewerBar label={`View of ${name}`}>
        <BarButton words="Smaller" onPress={() => step(-1)} />
        <span className="w-14 text-center text-sm text-ink-soft">
          {zoom === null ? 'fitted' : `${Math.round(zoom * 100)}%`}
        </span>
        <BarButton words="Larger" onPress={() => step(1)} />
        <BarButton words="Fit" onPress={() => setZoom(null)} />
      </ViewerBar>
      <div
        className="min-h-0 flex-1 overflow-auto bg-crust p-3"
        tabIndex={0}
        role="group"
        aria-label={`${name}: arrow keys move about`}
      >
        <img
          src={address}
          alt={name}
          className={zoom === null ? 'mx-auto max-h-full max-w-full' : 'max-w-none'}
          style={zoom === null ? {} : { width: `${Math.max(1, width * zoom)}px` }}
        />
      </div>
    </div>
  );
}
