import { useRef, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react';
import { say } from '../words/kit.js';

export interface SplitProps {
  readonly left: ReactNode;
  readonly right: ReactNode;
  /** In the strip between, which is also the handle. */
  readonly strip?: ReactNode;
  /** Share of the width that the left side takes, 0 (hidden) to 1 (alone). */
  readonly share: number;
  readonly onShare: (share: number) => void;
  readonly label: string;
}

const STEP = 0.05;
const SNAP = 0.12;

/** Nearly closed means closed. */
function settle(share: number): number {
  if (share < SNAP) return 0;
  return share > 1 - SNAP ? 1 : share;
}

/** Two sides with a movable strip between them; either side can have all of the width. */
export function Split({ left, right, strip, share, onShare, label }: SplitProps) {
  const frame = useRef<HTMLDivElement>(null);
  const moving = useRef(false);

  const move = (event: PointerEvent) => {
    const box = frame.current?.getBoundingClientRect();
    if (!moving.current || box === undefined) return;
    onShare(settle((event.clientX - box.left) / box.width));
  };
  const press = (event: KeyboardEvent) => {
    const next = { ArrowLeft: share - STEP, ArrowRight: share + STEP, Home: 0, End: 1, Enter: 0.6 }[event.key];
    if (next === undefined) return;
    event.preventDefault();
    onShare(Math.min(1, Math.max(0, next)));
  };

  return (
    <div ref={frame} className="flex h-full min-h-0">
      <div className="min-w-0 overflow-hidden" style={{ flexBasis: 0, flexGrow: share }} hidden={share === 0}>
        {left}
      </div>
      <div
        role="separator"
        tabIndex={0}
        aria-label={label}
        aria-orientation="vertical"
        aria-valuemin={0}
        aria-valuemax={100}
        aria-valuenow={Math.round(share * 100)}
        title={say('dragOrUseArrowKeys')}
        onKeyDown={press}
        onPointerDown={(event) => {
          moving.current = true;
          event.currentTarget.setPointerCapture(event.pointerId);
        }}
        onPointerMove={move}
        onPointerUp={() => (moving.current = false)}
        className="relative w-5 shrink-0 cursor-col-resize touch-none border-x border-line bg-crust"
      >
        {strip}
      </div>
      <div className="min-w-0 overflow-hidden" style={{ flexBasis: 0, flexGrow: 1 - share }} hidden={share === 1}>
        {right}
      </div>
    </div>
  );
}
