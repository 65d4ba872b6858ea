/** What telephones film; its copy is MP4. */
export const QUICKTIME = 'video/quicktime';

/** Endings by which programs know each kind of file that is taken; the first one is the usual one. */
const ENDINGS: Readonly<Record<string, readonly [string, ...string[]]>> = {
  'application/pdf': ['.pdf'],
  'application/vnd.openxmlformats-officedocument.wordprocessingml.document': ['.docx'],
  'application/vnd.oasis.opendocument.text': ['.odt'],
  'text/plain': ['.txt', '.text'],
  'text/markdown': ['.md', '.markdown', '.txt'],
  'text/vtt': ['.vtt'],
  'image/png': ['.png'],
  'image/jpeg': ['.jpg', '.jpeg'],
  'image/webp': ['.webp'],
  [QUICKTIME]: ['.mov', '.qt'],
  'video/mp4': ['.mp4', '.m4v'],
  'video/webm': ['.webm'],
  'audio/mp4': ['.m4a', '.mp4'],
  'audio/webm': ['.weba', '.webm'],
  'audio/mpeg': ['.mp3'],
  'audio/ogg': ['.ogg', '.oga', '.opus'],
  'audio/wav': ['.wav'],
};
/** Kinds whose copies reviewers get under a made-up name: documents are read as pages, with no ending of their own. */
const PAGES = /wordprocessingml|opendocument|^text\//;

/** What the reading copy of a file of this kind is. */
export function mimeOfCopy(mime: string): string {
  return mime === QUICKTIME ? 'video/mp4' : mime;
}

/** The usual ending of a copy of this kind; empty for what is read as a page. */
export function endingOf(mime: string): string {
  return PAGES.test(mime) ? '' : (ENDINGS[mimeOfCopy(mime)]?.[0] ?? '');
}

/** A name whose ending says what the file is: under another one, a program of the reader's would take it for something else. */
export function withRightEnding(name: string, mime: string): string {
  const right = ENDINGS[mime] ?? ['.bin'];
  const lower = name.toLowerCase();
  return right.some((ending) => lower.endsWith(ending)) ? name : `${name}${right[0]}`;
}
