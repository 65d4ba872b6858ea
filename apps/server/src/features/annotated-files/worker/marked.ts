import { importMarks, planImport, type ImportedMarks } from '@salt-circle/core';
import { answered, type Answer } from '../../../platform/bytes/answered.js';
import { Refused } from '../../../platform/bytes/refused.js';
import type { BringTask } from './task.js';
import { say } from '../../../words/annotated-files.js';

export { docx } from './docx.js';
export { pdf } from './pdf.js';

/** Runs in a thread: what was marked in a document. */
export function bringDocument({ bytes, texts, already, limits }: BringTask): Promise<Answer<ImportedMarks>> {
  return answered(async () => {
    const { docxMarks } = await import('./docx-marks.js');
    const document = await docxMarks(bytes);
    const brought = importMarks(document, texts, already, limits);
    const placed = brought.notes.length + brought.known;
    if (placed === 0 && brought.otherText && !hasOneOf(document.text, texts)) {
      throw new Refused(say('thisIsNotTextOf'), say('bringFileThatYouTook'));
    }
    return brought;
  });
}

/** A line of the draft that is no heading, as it stands. */
function hasOneOf(document: string, texts: BringTask['texts']): boolean {
  const lines = texts.flatMap(({ text }) => text.split('\n').filter((line) => line.length >= 20));
  return lines.length === 0 || lines.some((line) => document.includes(line));
}

/** Runs in a thread: what was marked on pages. */
export function bringPages({ bytes, copies, already, limits }: BringTask): Promise<Answer<ImportedMarks>> {
  return answered(async () => {
    const { pdfMarks } = await import('./pdf-marks.js');
    const { marks, unplaced, otherText } = await pdfMarks(bytes, copies, already);
    const { notes, known, ...rest } = planImport(marks, already, limits);
    return { notes, known: known.size, unplaced: [...unplaced, ...rest.unplaced], otherText };
  });
}
