import type { NoteKind, PartView } from '@salt-circle/contracts';
import type { Selector } from '@salt-circle/core';
import { useEffect, useState, type KeyboardEvent, type RefObject } from 'react';
import { Button, Key } from '../../../kit/index.js';
import { FRAME, MediaPart } from '../../viewing/MediaPart.js';
import { secondsInWords } from '../../viewing/sizes.js';
import { kindsOfNotes, KIND_FILL, KIND_TEXT, kindWord } from '../noteKinds.js';
import { noteDomId } from '../passages.js';
import type { PlacedNote } from '../useAnnotation.js';
import type { PartNotesProps } from './partNotes.js';
import { Waveform } from './Waveform.js';
import { say } from '../../../words/app.js';

type Moment = Extract<Selector, { type: 'moment' }>;

export interface MediaNotesProps extends PartNotesProps {
  readonly part: PartView;
  /** Where it is read; the copy and the captions are below it. */
  readonly address: string;
  /** Moves a note that stands on a moment. */
  readonly onMove?: ((id: string, selector: Selector) => void) | undefined;
}

/** Sound or film with its notes on a time line of its own: one press notes the moment, another ends a span. */
export function MediaNotes({ part, address, ...rest }: MediaNotesProps) {
  const { show, name, captions, facts } = part;
  return (
    <MediaPart
      kind={show === 'sound' ? 'sound' : 'video'}
      address={`${address}/copy`}
      name={name}
      captions={captions ? `${address}/captions` : null}
      below={(media) => (
        <TimeLine
          media={media}
          seconds={facts.seconds ?? null}
          sound={show === 'sound' ? `${address}/copy` : null}
          {...rest}
        />
      )}
    />
  );
}

interface TimeLineProps extends PartNotesProps, Pick<MediaNotesProps, 'onMove'> {
  readonly media: RefObject<HTMLMediaElement | null>;
  /** Its length, if the file says so. */
  readonly seconds: number | null;
  /** Where a sound is, to be drawn; null for a film. */
  readonly sound: string | null;
}

function TimeLine({ media, seconds, sound, notes, activeId, onChoose, onNote, onMove }: TimeLineProps) {
  const [now, setNow] = useState(0);
  const [length, setLength] = useState(seconds);
  const play = usePlayedSpan(media);
  useEffect(() => {
    const element = media.current;
    if (element === null) return;
    const tell = () => setNow(element.currentTime);
    const measure = () => {
      if (seconds === null && Number.isFinite(element.duration)) setLength(element.duration);
    };
    element.addEventListener('timeupdate', tell);
    element.addEventListener('seeking', tell);
    element.addEventListener('loadedmetadata', measure);
    return () => {
      element.removeEventListener('timeupdate', tell);
      element.removeEventListener('seeking', tell);
      element.removeEventListener('loadedmetadata', measure);
    };
  }, [media, seconds]);
  const marks = notes.flatMap((note) =>
    note.place.selector.type === 'moment' ? [{ ...note, moment: note.place.selector }] : [],
  );
  const active = marks.find(({ id }) => id === activeId);
  const from = active?.moment.start;
  // A note that is chosen in the list is gone to; one that was just left there is where one is.
  useEffect(() => {
    const element = media.current;
    if (element !== null && from !== undefined && Math.abs(element.currentTime - from) > 0.5)
      element.currentTime = from;
  }, [media, activeId, from]);
  const here = () => rounded(Math.min(media.current?.currentTime ?? 0, length ?? Infinity));
  const leave = (kind: NoteKind) => onNote?.(kind, { type: 'moment', start: here(), end: null });
  const share = (time: number) => (length === null || length === 0 ? 0 : Math.min(1, time / length));
  const choose = (note: PlacedNote & { readonly moment: Moment }) => {
    onChoose(note.id);
    play(note.moment);
  };
  const press = (event: KeyboardEvent) => {
    const element = media.current;
    const step = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    const kind = kindsOfNotes().find(({ key }) => key === event.key)?.kind;
    if (element === null || event.ctrlKey || event.metaKey || event.altKey) return;
    if (step !== undefined) {
      if (event.shiftKey) element.pause();
      element.currentTime = Math.max(0, element.currentTime + step * (event.shiftKey ? FRAME : 1));
    } else if (event.key === 'Home') element.currentTime = 0;
    else if (event.key === 'End' && length !== null) element.currentTime = length;
    else if (event.key === ' ') void (element.paused ? element.play() : element.pause());
    else if (kind !== undefined && onNote !== undefined) leave(kind);
    else return;
    event.preventDefault();
  };
  const ends = active !== undefined && onMove !== undefined && now > active.moment.start + FRAME;
  return (
    <div className="space-y-2 border-b border-line px-3 py-2">
      <div className="flex items-center gap-3">
        <div
          role="slider"
          tabIndex={0}
          aria-label={onNote === undefined ? say('timeArrowsGoSecondWith') : say('timeArrowsGoSecondWithShift')}
          aria-valuemin={0}
          aria-valuemax={Math.round(length ?? 0)}
          aria-valuenow={Math.round(now)}
          aria-valuetext={secondsInWords(now)}
          className="relative h-12 flex-1 cursor-pointer touch-none border-y border-line bg-crust"
          onKeyDown={press}
          onClick={(event) => {
            const around = event.currentTarget.getBoundingClientRect();
            if (media.current !== null && length !== null) {
              media.current.currentTime = ((event.clientX - around.left) / around.width) * length;
            }
          }}
        >
          {sound !== null && length !== null && <Waveform address={sound} seconds={length} />}
          <span className="absolute inset-y-0 w-0.5 bg-iodine" style={{ left: `${share(now) * 100}%` }} />
        </div>
        <span className="text-sm whitespace-nowrap text-ink-soft">
          {length === null
            ? secondsInWords(now)
            : say('ofOf3', { now: secondsInWords(now), length: secondsInWords(length) })}
        </span>
      </div>
      {marks.length > 0 && (
        <div className="relative mr-24 h-7" role="group" aria-label={say('notesOnThisRecording')}>
          {marks.map((note) => (
            <MomentMark
              key={note.id}
              note={note}
              left={share(note.moment.start)}
              width={note.moment.end === null ? 0 : share(note.moment.end) - share(note.moment.start)}
              active={note.id === activeId}
              onPress={() => choose(note)}
            />
          ))}
        </div>
      )}
      {onNote !== undefined && (
        <div
          role="group"
          aria-label={say('noteOnThisMoment')}
          className="flex flex-wrap items-center gap-x-3 gap-y-1 text-sm"
        >
          <span className="text-ink-soft">{say('noteAt', { secondsInWords: secondsInWords(now) })}</span>
          {kindsOfNotes().map(({ kind, word, key, hint }) => (
            <button
              key={kind}
              type="button"
              title={hint}
              onClick={() => leave(kind)}
              className={`min-h-6 font-medium hover:underline ${KIND_TEXT[kind]}`}
            >
              {word} <Key>{key}</Key>
            </button>
          ))}
          {ends && (
            <Button
              small
              onClick={() =>
                onMove(active.id, { ...active.moment, end: Math.max(here(), active.moment.start + FRAME) })
              }
            >
              {say('endChosenNotesSpanAt', { secondsInWords: secondsInWords(now) })}
            </Button>
          )}
        </div>
      )}
    </div>
  );
}

