import { Refused } from './refused.js';

/**
 * The text of a file: UTF-8 with or without a mark at its beginning, UTF-16 with one, or, where it is not valid
 * UTF-8, Windows-1252, in which spreadsheets of western Europe still write.
 */
export function decodeText(bytes: Uint8Array): string {
  if (bytes.length === 0) throw new Refused('The file is empty.', 'Choose another file.');
  const [first, second] = bytes;
  if (first === 0xff && second === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (first === 0xfe && second === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  // A zero byte is in no text of the encodings below.
  if (bytes.includes(0)) {
    throw new Refused(
      'This is no text file, perhaps a spreadsheet’s own format.',
      'Save it as CSV, then choose that file.',
    );
  }
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch (error) {
    if ((error as { code?: unknown }).code !== 'ERR_ENCODING_INVALID_ENCODED_DATA') throw error;
    return new TextDecoder('windows-1252').decode(bytes);
  }
}
