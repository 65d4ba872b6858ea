// Makes the sample files that tests read, with general tools: LibreOffice, FFmpeg, qpdf and ExifTool (Debian packages
// libreoffice-writer-nogui, ffmpeg, qpdf, libimage-exiftool-perl). The results are kept in the repository, so that tests
// need none of them; run it again only to change a sample.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync, copyFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { at } from './run.mjs';

const to = at('apps/server/src/platform/files/samples');
const work = mkdtempSync(join(tmpdir(), 'salt-circle-samples-'));
const run = (command, ...args) => execFileSync(command, args, { cwd: work, stdio: ['ignore', 'ignore', 'inherit'] });
const keep = (...names) => names.forEach((name) => copyFileSync(join(work, name), join(to, name)));

run(
  'ffmpeg',
  '-y',
  '-loglevel',
  'error',
  '-f',
  'lavfi',
  '-i',
  'testsrc=size=64x48:rate=1',
  '-frames:v',
  '1',
  'plain.png',
);
const picture = readFileSync(join(work, 'plain.png')).toString('base64');

const fodt = `<?xml version="1.0" encoding="UTF-8"?>
<office:document xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:style="urn:oasis:names:tc:opendocument:xmlns:style:1.0"
 xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0" xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0"
 xmlns:draw="urn:oasis:names:tc:opendocument:xmlns:drawing:1.0" xmlns:fo="urn:oasis:names:tc:opendocument:xmlns:xsl-fo-compatible:1.0"
 xmlns:xlink="http://www.w3.org/1999/xlink" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:meta="urn:oasis:names:tc:opendocument:xmlns:meta:1.0"
 xmlns:svg="urn:oasis:names:tc:opendocument:xmlns:svg-compatible:1.0" office:version="1.3" office:mimetype="application/vnd.oasis.opendocument.text">
<office:meta><meta:initial-creator>Adjoa Mensah</meta:initial-creator><dc:creator>Adjoa Mensah</dc:creator><dc:title>Basin report of A. Mensah</dc:title></office:meta>
<office:automatic-styles>
 <style:style style:name="B" style:family="text"><style:text-properties fo:font-weight="bold"/></style:style>
 <style:style style:name="I" style:family="text"><style:text-properties fo:font-style="italic"/></style:style>
 <text:list-style style:name="N"><text:list-level-style-number text:level="1" style:num-format="1" style:num-suffix="."/></text:list-style>
 <text:list-style style:name="U"><text:list-level-style-bullet text:level="1" text:bullet-char="•"/></text:list-style>
</office:automatic-styles>
<office:body><office:text>
<text:tracked-changes><text:changed-region text:id="ct1"><text:insertion><office:change-info><dc:creator>Adjoa Mensah</dc:creator><dc:date>2026-03-01T10:00:00</dc:date></office:change-info></text:insertion></text:changed-region></text:tracked-changes>
<text:h text:outline-level="1">The eastern basin</text:h>
<text:p>Written by Adjoa Mensah. The bed <text:span text:style-name="B">rose</text:span> by <text:span text:style-name="I">four</text:span> centimetres a decade<text:note text:id="f1" text:note-class="footnote"><text:note-citation>1</text:note-citation><text:note-body><text:p>Read from the gauge at the sluice.</text:p></text:note-body></text:note>.</text:p>
<text:h text:outline-level="2">Method</text:h>
<text:list text:style-name="N"><text:list-item><text:p>Survey the bank</text:p></text:list-item><text:list-item><text:p>Make two cuts</text:p></text:list-item></text:list>
<text:list text:style-name="U"><text:list-item><text:p>by boat</text:p></text:list-item></text:list>
<table:table table:name="T"><table:table-column table:number-columns-repeated="2"/><table:table-row><table:table-cell><text:p>Item</text:p></table:table-cell><table:table-cell><text:p>Cost</text:p></table:table-cell></table:table-row><table:table-row><table:table-cell><text:p>Boat</text:p></table:table-cell><table:table-cell><text:p>420</text:p></table:table-cell></table:table-row></table:table>
<text:p>A remark<office:annotation><dc:creator>Adjoa Mensah</dc:creator><text:p>Ask the warden.</text:p></office:annotation> stands here. <text:change-start text:change-id="ct1"/>This was put in later.<text:change-end text:change-id="ct1"/> See <text:a xlink:href="https://example.org/gauge">the gauge</text:a>.</text:p>
<text:p><draw:frame draw:name="P" svg:width="3cm" svg:height="2cm" text:anchor-type="as-char"><draw:image><office:binary-data>${picture}</office:binary-data></draw:image></draw:frame></text:p>
<text:p text:style-name="Standard"><text:soft-page-break/>The last paragraph, with ümlauts and “quotes”.</text:p>
</office:text></office:body></office:document>`;
writeFileSync(join(work, 'report.fodt'), fodt);
for (const format of ['odt', 'docx', 'pdf']) run('soffice', '--headless', '--convert-to', format, 'report.fodt');
run('soffice', '--headless', '--convert-to', 'txt:Text (encoded):UTF8', 'report.fodt');
// What Writer puts on the clipboard as HTML is what it writes as HTML.
run('soffice', '--headless', '--convert-to', 'html:HTML (StarWriter):EmbedImages', 'report.fodt');
copyFileSync(join(work, 'report.html'), at('apps/web/src/kit/richtext/samples/writer.html'));
run('exiftool', '-q', '-overwrite_original', '-Author=Adjoa Mensah', '-XMP-dc:Creator=Adjoa Mensah', 'report.pdf');
run('pdftotext', '-layout', 'report.pdf', 'report.pdf.txt');
run('qpdf', '--encrypt', 'secret', 'secret', '256', '--', 'report.pdf', 'locked.pdf');
writeFileSync(join(work, 'damaged.pdf'), readFileSync(join(work, 'report.pdf')).subarray(0, 900));
keep('report.odt', 'report.docx', 'report.pdf', 'report.txt', 'report.pdf.txt', 'locked.pdf', 'damaged.pdf');

