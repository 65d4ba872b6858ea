import { wordsBy } from '@salt-circle/core';
import { join } from 'node:path';
import type {
  AudioCodec,
  EncodedPacket,
  Input,
  InputAudioTrack,
  InputTrack,
  InputVideoTrack,
  MetadataTags,
  Output,
  OutputFormat,
  VideoCodec,
} from 'mediabunny';
import type { FoundMetadata } from '../../../model/stored-file.js';
import { Refused } from '../../bytes/refused.js';
import type { Converted, Tell } from './converted.js';
import { bareTrack } from './media-bare.js';
import { say } from '../../../words/files.js';

export interface MediaFacts {
  readonly seconds?: number;
  readonly hasVideo: boolean;
}

/** What browsers play; whatever else a container can hold stays behind. */
const VIDEO: ReadonlySet<string> = new Set<VideoCodec>(['avc', 'hevc', 'vp8', 'vp9', 'av1']);
const AUDIO: ReadonlySet<string> = new Set<AudioCodec>(['aac', 'mp3', 'opus', 'vorbis', 'flac', 'pcm-s16', 'pcm-u8']);
/** Only in WAV: browsers play no other container with them. */
const ONLY_IN_WAV = /^pcm-/;

type Track = { readonly track: InputTrack; readonly codec: string };

const damaged = () => [say('thisRecordingIsDamagedSo'), say('exportItAgainThenHand')] as const;
const nothingToPlay = () => [say('thereIsNothingToPlay'), say('recordOrExportItAgain')] as const;

async function opened(path: string): Promise<Input> {
  const { ALL_FORMATS, FilePathSource, Input } = await import('mediabunny');
  return new Input({ formats: ALL_FORMATS, source: new FilePathSource(path) });
}

/** The tracks that can be played, with their codecs. @throws Refused for what is damaged, or plays nowhere */
async function playable(input: Input): Promise<Track[]> {
  const tracks = await input.getTracks().catch(() => {
    throw new Refused(...damaged());
  });
  const wav = (await input.getFormat()).mimeType.includes('wav');
  const good: Track[] = [];
  const foreign: string[] = [];
  for (const track of tracks) {
    const codec = await track.getCodec();
    const known = track.type === 'video' ? VIDEO : AUDIO;
    if (codec !== null && known.has(codec) && (wav || !ONLY_IN_WAV.test(codec))) good.push({ track, codec });
    else if (track.type === 'video' || track.type === 'audio') foreign.push(track.type);
  }
  if (good.length > 0 && !foreign.includes('video')) return good;
  if (foreign.length === 0) throw new Refused(...nothingToPlay());
  throw foreign.includes('video')
    ? new Refused(say('thisKindOfFilmCannot'), say('exportItAsMp4H'))
    : new Refused(say('thisKindOfSoundCannot'), say('exportItAsMp3OggVorbis'));
}

/** @throws Refused for what cannot be read, or has neither sound nor picture that browsers play */
export async function inspectMedia(path: string): Promise<MediaFacts> {
  const input = await opened(path);
  try {
    const tracks = await playable(input);
    const seconds = await input.computeDuration().catch(() => NaN);
    const hasVideo = tracks.some(({ track }) => track.type === 'video');
    return { hasVideo, ...(Number.isFinite(seconds) && seconds > 0 && { seconds }) };
  } finally {
    input.dispose();
  }
}

/**
 * The same sound and pictures in a new container that holds nothing else: each track that can be played is taken over packet
 * by packet, without being encoded again.
 *
 * @throws Refused where the packets cannot be read to their end
 */
export async function convertMedia(path: string, folder: string, mime: string, tell: Tell): Promise<Converted> {
  const { FilePathTarget, Output } = await import('mediabunny');
  const input = await opened(path);
  try {
    const tracks = await playable(input);
    const output = new Output({ format: await formatFor(mime), target: new FilePathTarget(join(folder, 'copy')) });
    try {
      await takeOver(input, tracks, output, tell);
    } catch (error) {
      await output.cancel().catch(() => undefined);
      // A full disk is no fault of the recording.
      if (error instanceof Error && 'syscall' in error) throw error;
      throw new Refused(...damaged());
    }
    const { seconds } = await inspectMedia(join(folder, 'copy'));
    return {
      facts: seconds === undefined ? {} : { seconds },
      copyFile: 'copy',
      metadata: await metadataOf(input),
      remarks: await leftOut(input, tracks),
    };
  } finally {
    input.dispose();
  }
}

