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
      return `Each student can give ${facts['min']} to ${facts['max']} reviews. Enter a whole number in that span.`;
    case 'nobody-takes-part':
      return facts['students'] === 0
        ? 'The course has no students yet, so nobody would take part. Add them under People.'
        : `None of the ${facts['students']} students of the course takes part by these settings. Choose sections or groups that have members.`;
    case 'nobody-to-review':
      return facts['participants'] === 1
        ? 'Only one student takes part, so there is nobody to review whom. At least two are needed.'
        : 'By these settings some would have nothing to review. Choose another way of who reviews whom.';
    case 'group-set-missing':
      return 'This goes by groups, but no group set is chosen. Choose one, or make one under Groups.';
    case 'students-without-group': {
      const count = facts['count'] as number;
      const first = names.student(facts['studentId'] as string);
      const who = count === 1 ? `${first} is` : `${first} and ${count === 2 ? 'one other' : `${count - 1} others`} are`;
      return `${who} in no group of “${names.groupSet}”. Put them into one under Groups, or leave them out of the exchange.`;
    }
    case 'group-of-one':
      return `“${names.group(facts['groupId'] as string)}” has only one member, who would have nobody to review. Move somebody there under Groups, or dissolve it.`;
    case 'one-group-only':
      return 'All who take part are in one group, so there is no other group to review. At least two groups are needed.';
    case 'group-hand-in-within-group':
      return 'Groups hand in together, so within a group there is nothing else to review. Let students review other groups, or hand in alone.';
    case 'self-review-of-group':
      return 'A self-review is of one’s own draft, but here groups hand in together. Turn it off, or let students hand in alone.';
    case 'too-many-reviews': {
      const where =
        facts['groupId'] === '' ? 'there are' : `for “${names.group(facts['groupId'] as string)}” there are`;
      const drafts = facts['drafts'] === 1 ? 'is only 1 draft' : `are only ${facts['drafts']} drafts`;
      return `Each student is to give ${facts['asked']} reviews, but ${where.replace(/are$/u, drafts)} by others to review. Ask for at most ${facts['drafts']}.`;
    }
  }
}

/** What is wrong with a deliverable, in words. */
export function deliverableProblem(problem: CoreProblem<DeliverableProblemCode>): FieldProblem {
  const { facts } = problem;
  const title = typeof facts['title'] === 'string' && facts['title'].trim() !== '' ? ` “${facts['title']}”` : '';
  const one = `Deliverable ${facts['number']}${title}`;
  const sentences: Readonly<Record<DeliverableProblemCode, string>> = {
    'deliverables-none': 'Nothing is to be handed in. Add at least one deliverable.',
    'deliverables-too-many': `A hand-in can have up to ${facts['max']} deliverables.`,
    'deliverables-none-required': 'No deliverable is required, so a hand-in could be empty. Require at least one.',
    'deliverable-untitled': `${one} has no title. Say what authors are to hand in.`,
    'deliverable-duplicate': 'Two deliverables have the same id. Remove one of them and add it again.',
    'deliverable-same-title': `${one} has the same title as another one. Authors could not tell them apart.`,
    'deliverable-no-family': `${one} is a file, but no kind of file is allowed. Allow at least one.`,
    'deliverable-size': `${one}: the largest size is a whole number of megabytes, from 1 to ${facts['max']}.`,
  };
  return field(problem, sentences[problem.code]);
}

/** What is wrong with the rule for late drafts, in words. */
export function lateProblem(problem: CoreProblem<LateProblemCode>): FieldProblem {
  const { facts } = problem;
  const sentences: Readonly<Record<LateProblemCode, string>> = {
    'late-amount': `What a late hand-in loses must be more than 0 and at most ${facts['max']}.`,
    'late-cap': `The most that can be lost must be at least what is lost at first (${facts['amount']}), and at most ${facts['max']}.`,
    'late-grace': `The grace period must be a whole number of minutes from 0 to ${facts['max']}.`,
    'late-without-window':
      'Late hand-ins are to lose something, but there is no late window. Set “Late until”, or take the loss away.',
  };
  return field(problem, sentences[problem.code]);
}

export const PART_WORDS: Readonly<Record<GradePartName, string>> = {
  'handing-in': 'Handing in',
  'reviews-done': 'Reviews done',
  'form-completed': 'Form completed',
  'notes-made': 'Notes made',
  'peer-score': 'Score from peers',
  'review-quality': 'Quality of reviewing',
  replies: 'Replies',
  reflection: 'Reflection',
  'instructor-mark': 'Instructor’s mark',
};

/** What is wrong with a part of the grade, in words. */
type GradingProblemCode = GradeProblemCode | GradeRuleProblemCode | MarkingProblemCode;

export function gradeProblem(problem: CoreProblem<GradingProblemCode>): FieldProblem {
  const words = PART_WORDS[problem.facts['part'] as GradePartName];
  const mark = problem.facts['work'] === 'draft' ? 'the mark of the draft' : 'the mark of reviewing';
  const sentences: Readonly<Record<GradingProblemCode, string>> = {
    'mark-needs-points': `The form by which staff mark gives no points, but ${mark} is part of the grade. Choose another form under Grades, or take the mark out of the grade.`,
    'grade-bands': 'Bands need one from 0 on, and no two from the same bound. Change the bounds.',
    'grade-band-name': `Name band ${problem.facts['band']}.`,
    'grade-points': `A grade is out of more than 0 and at most ${problem.facts['most']} points.`,
    'grade-steps': `Steps and minimum of “${words}” lie between 0 and 100 percent, and there is at least one step.`,
    'grade-most': `A grade comes to 100 to ${problem.facts['most']} percent at most.`,
    'grade-nothing': 'All parts are a bonus, so there is nothing that they could be added to. Let at least one count.',
    'grade-quality': 'Give at least one column of the quality of reviewing a weight, and none less than 0.',
    'part-twice': `“${words}” is in the grade twice. Remove one of them.`,
    'part-weight': `The weight of “${words}” must be more than 0 and at most ${problem.facts['max']}.`,
    'part-needs-points': `“${words}” is part of the grade, but the review form gives no points. Give points in the form, or take the part out.`,
    'part-needs-replies': `“${words}” are part of the grade, but there is no time for replies. Set “Replies due”, or take the part out.`,
  };
  return field(problem, sentences[problem.code]);
}

/** Settings that do not go together, in words: what, and the ways out. */
export function contradictionRemark(problem: CoreProblem<ContradictionCode>): FieldProblem {
  const { facts } = problem;
  const words = PART_WORDS[facts['part'] as GradePartName];
  const sentences: Readonly<Record<ContradictionCode, string>> = {
    'late-points-without-points':
      'Being late loses points, but the review form gives none. Give points in the form, or let it lose percent.',
    'late-without-grade': 'Being late loses something, but there is no grade that it could be taken from.',
    'part-needs-notes': `“${words}” is part of the grade, but the form asks for no notes. Ask for some, or take the part out.`,
    'part-needs-stage': `“${words}” is part of the grade, but there is no time for it. Set “Replies due” or “Revision due”, or take the part out.`,
    'criterion-gives-nothing': `All levels of “${facts['title']}” give 0 points, so it counts for nothing.`,
    'bands-apart': `“${facts['title']}” has no band between ${facts['above']} and ${facts['below']} points, so nothing says what those mean.`,
  };
  return field(problem, sentences[problem.code]);
}
