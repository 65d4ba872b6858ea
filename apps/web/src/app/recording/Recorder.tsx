import { wordsBy } from '@salt-circle/core';
import { useEffect, useRef, useState } from 'react';
import { Button, Notice } from '../../kit/index.js';
import { useMe } from '../session/useMe.js';
import { secondsInWords } from '../viewing/sizes.js';
import { forgetRecording, keepPiece, keptRecording, type KeptRecording } from './recordings.js';
import { say } from '../../words/app.js';

type Source = 'microphone' | 'camera' | 'screen';

const SOURCES: Readonly<Record<Source, string>> = wordsBy(say, {
  microphone: 'recordSound',
  camera: 'recordWithCamera',
  screen: 'recordScreen',
});

/** In the order of what the server takes best. */
const TYPES = {
  video: ['video/webm;codecs=vp9,opus', 'video/webm', 'video/mp4'],
  audio: ['audio/webm;codecs=opus', 'audio/webm', 'audio/mp4'],
} as const;

/** Milliseconds after which a piece is put aside in the browser. */
const PIECE = 1_000;

export interface RecorderProps {
  readonly name: string;
  readonly storeKey: string;
  /** What it goes into: "the draft". */
  readonly into: string;
  /** @returns whether it has been taken */
  readonly onRecording: (file: File) => Promise<boolean>;
}

/** Records in the browser. What is recorded is kept there until the server has it. */
export function Recorder({ name, storeKey, into, onRecording }: RecorderProps) {
  const me = useMe();
  const key = `${me.id}:${storeKey}`;
  const recorder = useRef<MediaRecorder | null>(null);
  const live = useRef<HTMLVideoElement>(null);
  const [state, setState] = useState<'idle' | 'recording' | 'paused'>('idle');
  const [seconds, setSeconds] = useState(0);
  const [kept, setKept] = useState<KeptRecording | null>(null);
  const [address, setAddress] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [storing, setStoring] = useState(false);

  useEffect(() => {
    void keptRecording(key).then(setKept);
    return () => {
      recorder.current?.stream.getTracks().forEach((track) => track.stop());
    };
  }, [key]);
  useEffect(() => {
    if (kept === null) return setAddress(null);
    const url = URL.createObjectURL(kept.blob);
    setAddress(url);
    return () => URL.revokeObjectURL(url);
  }, [kept]);
  useEffect(() => {
    if (state !== 'recording') return;
    const timer = setInterval(() => setSeconds((count) => count + 1), 1_000);
    return () => clearInterval(timer);
  }, [state]);

  const begin = async (source: Source) => {
    setProblem(null);
    try {
      const stream = await streamOf(source);
      const kinds = source === 'microphone' ? TYPES.audio : TYPES.video;
      const type = kinds.find((one) => MediaRecorder.isTypeSupported(one)) ?? '';
      const next = new MediaRecorder(stream, type === '' ? {} : { mimeType: type });
      await forgetRecording(key);
      let number = 0;
      const writing: Array<Promise<void>> = [];
      next.ondataavailable = ({ data }) => {
        if (data.size > 0) writing.push(keepPiece(key, number++, { blob: data, type: next.mimeType, at: Date.now() }));
      };
      next.onstop = () => {
        stream.getTracks().forEach((track) => track.stop());
        setState('idle');
        void Promise.all(writing).then(() => keptRecording(key).then(setKept));
      };
      // Sharing of a screen is ended outside of the page as well.
      stream
        .getTracks()
        .forEach((track) => track.addEventListener('ended', () => next.state !== 'inactive' && next.stop()));
      recorder.current = next;
      if (live.current !== null) live.current.srcObject = source === 'microphone' ? null : stream;
      next.start(PIECE);
      setSeconds(0);
      setKept(null);
      setState('recording');
    } catch (error) {
      setProblem(
        (error as Error).name === 'NotAllowedError' ? say('browserWasNotAllowedTo') : say('thereIsNothingToRecord'),
      );
    }
  };
  const pause = () => {
    if (state === 'recording') recorder.current?.pause();
    else recorder.current?.resume();
    setState(state === 'recording' ? 'paused' : 'recording');
  };
  const discard = async () => {
    await forgetRecording(key);
    setKept(null);
  };
  const use = async () => {
    if (kept === null) return;
    setStoring(true);
    const ending = kept.type.includes('mp4') ? (kept.type.startsWith('audio') ? 'm4a' : 'mp4') : 'webm';
    const taken = await onRecording(
      new File([kept.blob], `${name}.${ending}`, { type: kept.type, lastModified: kept.at }),
    );
    setStoring(false);
    // Only what the server has is let go of here.
    if (taken) await discard();
  };
  const sound = kept?.type.startsWith('audio') ?? false;
  return (
    <div className="space-y-2 rounded border border-line bg-crust p-3">
      {state === 'idle' && kept === null && (
        <div className="flex flex-wrap gap-2">
          {(Object.keys(SOURCES) as Source[]).map((source) => (
            <Button key={source} small onClick={() => void begin(source)}>
              {SOURCES[source]}
            </Button>
          ))}
        </div>
      )}
      <video ref={live} muted autoPlay playsInline className={state === 'idle' ? 'hidden' : 'max-h-60 bg-ink'} />
      {state !== 'idle' && (
        <div className="flex flex-wrap items-center gap-2">
          <span role="status" className="font-medium text-madder">
            {state === 'paused' ? say('paused') : say('recording')} {secondsInWords(seconds)}
          </span>
          <Button small onClick={pause}>
            {state === 'paused' ? say('continue') : say('pause')}
          </Button>
          <Button small look="primary" onClick={() => recorder.current?.stop()}>
            {say('stop')}
          </Button>
        </div>
      )}
      {kept !== null && address !== null && (
        <div className="space-y-2">
          <Notice tone="waiting" title={say('thisRecordingIsOnlyIn')}>
            {sound ? say('listenToItThenPut', { into }) : say('watchItThenPutIt', { into })}
          </Notice>
          {sound ? (
            <audio controls src={address} className="w-full" />
          ) : (
            <video controls src={address} className="max-h-60" />
          )}
          <div className="flex flex-wrap gap-2">
            <Button look="primary" busy={storing} onClick={() => void use()}>
              {say('putItInto', { into })}
            </Button>
            <Button small onClick={() => void discard()}>
              {say('discardIt')}
            </Button>
          </div>
        </div>
      )}
      {problem !== null && <p className="text-madder">{problem}</p>}
    </div>
  );
}

async function streamOf(source: Source): Promise<MediaStream> {
  const { mediaDevices } = navigator;
  if (source === 'microphone') return mediaDevices.getUserMedia({ audio: true });
  if (source === 'camera') return mediaDevices.getUserMedia({ audio: true, video: true });
  const screen = await mediaDevices.getDisplayMedia({ video: true, audio: true });
  // Most want to speak over what they show; without a microphone the screen alone is recorded.
  const voice = await mediaDevices.getUserMedia({ audio: true }).catch(() => null);
  if (screen.getAudioTracks().length === 0) voice?.getAudioTracks().forEach((track) => screen.addTrack(track));
  return screen;
}
