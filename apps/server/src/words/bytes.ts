import { sentences } from '@salt-circle/core';

export const say = sentences('server.bytes', {
  fileIsEmpty: 'The file is empty.',
  chooseAnotherFile: 'Choose another file.',
  thisIsNoTextFile: 'This is no text file, perhaps a spreadsheet’s own format.',
  saveItAsCsvThen: 'Save it as CSV, then choose that file.',
  thisDocumentIsNestedToo: 'This document is nested too deeply to be read.',
  handItInAsPdf: 'Hand it in as a PDF.',
});
