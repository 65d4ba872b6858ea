import { say } from '../../words/app.js';

/** "840 B", "12 kB", "3.4 MB", in steps of a thousand. */
export function bytesInWords(bytes: number): string {
  if (bytes < 1000) return `${bytes} B`;
  if (bytes < 1_000_000) return say('kb', { bytes: Math.round(bytes / 1000) });
  return say('mb', { bytes: (bytes / 1_000_000).toFixed(1) });
}

/** "0:42", "1:03:20". */
export function secondsInWords(seconds: number): string {
  const whole = Math.round(seconds);
  const two = (number: number) => String(number).padStart(2, '0');
  const hours = Math.floor(whole / 3600);
  const minutes = Math.floor((whole % 3600) / 60);
  return hours > 0 ? `${hours}:${two(minutes)}:${two(whole % 60)}` : `${minutes}:${two(whole % 60)}`;
}
