import { sentences } from '@salt-circle/core';

export const say = sentences('server.reading', {
  makingCopyToReadHas: 'Making a copy to read has been stopped several times.',
  makingCopyToReadTook: 'Making a copy to read took too long or too much memory, so it was stopped.',
  copyToReadCouldNot: 'A copy to read could not be made of this file.',
});
