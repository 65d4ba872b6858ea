import { useEffect, useRef } from 'react';
import { ownFetch } from '../../ownFetch.js';

interface WaveformProps {
  /** Where the sound is. */
  readonly address: string;
  readonly seconds: number;
}

/** Samples a second that are enough to see loud from still; a quarter of an hour of them is 30 MB. */
const RATE = 8_000;
/** Seconds; what is longer has its time line alone. */
const LONGEST = 900;

/** How loud a sound is along its time. Read and drawn in the browser, once the page has nothing else to do. */
export function Waveform({ address, seconds }: WaveformProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (seconds > LONGEST) return;
    let over = false;
    const read = async () => {
      const response = await ownFetch(address, 'GET');
      const bytes = await response.arrayBuffer();
      const context = new OfflineAudioContext(1, Math.max(1, Math.ceil(seconds * RATE)), RATE);
      const sound = await context.decodeAudioData(bytes);
      if (!over && canvas.current !== null) drawPeaks(canvas.current, sound.getChannelData(0));
    };
    // What this browser cannot decode it cannot draw; the time line works without.
    read().catch(() => undefined);
    return () => {
      over = true;
    };
  }, [address, seconds]);
  return <canvas ref={canvas} aria-hidden="true" className="absolute inset-0 h-full w-full text-slate" />;
}

function drawPeaks(canvas: HTMLCanvasElement, samples: Float32Array): void {
  const density = Math.min(window.devicePixelRatio || 1, 2);
  canvas.width = Math.round(canvas.clientWidth * density);
  canvas.height = Math.round(canvas.clientHeight * density);
  const context = canvas.getContext('2d');
  if (context === null) return;
  context.fillStyle = getComputedStyle(canvas).color;
  const { width, height } = canvas;
  const peaks = peaksOf(samples, width);
  const loudest = Math.max(...peaks, 0.01);
  peaks.forEach((peak, x) => {
    const tall = Math.max(1, (peak / loudest) * height * 0.9);
    context.fillRect(x, (height - tall) / 2, 1, tall);
  });
}

/** The loudest sample of each of `count` stretches, 0 to 1. */
export function peaksOf(samples: Float32Array, count: number): number[] {
  return Array.from({ length: count }, (_, index) => {
    const from = Math.floor((index * samples.length) / count);
    const to = Math.max(from + 1, Math.floor(((index + 1) * samples.length) / count));
    let peak = 0;
    for (let at = from; at < to && at < samples.length; at += 1) peak = Math.max(peak, Math.abs(samples[at] as number));
    return peak;
  });
}
