import { sentences } from '@salt-circle/core';

export const say = sentences('server.tables', {
  fileIsLargerThanCan: 'The file is larger than can be read at once.',
  splitItIntoSeveralFiles: 'Split it into several files.',
  readingThisFileTookToo: 'Reading this file took too long or too much memory.',
  bringSmallerOne: 'Bring a smaller one.',
  splitItOrLeaveOut: 'Split it, or leave out what is not needed.',
  moreThanRows: 'The table has more than {rows} rows, more than can be read at once.',
  cellsInRow: 'The table has {cells} cells in row {row}, more than can be read at once.',
  moreThanCells: 'The table has more than {cells} cells, more than can be read at once.',
  cellOfMoreThanCharacters:
    'The table has a cell of more than {cell} characters in row {row}, more than can be read at once.',
  rowThatDoesNotEnd: 'The table has a row that does not end, more than can be read at once.',
  quotationMarkOpensInLine:
    'A quotation mark opens in line {opened} and is never closed, so the rest of the table is one cell.',
  closeItThereOrWrite: 'Close it there, or write two for one that belongs to the text.',
  quotationMarksAroundLineDo:
    'The quotation marks around line {lines} do not match, so it is not clear where a cell ends.',
  closeQuotationMarkThereOr: 'Close the quotation mark there, or write two for one that belongs to the text.',
  thisIsArchiveAndOne: 'This is an archive, and one file is wanted.',
  unpackItAndChooseFile: 'Unpack it and choose the file.',
  thisIsWorkbookOfSpreadsheet: 'This is a workbook of a spreadsheet program, which can hold more than one table.',
  openItChooseSaveAs:
    'Open it, choose “Save as” and the format CSV (comma separated values, UTF-8), and choose that file; or copy the rows and paste them.',
  thereIsNothingToRead: 'There is nothing to read.',
  pasteRowsOrChooseFile: 'Paste rows, or choose a file.',
  archiveIsDamagedSoIt: 'The archive is damaged, so it could not be opened.',
  exportItAgain: 'Export it again.',
  archiveHoldsMoreThanCan: 'The archive holds more than can be read at once.',
  leaveOutFilesThatAre: 'Leave out files that are not needed.',
  thereAreNoCsvFiles: 'There are no CSV files in the archive.',
  chooseRosterBundleOrCsv: 'Choose a roster bundle, or a CSV file.',
});