interface MomentMarkProps {
  readonly note: PlacedNote & { readonly moment: Moment };
  /** Shares of the time line. */
  readonly left: number;
  readonly width: number;
  readonly active: boolean;
  readonly onPress: () => void;
}

function MomentMark({ note: { id, kind, moment }, left, width, active, onPress }: MomentMarkProps) {
  const when =
    moment.end === null
      ? say('at', { secondsInWords: secondsInWords(moment.start) })
      : say('fromTo', { secondsInWords: secondsInWords(moment.start), secondsInWords2: secondsInWords(moment.end) });
  return (
    <button
      type="button"
      data-place={id}
      aria-label={say('noteOf', { kindWord: kindWord(kind), when })}
      aria-details={noteDomId(id)}
      aria-pressed={active}
      title={`${kindWord(kind)} ${when}`}
      onClick={onPress}
      className="absolute top-0 h-7 min-w-6 -translate-x-1"
      style={{ left: `${left * 100}%`, width: `${width * 100}%` }}
    >
      <span
        className={`block min-w-2 ${KIND_FILL[kind]} ${active ? 'h-5 outline-2 outline-offset-1 outline-iodine' : 'h-3'} ${moment.end === null ? 'w-2' : 'w-full'}`}
      />
    </button>
  );
}

/** @returns plays a span from its beginning to its end; a moment is only gone to */
function usePlayedSpan(media: RefObject<HTMLMediaElement | null>): (span: Moment) => void {
  const [until, setUntil] = useState<number | null>(null);
  useEffect(() => {
    const element = media.current;
    if (element === null || until === null) return;
    const stop = () => {
      if (element.currentTime < until) return;
      element.pause();
      setUntil(null);
    };
    element.addEventListener('timeupdate', stop);
    return () => element.removeEventListener('timeupdate', stop);
  }, [media, until]);
  return ({ start, end }) => {
    const element = media.current;
    if (element === null) return;
    element.currentTime = start;
    setUntil(end);
    // A browser that plays nothing by itself leaves it at the beginning of the span.
    if (end !== null) element.play().catch(() => setUntil(null));
  };
}

/** To a thousandth of a second: shorter than a frame. */
function rounded(seconds: number): number {
  return Math.floor(seconds * 1_000) / 1_000;
}
