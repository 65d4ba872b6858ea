import { sentences } from '@salt-circle/core';

export const say = sentences('server.library', {
  fileLooksLikeJsonBut: 'The file looks like JSON, but is cut off or has a slip in it.',
  exportItAgainOrCheck: 'Export it again, or check it with an editor.',
  importedForm: 'Imported form',
  file: 'the file',
  fileLabel: 'The file',
  isNotMadeAsExpected: '{where} is not made as expected.',
  thisIsNoFormFile:
    'This is no form file of Salt Circle (its “format” is not “{wanted}”), and there is no rubric in it either.',
  thisFormFileIsOf:
    'This form file is of version {version}; version {known} can be read here. Export it again from where it comes, or update Salt Circle.',
  isMissing: '{where} is missing.',
  yesOrNoTrueOr: 'yes or no (true or false)',
  shouldBe: '{where} should be a {type}.',
  isItShouldBeOne: '{where} is “{value}”; it should be one of: {known}.',
  hasEntriesUpToCan: '{where} has {count} entries; up to {max} can be read.',
  thereIsNoRubricCfrubric: 'There is no rubric (CFRubric) in this document.',
  noColumnIsNamedName: 'No column is named “{column}”. Name it so in the first row.',
  rowPointsAreNotNumber: 'Row {row}: the points “{value}” are not a number.',
  rowBelongsToNoCriterion:
    'Row {row} belongs to no criterion. Give its name in the first column of the first of its rows.',
  thereAreNoRowsUnder: 'There are no rows under the header.',
  keyStandsForTwoLabels: 'The key “{key}” stands for two labels. Give each a key of its own.',
  copy: '{title} (copy)',
  templateIsMadeFromExchange: 'A template is made from an exchange. Choose one.',
  itemsNoPoints: '{items, plural, one {1 item} other {# items}}, no points',
  itemsPoints: '{items, plural, one {1 item} other {# items}}, {points, plural, one {1 point} other {# points}}',
  labels: '{entries, plural, one {1 label} other {# labels}}',
  deliverables: '{deliverables, plural, one {1 deliverable} other {# deliverables}}',
  formOfItems: '{deliverables}, a form of {items, plural, one {1 item} other {# items}}',
});
