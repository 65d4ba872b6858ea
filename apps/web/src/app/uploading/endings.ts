import type { FileFamily } from '@salt-circle/core';

const ENDINGS: Readonly<Record<FileFamily, string>> = {
  pdf: '.pdf',
  document: '.docx,.odt',
  'plain-text': '.txt,.md,.markdown',
  image: '.png,.jpg,.jpeg,.webp',
  audio: '.mp3,.ogg,.opus,.wav,.m4a,.weba,.webm',
  video: '.mp4,.m4v,.mov,.webm',
};

/** What a dialog for choosing files offers; what a file is, the server tells by its content. */
export function endingsOf(families: readonly FileFamily[]): string {
  return families.map((family) => ENDINGS[family]).join(',');
}
