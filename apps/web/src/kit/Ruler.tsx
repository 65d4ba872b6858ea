import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { Tooltip } from './Overlay.js';
import { say } from '../words/kit.js';

export interface RulerSegment {
  readonly key: string;
  readonly words: string;
  /** The one figure of this stage, or what it waits for. */
  readonly figure: string;
  /** Its times, exactly, with the time zone: shown while it is pointed at or has the focus. */
  readonly detail?: string | undefined;
  readonly to: string;
  /** Milliseconds; null for what has no stretch of time of its own. */
  readonly from: number | null;
  readonly until: number | null;
  readonly active: boolean;
  readonly alert?: boolean;
}

export interface RulerProps {
  readonly segments: readonly RulerSegment[];
  /** Milliseconds since 1970. */
  readonly now: number;
  readonly nowWords: string;
}

/** Timeless segments are as wide as this share of all the time drawn. */
const TIMELESS_SHARE = 0.1;

function spanOf(segments: readonly RulerSegment[]): number {
  return segments.reduce((sum, { from, until }) => sum + (from !== null && until !== null ? until - from : 0), 0);
}

function isPast({ until }: RulerSegment, now: number): boolean {
  return until !== null && until <= now;
}

/** Where in a segment the present lies, 0 to 1, or null when it is not in it. */
function nowIn({ from, until }: RulerSegment, now: number): number | null {
  if (from === null || now < from) return null;
  if (until === null) return 0.02;
  return now < until ? (now - from) / (until - from) : null;
}

/**
 * The stages of an exchange as a ruler of time, drawn to scale, with a line at the present. It is the
 * navigation: each segment opens its workspace. A vertical list where there is no room.
 */
export function Ruler({ segments, now, nowWords }: RulerProps) {
  const total = spanOf(segments) || 1;
  return (
    <nav aria-label={say('stagesOfThisExchange')} className="no-print px-5 pt-5">
      <ol className="flex flex-col min-[900px]:flex-row min-[900px]:gap-[3px]">
        {segments.map((segment, index) => {
          const span =
            segment.from !== null && segment.until !== null ? segment.until - segment.from : total * TIMELESS_SHARE;
          const at = nowIn(segment, now);
          return (
            <li key={segment.key} className="relative min-w-fit min-[900px]:basis-0" style={{ flexGrow: span / total }}>
              {at !== null && <NowLine at={at} words={nowWords} flip={at > 0.5 || index === segments.length - 1} />}
              <WithDetail detail={segment.detail}>
                <Link
                  to={segment.to}
                  aria-current={segment.active ? 'page' : undefined}
                  className={`block border-l-[3px] px-2.5 py-2 no-underline min-[900px]:border-t-[3px] min-[900px]:border-l-0 ${
                    segment.active
                      ? 'border-iodine bg-paper'
                      : isPast(segment, now)
                        ? segment.alert === true
                          ? 'border-madder'
                          : 'border-kelp'
                        : 'border-line'
                  } text-ink hover:bg-crust`}
                >
                  <span className="block font-semibold whitespace-nowrap">{segment.words}</span>
                  <span
                    className={`block text-sm whitespace-nowrap ${segment.alert === true ? 'text-madder' : 'text-ink-soft'}`}
                  >
                    {segment.figure}
                  </span>
                </Link>
              </WithDetail>
            </li>
          );
        })}
      </ol>
      <div className="border-b border-line" />
    </nav>
  );
}

function WithDetail({ detail, children }: { readonly detail: string | undefined; readonly children: ReactNode }) {
  return detail === undefined ? children : <Tooltip words={detail}>{children}</Tooltip>;
}

interface NowLineProps {
  readonly at: number;
  readonly words: string;
  /** The words stand before the line: behind it, they would run out of the page. */
  readonly flip: boolean;
}

/** Ends at the bar of its segment: it crosses none of the words below. */
function NowLine({ at, words, flip }: NowLineProps) {
  return (
    <span
      className="pointer-events-none absolute -top-2 z-10 hidden h-[11px] border-l border-madder min-[900px]:block"
      style={{ left: `${(at * 100).toFixed(2)}%` }}
    >
      <span className={`absolute -top-2.5 px-1 text-xs whitespace-nowrap text-madder ${flip ? 'right-1' : 'left-1'}`}>
        {say('now', { words })}
      </span>
    </span>
  );
}