const sine = ['-f', 'lavfi', '-i', 'sine=frequency=440:duration=2'];
const film = ['-f', 'lavfi', '-i', 'testsrc=size=96x64:rate=5:duration=2'];
const tags = [
  '-metadata',
  'title=Talk of Adjoa Mensah',
  '-metadata',
  'artist=Adjoa Mensah',
  '-metadata',
  'comment=by Adjoa Mensah',
];
const make = (name, ...args) => run('ffmpeg', '-y', '-loglevel', 'error', ...args, ...tags, name);
make(
  'talk.mp4',
  ...film,
  ...sine,
  '-c:v',
  'libx264',
  '-pix_fmt',
  'yuv420p',
  '-c:a',
  'aac',
  '-b:a',
  '32k',
  '-metadata',
  'creation_time=2026-03-01T10:00:00Z',
);
make('talk.webm', ...film, ...sine, '-c:v', 'libvpx', '-b:v', '60k', '-c:a', 'libopus', '-b:a', '16k');
make('talk.mp3', ...sine, '-b:a', '32k', '-write_id3v1', '1');
make('talk.ogg', ...sine, '-c:a', 'libvorbis', '-q:a', '0');
make('talk.opus', ...sine, '-c:a', 'libopus', '-b:a', '16k');
make('talk.wav', ...sine, '-ar', '8000');
make('talk-sound.webm', ...sine, '-c:a', 'libopus', '-b:a', '16k');
keep('talk.mp4', 'talk.webm', 'talk.mp3', 'talk.ogg', 'talk.opus', 'talk.wav', 'talk-sound.webm');

for (const [name, ...args] of [['picture.jpg'], ['picture.png'], ['picture.webp', '-c:v', 'libwebp']]) {
  run('ffmpeg', '-y', '-loglevel', 'error', '-i', 'plain.png', ...args, name);
  run(
    'exiftool',
    '-q',
    '-overwrite_original',
    '-Artist=Adjoa Mensah',
    '-XMP-dc:Creator=Adjoa Mensah',
    '-GPSLatitude=59.4',
    name,
  );
  keep(name);
}
rmSync(work, { recursive: true });
