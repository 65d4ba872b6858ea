import { unzipSync } from 'fflate';
import { LIMITS, type SourceRequest } from '@salt-circle/contracts';
import type { BundleFiles } from '@salt-circle/core';
import { cellsOf, decodeText, unreadable } from './cells.js';

export type Source =
  { readonly kind: 'text'; readonly text: string } | { readonly kind: 'bundle'; readonly files: BundleFiles };

const TOO_MUCH = 25_000_000;

/** What was pasted or chosen: one text, or, for a ZIP archive, the CSV files in it. */
export function sourceOf({ base64 = null, text = null }: SourceRequest): Source {
  if (text !== null) {
    if (text.trim() === '') throw unreadable('There is nothing to read.', 'Paste rows, or choose a file.');
    return { kind: 'text', text };
  }
  const bytes = base64 === null ? new Uint8Array() : new Uint8Array(Buffer.from(base64, 'base64'));
  if (bytes.length > LIMITS.importBytes) {
    throw unreadable('The file is larger than can be read at once.', 'Split it into several files.');
  }
  const isZip = bytes[0] === 0x50 && bytes[1] === 0x4b;
  return isZip ? { kind: 'bundle', files: unzipped(bytes) } : { kind: 'text', text: decodeText(bytes) };
}

function unzipped(bytes: Uint8Array): BundleFiles {
  let left = TOO_MUCH;
  let packed: Record<string, Uint8Array>;
  try {
    packed = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (!/\.csv$/iu.test(name) || name.includes('__MACOSX')) return false;
        // What an archive says of itself is looked at before anything is unpacked.
        left -= originalSize;
        return left > 0;
      },
    });
  } catch {
    throw unreadable('The archive is damaged, so it could not be opened.', 'Export it again.');
  }
  if (left <= 0)
    throw unreadable('The archive holds more than can be read at once.', 'Leave out files that are not needed.');
  const files: Record<string, string[][]> = {};
  for (const [path, content] of Object.entries(packed)) {
    const name = (path.split('/').at(-1) ?? path).toLowerCase();
    files[name] = content.length === 0 ? [] : cellsOf(decodeText(content));
  }
  if (Object.keys(files).length === 0) {
    throw unreadable('There are no CSV files in the archive.', 'Choose a roster bundle, or a CSV file.');
  }
  return files;
}
