import { useRef, useState, type ReactNode, type RefObject } from 'react';
import { BarButton, ViewerBar } from './ViewerBar.js';
import { say } from '../../words/app.js';

/** Seconds. */
export const FRAME = 1 / 25;
const SPEEDS = [0.75, 1, 1.25, 1.5, 2] as const;
/** Seconds that a step goes back or on. A frame of most films lasts a 25th or a 30th; what it is, the file does not tell the page. */
const STEPS = [-10, -1, -FRAME, FRAME, 1, 10] as const;

export interface MediaPartProps {
  readonly kind: 'video' | 'sound';
  readonly address: string;
  readonly captions: string | null;
  readonly name: string;
  /** What stands under the player: a time line of one's own. */
  readonly below?: (media: RefObject<HTMLMediaElement | null>) => ReactNode;
}

/** A player with speed and captions; all of it by keys as well. */
export function MediaPart({ kind, address, captions, name, below }: MediaPartProps) {
  const media = useRef<HTMLVideoElement & HTMLAudioElement>(null);
  const [speed, setSpeed] = useState(1);
  const [failed, setFailed] = useState(false);
  const play = (rate: number) => {
    setSpeed(rate);
    if (media.current !== null) media.current.playbackRate = rate;
  };
  const jump = (seconds: number) => {
    // A single frame is looked at standing still.
    if (Math.abs(seconds) === FRAME) media.current?.pause();
    if (media.current !== null) media.current.currentTime = Math.max(0, media.current.currentTime + seconds);
  };
  const shared = {
    ref: media,
    src: address,
    controls: true,
    preload: 'metadata' as const,
    'aria-label': name,
    onError: () => setFailed(true),
    children: captions === null ? null : <track kind="captions" src={captions} label={say('captions')} default />,
  };
  return (
    <div>
      {kind === 'video' ? (
        <video {...shared} className="block max-h-[70vh] w-full bg-ink" />
      ) : (
        <audio {...shared} className="block w-full" />
      )}
      <ViewerBar label={say('playing', { name })}>
        {STEPS.map((by) => (
          <BarButton key={by} words={stepWords(by)} onPress={() => jump(by)} />
        ))}
        <span className="ml-3 text-sm text-ink-soft">{say('speed')}</span>
        {SPEEDS.map((rate) => (
          <BarButton key={rate} words={`${rate}×`} pressed={rate === speed} onPress={() => play(rate)} />
        ))}
        {captions === null && <span className="ml-3 text-sm text-ink-soft">{say('noCaptionsWereGiven')}</span>}
      </ViewerBar>
      {below?.(media)}
      {failed && <p className="p-2 text-madder">{say('thisBrowserCannotPlayIt')}</p>}
    </div>
  );
}

function stepWords(by: number): string {
  const far = Math.abs(by);
  if (far === FRAME) return say(by < 0 ? 'frameBack' : 'frame');
  return say(by < 0 ? 'back' : 'on', { seconds: far });
}
