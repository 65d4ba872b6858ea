import type { GradeRow, GradesView, GradingWorkView } from '@salt-circle/contracts';
import { givenGrade, givenWords, gradeOf, isSameGrade, type GradingWork } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import type { ExchangeContext } from '../../permissions/access.js';
import { gradeIsReleased } from '../../permissions/exchange-facts.js';
import { PersonLabels } from '../../queries/person-labels.js';
import { courseNames } from '../../queries/course-identities.js';
import { ruleOf } from '../../queries/grade-rule.js';
import { Enrolment } from '../../model/course.js';
import { tasksOf } from './grading.service.js';
import type { Evidenced, GradedSoFar } from './person-evidence.js';
import { say } from '../../words/grades.js';

const whoHasLeft = () => say('someoneWhoHasLeft');

interface RowsPart {
  readonly graders: GradesView['graders'];
  /** What takes long is still being worked out. */
  readonly provisional: boolean;
}

/** Everybody’s grade with what it is made of, and whose it is to grade whom; by name. */
export async function gradeRows(
  manager: EntityManager,
  context: ExchangeContext,
  people: readonly Evidenced[],
  { graders, provisional }: RowsPart,
): Promise<GradeRow[]> {
  const { exchange, course } = context;
  const rule = ruleOf(exchange);
  const labels = await PersonLabels.ofExchange(manager, context);
  const enrolled = await manager.findBy(Enrolment, { courseId: course.id });
  const sections = new Map(enrolled.map((one) => [one.personId, one.section]));
  const tasks = await tasksOf(manager, exchange.id);
  const marking = people.flatMap(({ mark }) => mark?.byId ?? []);
  const markers = await courseNames(manager, course.id, [...new Set(marking)]);
  const graderNames = new Map(graders.map(({ id, name }) => [id, name]));
  const byOf = ({ by }: GradedSoFar): string | null => {
    if (by === null) return null;
    if ('personId' in by) return markers.get(by.personId) ?? whoHasLeft();
    const { you, name } = labels.reviewerOf(by.review);
    return (you === true ? graderNames.get(context.person.id) : name) ?? whoHasLeft();
  };
  const workOf = ({ participant, work }: Evidenced, kind: GradingWork): GradingWorkView => {
    const graderId = tasks.get(participant.id)?.[kind];
    const name = graderNames.get(graderId ?? '');
    // Whoever is not of the staff any more has nobody to grade.
    const grader = graderId === undefined || name === undefined ? null : { id: graderId, name };
    return { state: work[kind].state, by: byOf(work[kind]), grader };
  };
  const rows = people.map((one): GradeRow => {
    const { participant, mark } = one;
    const grade = gradeOf(exchange.gradeParts, rule, one.evidence);
    const told = participant.gradeTold;
    return {
      id: participant.id,
      person: labels.author(participant.id),
      section: sections.get(participant.personId) ?? null,
      draftId: one.draftId,
      reviewIds: one.reviewIds,
      grade,
      grounds: one.grounds,
      work: { draft: workOf(one, 'draft'), reviewing: workOf(one, 'reviewing') },
      mark: {
        answers: mark?.answers ?? {},
        by: mark?.byId == null ? null : (markers.get(mark.byId) ?? whoHasLeft()),
      },
      released: gradeIsReleased(exchange, participant, context.now),
      // Whether a grade is another one than what was told, nobody knows before it is worked out.
      correction:
        !provisional && told !== null && !isSameGrade(told, givenGrade(grade, rule)) ? (givenWords(told) ?? '') : null,
    };
  });
  return rows.sort((a, b) => (a.person.name ?? '').localeCompare(b.person.name ?? ''));
}
