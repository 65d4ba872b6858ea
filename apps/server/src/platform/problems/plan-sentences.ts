import { wordsBy } from '@salt-circle/core';
import type { FieldProblem } from '@salt-circle/contracts';
import type {
  CoreProblem,
  DeliverableProblemCode,
  ContradictionCode,
  GradePartName,
  GradeProblemCode,
  MarkingProblemCode,
  GradeRuleProblemCode,
  LateProblemCode,
  SetupProblemCode,
} from '@salt-circle/core';
import { say } from '../../words/problems.js';
import { fact } from './fact.js';

/** Names of what a setup speaks of, for sentences about it. */
export interface SetupNames {
  readonly student: (id: string) => string;
  readonly group: (id: string) => string;
  readonly groupSet: string;
}

function field(problem: CoreProblem, sentence: string): FieldProblem {
  return { path: problem.path.join('.'), code: problem.code, sentence };
}

/** A contradiction of a plan, in words. */
export function setupProblem(problem: CoreProblem<SetupProblemCode>, names: SetupNames): FieldProblem {
  return field(problem, setupSentence(problem, names));
}

function setupSentence({ code, facts }: CoreProblem<SetupProblemCode>, names: SetupNames): string {
  switch (code) {
    case 'reviews-invalid':
      return say('eachStudentCanGiveTo', { min: fact(facts, 'min'), max: fact(facts, 'max') });
    case 'nobody-takes-part':
      return facts['students'] === 0
        ? say('courseHasNoStudentsYet')
        : say('noneOfStudentsOfCourse', { students: fact(facts, 'students') });
    case 'nobody-to-review':
      return facts['participants'] === 1 ? say('onlyOneStudentTakesPart') : say('byTheseSettingsSomeWould');
    case 'group-set-missing':
      return say('thisGoesByGroupsBut');
    case 'students-without-group': {
      const count = facts['count'] as number;
      const first = names.student(facts['studentId'] as string);
      const { groupSet } = names;
      return count === 1 ? say('is', { first, groupSet }) : say('andOthersAre', { first, others: count - 1, groupSet });
    }
    case 'group-of-one':
      return say('hasOnlyOneMemberWho', { group: names.group(facts['groupId'] as string) });
    case 'one-group-only':
      return say('allWhoTakePartAre');
    case 'group-hand-in-within-group':
      return say('groupsHandInTogetherSo');
    case 'self-review-of-group':
      return say('selfReviewIsOfOnes');
    case 'too-many-reviews': {
      const asked = fact(facts, 'asked');
      const drafts = facts['drafts'] as number;
      return facts['groupId'] === ''
        ? say('thereAre', { asked, drafts })
        : say('forThereAre', { asked, drafts, group: names.group(facts['groupId'] as string) });
    }
  }
}

/** What is wrong with a deliverable, in words. */
export function deliverableProblem(problem: CoreProblem<DeliverableProblemCode>): FieldProblem {
  const { facts } = problem;
  const title = typeof facts['title'] === 'string' && facts['title'].trim() !== '' ? ` “${facts['title']}”` : '';
  const one = say('deliverable', { number: fact(facts, 'number'), title });
  const sentences: Readonly<Record<DeliverableProblemCode, string>> = {
    'deliverables-none': say('nothingIsToBeHanded'),
    'deliverables-too-many': say('handInCanHaveUp', { max: fact(facts, 'max') }),
    'deliverables-none-required': say('noDeliverableIsRequiredSo'),
    'deliverable-untitled': say('hasNoTitleSayWhat', { one }),
    'deliverable-duplicate': say('twoDeliverablesHaveSameId'),
    'deliverable-same-title': say('hasSameTitleAsAnother', { one }),
    'deliverable-no-family': say('isFileButNoKind', { one }),
    'deliverable-size': say('largestSizeIsWholeNumber', { one, max: fact(facts, 'max') }),
  };
  return field(problem, sentences[problem.code]);
}

/** What is wrong with the rule for late drafts, in words. */
export function lateProblem(problem: CoreProblem<LateProblemCode>): FieldProblem {
  const { facts } = problem;
  const sentences: Readonly<Record<LateProblemCode, string>> = {
    'late-amount': say('whatLateHandInLoses', { max: fact(facts, 'max') }),
    'late-cap': say('mostThatCanBeLost', { amount: fact(facts, 'amount'), max: fact(facts, 'max') }),
    'late-grace': say('gracePeriodMustBeWhole', { max: fact(facts, 'max') }),
    'late-without-window': say('lateHandInsAreTo'),
  };
  return field(problem, sentences[problem.code]);
}

export const PART_WORDS: Readonly<Record<GradePartName, string>> = wordsBy(say, {
  'handing-in': 'handingIn',
  'reviews-done': 'reviewsDone',
  'form-completed': 'formCompleted',
  'notes-made': 'notesMade',
  'peer-score': 'scoreFromPeers',
  'review-quality': 'qualityOfReviewing',
  replies: 'replies',
  reflection: 'reflection',
  'instructor-mark': 'instructorsMark',
});

/** What is wrong with a part of the grade, in words. */
type GradingProblemCode = GradeProblemCode | GradeRuleProblemCode | MarkingProblemCode;

export function gradeProblem(problem: CoreProblem<GradingProblemCode>): FieldProblem {
  const words = PART_WORDS[problem.facts['part'] as GradePartName];
  const sentences: Readonly<Record<GradingProblemCode, string>> = {
    'mark-needs-points': say('formByWhichStaffMark', { work: fact(problem.facts, 'work') }),
    'grade-bands': say('bandsNeedOneFrom0'),
    'grade-band-name': say('nameBand', { band: fact(problem.facts, 'band') }),
    'grade-points': say('gradeIsOutOfMore', { most: fact(problem.facts, 'most') }),
    'grade-steps': say('stepsAndMinimumOfLie', { words }),
    'grade-most': say('gradeComesTo100To', { most: fact(problem.facts, 'most') }),
    'grade-nothing': say('allPartsAreBonusSo'),
    'grade-quality': say('giveAtLeastOneColumn'),
    'part-twice': say('isInGradeTwiceRemove', { words }),
    'part-weight': say('weightOfMustBeMore', { words, max: fact(problem.facts, 'max') }),
    'part-needs-points': say('isPartOfGradeBut', { words }),
    'part-needs-replies': say('arePartOfGradeBut', { words }),
  };
  return field(problem, sentences[problem.code]);
}

/** Settings that do not go together, in words: what, and the ways out. */
export function contradictionRemark(problem: CoreProblem<ContradictionCode>): FieldProblem {
  const { facts } = problem;
  const words = PART_WORDS[facts['part'] as GradePartName];
  const sentences: Readonly<Record<ContradictionCode, string>> = {
    'late-points-without-points': say('beingLateLosesPointsBut'),
    'late-without-grade': say('beingLateLosesSomethingBut'),
    'part-needs-notes': say('isPartOfGradeButForm', { words }),
    'part-needs-stage': say('isPartOfGradeButThere', { words }),
    'criterion-gives-nothing': say('allLevelsOfGive0', { title: fact(facts, 'title') }),
    'bands-apart': say('hasNoBandBetweenAnd', {
      title: fact(facts, 'title'),
      above: fact(facts, 'above'),
      below: fact(facts, 'below'),
    }),
  };
  return field(problem, sentences[problem.code]);
}
