import { useRef, useState } from 'react';
import { BarButton, ViewerBar } from './ViewerBar.js';

const SPEEDS = [0.75, 1, 1.25, 1.5, 2] as const;
/** Seconds that a step goes back or on. */
const STEP = 10;

export interface MediaPartProps {
  readonly kind: 'video' | 'sound';
  readonly address: string;
  readonly captions: string | null;
  readonly name: string;
}

/** A player with speed and captions; all of it by keys as well. */
export function MediaPart({ kind, address, captions, name }: MediaPartProps) {
  const media = useRef<HTMLVideoElement & HTMLAudioElement>(null);
  const [speed, setSpeed] = useState(1);
  const [failed, setFailed] = useState(false);
  const play = (rate: number) => {
    setSpeed(rate);
    if (media.current !== null) media.current.playbackRate = rate;
  };
  const jump = (seconds: number) => {
    if (media.current !== null) media.current.currentTime = Math.max(0, media.current.currentTime + seconds);
  };
  const shared = {
    ref: media,
    src: address,
    controls: true,
    preload: 'metadata' as const,
    'aria-label': name,
    onError: () => setFailed(true),
    children: captions === null ? null : <track kind="captions" src={captions} label="Captions" default />,
  };
  return (
    <div>
      {kind === 'video' ? (
        <video {...shared} className="block max-h-[70vh] w-full bg-ink" />
      ) : (
        <audio {...shared} className="block w-full" />
      )}
      <ViewerBar label={`Playing ${name}`}>
        <BarButton words={`Back ${STEP} s`} onPress={() => jump(-STEP)} />
        <BarButton words={`On ${STEP} s`} onPress={() => jump(STEP)} />
        <span className="ml-3 text-sm text-ink-soft">Speed</span>
        {SPEEDS.map((rate) => (
          <BarButton key={rate} words={`${rate}×`} pressed={rate === speed} onPress={() => play(rate)} />
        ))}
        {captions === null && <span className="ml-3 text-sm text-ink-soft">No captions were given</span>}
      </ViewerBar>
      {failed && (
        <p className="p-2 text-madder">This browser cannot play it. Try another one, or ask for another format.</p>
      )}
    </div>
  );
}
