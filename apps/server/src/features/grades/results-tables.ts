import { wordsBy } from '@salt-circle/core';
import { say } from '../../words/results.js';
/** What the results of a course are told in: tables in tidy form (a row a thing, a column a fact), each column explained. */
export const TABLES = {
  exchanges: wordsBy(say, {
    exchange: 'idOfExchange',
    title: 'title',
    drafts_due: 'whenDraftsWereDueIso8601',
    reviews_due: 'whenReviewsWereDue',
    release: 'whenFeedbackIsReleasedToAll',
    names: 'whoSeesNamesOpenHiddenFrom',
    reviews_each: 'reviewsAskedOfEachStudent',
    maximum: 'mostPointsThatFormCanGive',
  }),
  people: wordsBy(say, {
    person: 'idOfPersonOtherTablesName',
    name: 'asCourseListsIt',
    lti_id: 'asCourseListsIt',
    section: 'sectionOfCourse',
    role: 'studentAssistantOrInstructor',
    active: 'n1ForWhoeverIsInCourse',
  }),
  drafts: wordsBy(say, {
    exchange: 'idOfExchange',
    draft: 'idOfDraft',
    author: 'idOfPersonDraftBySeveral',
    handed_in_at: 'whenVersionThatCountsWasHanded',
    words: 'wordsOfThatVersion',
  }),
  reviews: wordsBy(say, {
    exchange: 'idOfExchange',
    review: 'idOfReview',
    draft: 'idOfDraft',
    reviewer: 'idOfPerson',
    kind: 'peerSelfOfOwnDraftOr',
    submitted_at: 'whenItWasSubmittedEmptyWhere',
    words: 'wordsOfAllAnswersAndNotes',
    notes: 'notesThatSaySomething',
    directed: 'ofThemThoseThatSayWhat',
    minutes: 'atWorkOnItEmptyWhere',
    score: 'shareOfMaximumThatItGives',
    withheld: 'n1WhereWholeReviewIsKept',
    helped: 'howItHelpedByItsAuthor',
  }),
  answers: wordsBy(say, {
    review: 'idOfReview',
    item: 'idOfItemOfForm',
    title: 'titleOfItem',
    kind: 'criterionRangeChecklistPromptPairNumber',
    points: 'pointsThatItGivesEmptyWhere',
    of: 'mostPointsThatItCanGive',
    scale: 'whereOnItsScaleItIs',
    answer: 'whatWasAnsweredInWords',
  }),
  notes: wordsBy(say, {
    note: 'idOfNote',
    review: 'idOfReview',
    kind: 'keepChangeAskOrFix',
    part: 'idOfPartOfDraftEmpty',
    place: 'textPassagePageRegionMomentOr',
  }),
  scores: wordsBy(say, {
    exchange: 'idOfExchange',
    draft: 'idOfDraft',
    reviews: 'reviewsByPeersThatGiveScore',
    mean: 'theirMeanShareOfMaximum0',
    adjusted: 'withSeverityOfReviewersTakenOut',
    se: 'standardErrorOfIt',
    low: 'lowerBoundOfIts95Interval',
    high: 'upperBound',
  }),
  grades: wordsBy(say, {
    exchange: 'idOfExchange',
    person: 'idOfPerson',
    part: 'partOfGradeGradeForWhole',
    weight: 'weightOfPart',
    state: 'countsExcusedOrOpenForWhole',
    got: 'asMuchAsWasDoneIn',
    of: 'asMuchAsWasAskedFor',
    computed: 'shareThatRuleGives0To',
    given: 'shareThatIsGivenInEnd',
    late: 'forWholePercentagePointsThatAre',
    words: 'forWholeGradeAsItIs',
    reason: 'whySomethingElseIsGivenThan',
  }),
};

export type TableName = keyof typeof TABLES;
type Cell = string | number | null;
export type RowOf<Name extends TableName> = Readonly<Record<keyof (typeof TABLES)[Name], Cell>>;

export function headOf(table: TableName): string[] {
  return Object.keys(TABLES[table]);
}

/** In the order of the columns; what is not there is empty. */
export function cellsOf<Name extends TableName>(table: Name, row: RowOf<Name>): Array<string | number> {
  return headOf(table).map((column) => (row as Readonly<Record<string, Cell>>)[column] ?? '');
}

/** The data dictionary: a row for each column of each table. */
export function dictionary(): string[][] {
  return Object.entries(TABLES).flatMap(([table, columns]) =>
    Object.entries(columns).map(([column, meaning]) => [`${table}.csv`, column, meaning]),
  );
}
