import { sentences } from '@salt-circle/core';

export const say = sentences('server.html', {
  isNestedDeeper: 'This text is nested deeper than can be shown. Paste it as plain text.',
  hasMoreParts: 'This text has more parts than can be shown. Paste it as plain text.',
});
