import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import sharp from 'sharp';
import type { Person } from '../model/person.js';
import { DraftsService } from '../features/drafts/drafts.service.js';
import { FileStore } from '../platform/files/file-store.js';
import { Attachments } from '../features/files/attachments.service.js';
import { Intake } from '../features/files/draft-intake.service.js';
import type { Seeder } from './seeder.js';
import type { Site } from './sites.js';

/** Where things go: ids of deliverables; null for what an exchange does not take. */
interface Places {
  readonly sheets: string;
  readonly map: string | null;
  readonly talk: string | null;
}

/**
 * A sheet of readings, a sketch of the place and what it sounds like, as made by a student's own programs, with the student's
 * name in them.
 */
export async function attachFiles(
  { app, random }: Seeder,
  student: Person,
  exchangeId: string,
  places: Places,
  site: Site,
): Promise<void> {
  const folder = await app.get(FileStore).workFolder();
  const intake = app.get(Intake);
  const family = student.name.split(' ').at(-1) ?? '';
  const put = async (deliverableId: string, name: string, bytes: Uint8Array) => {
    const path = join(folder, name);
    await writeFile(path, bytes);
    await intake.take(student, exchangeId, { id: null, deliverableId, participantId: null, path, name });
  };
  await put(places.sheets, `readings_${family}.pdf`, await readings(student.name, site, random));
  await put(places.sheets, 'sketch.png', await sketch(random));
  if (places.talk !== null) await put(places.talk, `shore_${family}.wav`, shore(random));
  if (places.map === null) return;
  await app.get(DraftsService).addLink(student, exchangeId, places.map, {
    url: `https://maps.example.org/${encodeURIComponent(site.name)}`,
    title: `Map of ${site.name}`,
    about: 'Look at the two gauges on the seaward side.',
  });
}

/** What comes with the brief: an empty sheet to be filled in, and a page on how the gauges are read. */
export async function giveFiles({ app }: Seeder, teacher: Person, exchangeId: string): Promise<void> {
  const folder = await app.get(FileStore).workFolder();
  const give = async (name: string, place: 'brief' | 'guide', bytes: Uint8Array | string) => {
    const path = join(folder, name);
    await writeFile(path, bytes);
    await app.get(Attachments).take(teacher, exchangeId, { path, name, place, uploadId: null });
  };
  await give('Sheet for readings.pdf', 'brief', await sheet());
  await give('How to read a gauge.md', 'brief', GAUGE);
  await give('Two reviews side by side.md', 'guide', TWO_REVIEWS);
}

const GAUGE = `# How to read a gauge

1. Stand so that your eye is level with the water.
2. Wait for three waves to pass, and take the middle of the three.
3. Write the time beside the number: a level without a time says nothing.

A gauge that leans is read all the same; say by how much it leans.
`;

const TWO_REVIEWS = `# Two reviews of one paragraph

**Of little use:** “Good plan, very clear.”

**Of use:** “You read the gauge on Mondays. Spring tides fall on other days as well, so you will miss most of them. Could
you read it on the day of each new and full moon instead?”

The second says where it stands, what follows from it, and what could be done.
`;

async function sheet(): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  const font = await pdf.embedFont(StandardFonts.Helvetica);
  const page = pdf.addPage([595, 842]);
  page.drawText('Sheet for readings', { x: 60, y: 770, size: 18, font });
  ['Day', 'Time', 'Level (cm)', 'Salinity', 'Read by'].forEach((words, column) =>
    page.drawText(words, { x: 60 + column * 98, y: 730, size: 11, font }),
  );
  for (let row = 0; row < 25; row += 1) {
    page.drawLine({ start: { x: 60, y: 720 - row * 26 }, end: { x: 535, y: 720 - row * 26 }, thickness: 0.3 });
  }
  return pdf.save();
}

async function readings(author: string, site: Site, random: () => number): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  pdf.setAuthor(author);
  pdf.setTitle(`Readings, ${site.name}`);
  const font = await pdf.embedFont(StandardFonts.Helvetica);
  for (let page = 0; page < 3; page += 1) {
    const sheet = pdf.addPage([595, 842]);
    sheet.drawText(`Readings at the gauge, sheet ${page + 1}`, { x: 60, y: 770, size: 18, font });
    for (let row = 0; row < 24; row += 1) {
      const level = (40 + random() * 30).toFixed(1);
      sheet.drawText(`Day ${page * 24 + row + 1}`, { x: 60, y: 730 - row * 26, size: 11, font });
      sheet.drawText(`${level} cm`, { x: 180, y: 730 - row * 26, size: 11, font });
      sheet.drawLine({ start: { x: 60, y: 724 - row * 26 }, end: { x: 535, y: 724 - row * 26 }, thickness: 0.3 });
    }
  }
  return pdf.save();
}

async function sketch(random: () => number): Promise<Uint8Array> {
  const points = Array.from({ length: 13 }, (_, index) => `${index * 75},${Math.round(330 + random() * 120)}`).join(
    ' ',
  );
  const drawing = `<svg xmlns="http://www.w3.org/2000/svg" width="900" height="560"><rect width="900" height="560" fill="#f2efe8"/>
    <polygon points="0,560 ${points} 900,560" fill="#a9c4b4"/><polyline points="${points}" fill="none" stroke="#2c6a4d" stroke-width="4"/>
    <circle cx="300" cy="300" r="10" fill="#a34a17"/><circle cx="640" cy="280" r="10" fill="#a34a17"/></svg>`;
  return sharp(Buffer.from(drawing)).png().toBuffer();
}

/** Seconds, and samples a second. */
const SHORE = { length: 24, rate: 8_000 } as const;

/** Waves on a shore: noise that swells and falls, as a WAV file (RIFF, PCM, 16 bit, one channel). */
function shore(random: () => number): Uint8Array {
  const samples = SHORE.length * SHORE.rate;
  const bytes = Buffer.alloc(44 + samples * 2);
  bytes.write('RIFF', 0);
  bytes.writeUInt32LE(36 + samples * 2, 4);
  bytes.write('WAVEfmt ', 8);
  bytes.writeUInt32LE(16, 16);
  bytes.writeUInt16LE(1, 20);
  bytes.writeUInt16LE(1, 22);
  bytes.writeUInt32LE(SHORE.rate, 24);
  bytes.writeUInt32LE(SHORE.rate * 2, 28);
  bytes.writeUInt16LE(2, 32);
  bytes.writeUInt16LE(16, 34);
  bytes.write('data', 36);
  bytes.writeUInt32LE(samples * 2, 40);
  let smooth = 0;
  for (let at = 0; at < samples; at += 1) {
    const swell = 0.15 + 0.85 * Math.sin((Math.PI * at) / SHORE.rate / 4) ** 4;
    smooth = 0.8 * smooth + 0.2 * (random() * 2 - 1);
    bytes.writeInt16LE(Math.round(smooth * swell * 20_000), 44 + at * 2);
  }
  return bytes;
}
