import { sentences } from '@salt-circle/core';

export const say = sentences('server.practice', {
  text: 'Text',
  file: 'File',
  practice: 'Practice',
  writeOrPasteTextOf: 'Write or paste the text of the practice draft.',
  cannotBeRead: 'cannot be read',
  takeAnotherDraftOrPaste: 'Take another draft, or paste the text without the name.',
  isStillBeingMadeReadable: 'is still being made readable',
  tryAgainInMinute: 'Try again in a minute.',
  soNobodyHasLookedFor: '“{name}” {sentence}, so nobody has looked for its author’s name in it.',
  thereArePracticeDraftsAlready: 'There are {maxpracticedrafts} practice drafts already, and no more can be added.',
  takeOneAwayFirst: 'Take one away first.',
});