async function formatFor(mime: string): Promise<OutputFormat> {
  const formats = await import('mediabunny');
  switch (mime.replace(/^(audio|video)\//, '')) {
    case 'mp4':
    case 'quicktime':
      return new formats.Mp4OutputFormat({ fastStart: false });
    case 'webm':
      return new formats.WebMOutputFormat();
    case 'mpeg':
      return new formats.Mp3OutputFormat();
    case 'ogg':
      return new formats.OggOutputFormat();
    case 'wav':
      return new formats.WavOutputFormat();
    default:
      throw new Error(`no container is known for ${mime}`);
  }
}

async function takeOver(input: Input, tracks: readonly Track[], output: Output, tell: Tell): Promise<void> {
  const { EncodedAudioPacketSource, EncodedPacketSink, EncodedVideoPacketSource } = await import('mediabunny');
  // Containers hold no times before zero, where sound may begin that only warms its decoder up.
  const first = Math.min(0, ...(await Promise.all(tracks.map(({ track }) => track.getFirstTimestamp()))));
  const whole = await input.computeDuration();
  const works = await Promise.all(
    tracks.map(async ({ track, codec }) => {
      const config = await (track as InputVideoTrack | InputAudioTrack).getDecoderConfig();
      if (config === null) throw new Refused(...damaged());
      const { description, packet: bare } = bareTrack(codec, config.description);
      const decoderConfig = { ...config, ...(description !== undefined && { description }) };
      const packets = new EncodedPacketSink(track).packets();
      if (track.isVideoTrack()) {
        const source = new EncodedVideoPacketSource(codec as VideoCodec);
        output.addVideoTrack(source, { rotation: await track.getRotation() });
        const meta = { decoderConfig: decoderConfig as VideoDecoderConfig };
        return {
          packets,
          bare,
          add: (packet: EncodedPacket) => source.add(packet, meta),
          close: () => source.close(),
        };
      }
      const source = new EncodedAudioPacketSource(codec as AudioCodec);
      output.addAudioTrack(source);
      const meta = { decoderConfig: decoderConfig as AudioDecoderConfig };
      return { packets, bare, add: (packet: EncodedPacket) => source.add(packet, meta), close: () => source.close() };
    }),
  );
  withoutTime(output);
  await output.start();
  // Side by side: the container is written in the order of time, and waits for the track that is behind.
  await Promise.all(
    works.map(async ({ packets, bare, add, close }) => {
      for await (const packet of packets) {
        await add(packet.clone({ data: bare(packet.data), timestamp: packet.timestamp - first }));
        if (whole > 0) tell(Math.min(1, packet.timestamp / whole));
      }
      close();
    }),
  );
  await output.finalize();
}

/** The package writes the time of writing into MP4, and offers no way to leave it out. */
function withoutTime(output: Output): void {
  const { _muxer: muxer } = output as unknown as { readonly _muxer: { creationTime?: number } };
  if (muxer.creationTime !== undefined) muxer.creationTime = 0;
}

const NAMES: Readonly<Record<string, string>> = wordsBy(say, {
  title: 'titleOfRecording',
  artist: 'artistOfRecording',
  albumArtist: 'artistOfRecording',
  album: 'albumOfRecording',
  comment: 'commentOfRecording',
  description: 'descriptionOfRecording',
  lyrics: 'wordsOfRecording',
});

/** Everything in words that the container says of itself, known to the reader by name or not. */
async function metadataOf(input: Input): Promise<FoundMetadata[]> {
  const { raw = {}, ...tags }: MetadataTags = await input.getMetadataTags().catch(() => ({}));
  const named = Object.entries(tags).flatMap(([key, value]) => told(NAMES[key] ?? say('dataOfRecording'), value));
  const known = new Set(named.map(({ value }) => value));
  const others = Object.values(raw).flatMap((value) => told(say('dataOfRecording'), value));
  const tracks = await input.getTracks();
  const ofTracks = (await Promise.all(tracks.map(async (track) => track.getName()))).flatMap((name) =>
    told(say('nameOfTrackOfRecording'), name),
  );
  return [...named, ...others.filter(({ value }) => !known.has(value)), ...ofTracks];
}

function told(where: string, value: unknown): FoundMetadata[] {
  return typeof value === 'string' && value.trim() !== '' ? [{ where, value: value.trim().slice(0, 2_000) }] : [];
}

async function leftOut(input: Input, taken: readonly Track[]): Promise<string[]> {
  const others = (await input.getTracks()).length - taken.length;
  return others <= 0 ? [] : [say('onlySoundAndPicturesThat')];
}
