import { sentences } from '@salt-circle/core';

export const say = sentences('server.groups', {
  nothingHasBeenAllocatedYet:
    '{together, select, yes {“{exchange}”: nothing has been allocated yet; the allocation will go by the new group; the draft of the old group stays there, and the new group’s is theirs from now on.} other {“{exchange}”: nothing has been allocated yet; the allocation will go by the new group.}}',
  toWriteBegunAndTo:
    '{together, select, yes {“{exchange}”: {given, plural, one {1 review} other {# reviews}} to write ({begun} begun) and {received, plural, one {1 review} other {# reviews}} to get stay as they were allocated by the old group; the draft of the old group stays there, and the new group’s is theirs from now on.} other {“{exchange}”: {given, plural, one {1 review} other {# reviews}} to write ({begun} begun) and {received, plural, one {1 review} other {# reviews}} to get stay as they were allocated by the old group.}}',
  group: 'Group {index}',
  groupsAreReadFromCsv: 'Groups are read from a CSV file.',
  chooseFileThatEndsIn: 'Choose a file that ends in .csv.',
  thereIsGroupSetCalled: 'There is a group set called “{title}” already. Choose another name.',
  hasMembersMoveThemTo:
    '“{title}” has {members, plural, one {a member} other {# members}}. Move them to other groups first.',
  thereIsGroupCalledIn: 'There is a group called “{title}” in this set already. Choose another name.',
  goesByTheseGroupsAnd: '“{title}” goes by these groups and is under way, so they are not made anew.',
  moveSingleStudentsOrMake: 'Move single students, or make another set for the next exchange.',
  thereAreDraftsOfThese: 'There are drafts of these groups in “{title}”, so they stay.',
  makeAnotherSetForNext: 'Make another set for the next exchange.',
  goByTheseGroupsSo:
    '{users, plural, one {{titles} goes by these groups, so they cannot be removed.} other {{titles} go by these groups, so they cannot be removed.}}',
  chooseOtherGroupsThereFirst: 'Choose other groups there first.',
  isPartOfExchangesUnder:
    '{exchanges, plural, one {{name} is part of an exchange under way that goes by these groups.} other {{name} is part of exchanges under way that go by these groups.}}',
  readWhatFollowsFromMove: 'Read what follows from the move, then move all the same or leave it.',
});
