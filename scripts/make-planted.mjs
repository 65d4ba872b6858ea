// Makes recordings and pictures with a word planted in every place where such files say something of their makers, by general
// tools: FFmpeg, ExifTool (Debian packages ffmpeg, libimage-exiftool-perl); what they do not write is added as the formats
// say. The results are kept in the repository, so that tests need none of the tools. Every planted word is "Sekrit" and a
// number of its own; the table of places is in planted.spec.ts.
import { execFileSync } from 'node:child_process';
import { appendFileSync, copyFileSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { at } from './run.mjs';

const to = at('apps/server/src/platform/files/samples/planted');
const work = mkdtempSync(join(tmpdir(), 'salt-circle-planted-'));
const run = (command, ...args) => execFileSync(command, args, { cwd: work, stdio: ['ignore', 'ignore', 'inherit'] });
const ffmpeg = (...args) => run('ffmpeg', '-y', '-loglevel', 'error', '-bitexact', ...args);
const exif = (...args) => run('exiftool', '-q', '-m', '-overwrite_original', ...args);
const file = (name, text) => writeFileSync(join(work, name), text);
const said = (pairs) => Object.entries(pairs).flatMap(([key, value]) => ['-metadata', `${key}=${value}`]);
const of = (stream, key, value) => [`-metadata:s:${stream}`, `${key}=${value}`];
/** A chunk of RIFF, or with the most significant byte first a box of ISO base media. */
const chunk = (kind, words) => {
  const body = Buffer.concat([Buffer.from(words), Buffer.alloc(words.length % 2)]);
  const length = Buffer.alloc(4);
  length.writeUInt32LE(body.length);
  return Buffer.concat([Buffer.from(kind), length, body]);
};
const box = (kind, words) => {
  const length = Buffer.alloc(4);
  length.writeUInt32BE(words.length + 8);
  return Buffer.concat([length, Buffer.from(kind), Buffer.from(words)]);
};

const film = ['-f', 'lavfi', '-i', 'testsrc=size=64x48:rate=5:duration=1'];
const sine = ['-f', 'lavfi', '-i', 'sine=frequency=440:duration=1'];
file('chapters.txt', ';FFMETADATA1\n[CHAPTER]\nTIMEBASE=1/1000\nSTART=0\nEND=500\ntitle=Sekrit01 chapter\n');
file('words.srt', '1\n00:00:00,000 --> 00:00:00,900\nSekrit02 in a track of words\n');
ffmpeg('-f', 'lavfi', '-i', 'testsrc=size=64x48:rate=1:duration=1', '-frames:v', '1', 'cover.jpg');
exif('-Artist=Sekrit03', 'cover.jpg');

for (const name of ['planted.mp4', 'planted.mov']) {
  ffmpeg(
    ...film,
    ...sine,
    ...['-i', 'words.srt', '-i', 'chapters.txt', '-map', '0:v', '-map', '1:a', '-map', '2:s', '-map_metadata', '3'],
    ...['-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-c:a', 'aac', '-b:a', '24k', '-c:s', 'mov_text'],
    ...['-bsf:v', 'h264_metadata=sei_user_data=086f3693b7b34f2c965321492feee5b8+Sekrit04'],
    ...said({ title: 'Sekrit05', artist: 'Sekrit06', album: 'Sekrit07', comment: 'Sekrit08', copyright: 'Sekrit09' }),
    ...said({ description: 'Sekrit10', creation_time: '2026-03-01T10:00:00Z' }),
    ...[...of('v', 'handler_name', 'Sekrit11'), ...of('a', 'handler_name', 'Sekrit12')],
    name,
  );
  exif(
    '-XMP-dc:Creator=Sekrit13',
    '-Keys:Author=Sekrit14',
    '-UserData:Author=Sekrit15',
    '-Microsoft:Director=Sekrit16',
    name,
  );
  exif('-Keys:LocationName=Sekrit17', name);
  appendFileSync(
    join(work, name),
    Buffer.concat([box('free', 'Sekrit18'), box('skip', 'Sekrit19'), box('uuid', '0123456789abcdefSekrit20')]),
  );
}

ffmpeg(...sine, '-c:a', 'libvorbis', '-q:a', '0', ...said({ artist: 'Sekrit21' }), 'tagged.ogg');
ffmpeg(
  ...film,
  ...['-i', 'tagged.ogg', '-i', 'chapters.txt', '-map', '0:v', '-map', '1:a', '-map_metadata', '2', '-c:a', 'copy'],
  ...['-c:v', 'libvpx', '-b:v', '40k'],
  ...said({ title: 'Sekrit22', artist: 'Sekrit23', comment: 'Sekrit24' }),
  ...[...of('v', 'title', 'Sekrit25'), ...of('a', 'title', 'Sekrit26'), ...of('a', 'DESCRIPTION', 'Sekrit27')],
  'planted.webm',
);

ffmpeg(
  ...sine,
  ...['-i', 'cover.jpg', '-map', '0:a', '-map', '1:v', '-b:a', '24k', '-write_id3v1', '1', '-id3v2_version', '3'],
  ...said({ title: 'Sekrit28', artist: 'Sekrit29', album: 'Sekrit30', comment: 'Sekrit31', TXXX: 'Sekrit32' }),
  ...said({ 'lyrics-eng': 'Sekrit33', 'id3v2_priv.owner': 'Sekrit34' }),
  'planted.mp3',
);
// Behind the last mark: a tag of the APE kind, and another one at the very end.
const ape = Buffer.concat([Buffer.from('APETAGEX'), Buffer.alloc(24), Buffer.from('Sekrit35')]);
const id3v1 = Buffer.concat([Buffer.from('TAG'), Buffer.from('Sekrit36'.padEnd(125, '\0'))]);
appendFileSync(join(work, 'planted.mp3'), Buffer.concat([ape, Buffer.from('some other bytes'), id3v1]));

const tags = { title: 'Sekrit37', artist: 'Sekrit38', comment: 'Sekrit39', organization: 'Sekrit40' };
ffmpeg(...sine, '-c:a', 'libvorbis', '-q:a', '0', ...said(tags), 'planted.ogg');
ffmpeg(...sine, '-c:a', 'libopus', '-b:a', '12k', ...said(tags), 'planted.opus');
// Chained: a second stream behind the first, with tags of its own.
ffmpeg(...sine, '-c:a', 'libvorbis', '-q:a', '0', ...said({ artist: 'Sekrit41' }), 'second.ogg');
writeFileSync(
  join(work, 'chained.ogg'),
  Buffer.concat(['planted.ogg', 'second.ogg'].map((name) => readFileSync(join(work, name)))),
);
for (const [name, codec] of [
  ['flac.ogg', 'flac'],
  ['speex.ogg', 'libspeex'],
]) {
  ffmpeg(...sine, '-ar', '16000', '-c:a', codec, ...said({ artist: 'Sekrit42' }), name);
}

ffmpeg(
  ...sine,
  ...['-ar', '8000', '-write_bext', '1'],
  ...said({
    title: 'Sekrit43',
    artist: 'Sekrit44',
    comment: 'Sekrit45',
    originator: 'Sekrit46',
    description: 'Sekrit47',
  }),
  'planted.wav',
);
ffmpeg(...sine, '-id3v2_version', '3', ...said({ artist: 'Sekrit51' }), 'tag.mp3');
const mp3 = readFileSync(join(work, 'tag.mp3'));
const id3Length = 10 + [6, 7, 8, 9].reduce((sum, at) => sum * 128 + mp3[at], 0);
const wave = Buffer.concat([
  readFileSync(join(work, 'planted.wav')),
  chunk('DISP', 'Sekrit48'),
  chunk('iXML', '<BWFXML>Sekrit49</BWFXML>'),
  chunk('_PMX', '<x>Sekrit50</x>'),
  chunk('id3 ', mp3.subarray(0, id3Length)),
]);
wave.writeUInt32LE(wave.length - 8, 4);
file('planted.wav', wave);

for (const [name, ...args] of [['planted.jpg'], ['planted.png'], ['planted.webp', '-c:v', 'libwebp']]) {
  ffmpeg('-f', 'lavfi', '-i', 'testsrc=size=64x48:rate=1:duration=1', '-frames:v', '1', ...args, name);
  exif('-Artist=Sekrit52', '-ImageDescription=Sekrit53', '-UserComment=Sekrit54', '-OwnerName=Sekrit55', name);
  exif('-XMP-dc:Creator=Sekrit56', '-XMP-photoshop:City=Sekrit57', '-GPSAreaInformation=Sekrit58', name);
}
exif('-IPTC:By-line=Sekrit59', '-Comment=Sekrit60', '-Photoshop:XResolution=72', 'planted.jpg');
exif('-PNG:Author=Sekrit61', '-PNG:Comment=Sekrit62', 'planted.png');
appendFileSync(join(work, 'planted.jpg'), 'Sekrit63 behind the end');
appendFileSync(join(work, 'planted.png'), 'Sekrit64 behind the end');

for (const name of 'mp4 mov webm mp3 ogg opus wav jpg png webp'.split(' ').map((ending) => `planted.${ending}`))
  copyFileSync(join(work, name), join(to, name));
for (const name of ['chained.ogg', 'flac.ogg', 'speex.ogg']) copyFileSync(join(work, name), join(to, name));
rmSync(work, { recursive: true });
