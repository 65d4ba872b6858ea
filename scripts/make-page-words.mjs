// Words of the sample PDFs with where they stand, as poppler's pdftotext finds them: what the tests of places in PDFs are held
// against. Needs pdftotext (Debian: poppler-utils); the files are kept, so that tests need none.
import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { at } from './run.mjs';

const SAMPLES = ['report.pdf'];
const ENTITIES = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" };
const folder = at('apps', 'server', 'src', 'platform', 'files', 'samples');

for (const name of SAMPLES) {
  const page = execFileSync('pdftotext', ['-bbox', `${folder}/${name}`, '-'], { encoding: 'utf8' });
  const pages = [...page.matchAll(/<page width="([\d.]+)" height="([\d.]+)">([^]*?)<\/page>/g)].map(
    ([, width, height, inner]) =>
      [...inner.matchAll(/<word xMin="([\d.]+)" yMin="([\d.]+)" xMax="([\d.]+)" yMax="([\d.]+)">([^<]*)<\/word>/g)].map(
        ([, xMin, yMin, xMax, yMax, word]) => ({
          word: word.replace(/&(\w+);/g, (_, entity) => ENTITIES[entity] ?? _),
          // In shares of the page, from its left upper corner.
          x: share(xMin, width),
          y: share(yMin, height),
          width: share(xMax - xMin, width),
          height: share(yMax - yMin, height),
        }),
      ),
  );
  writeFileSync(`${folder}/${name}.words.json`, `${JSON.stringify(pages, null, 1)}\n`);
}

function share(part, whole) {
  return Number((Number(part) / Number(whole)).toFixed(4));
}
