import { groupOf, takesPart, type Setup, type Student } from './setup.js';

/** How many drafts one participant may review, and is asked to. */
export interface Eligible {
  readonly studentId: string;
  readonly groupId: string | null;
  /** Drafts by others that may be reviewed. */
  readonly drafts: number;
  /** Reviews of others asked for: all of `drafts` for partners, otherwise the same for everybody. */
  readonly asked: number;
}

/**
 * What the settings mean for each participant, if everybody hands in. Of group hand-ins there is one draft a group;
 * somebody without a group has none and belongs to none. Linear in the number of students.
 */
export function eligibleDrafts(setup: Setup, students: readonly Student[]): Eligible[] {
  const participants = students.filter((one) => takesPart(setup, one));
  const sizes = new Map<string, number>();
  let grouped = 0;
  for (const student of participants) {
    const groupId = groupOf(student, setup.groupSetId);
    if (groupId === null) continue;
    grouped += 1;
    sizes.set(groupId, (sizes.get(groupId) ?? 0) + 1);
  }
  const byGroups = setup.handInAs === 'group';
  const total = byGroups ? sizes.size : participants.length;
  return participants.map((student): Eligible => {
    const groupId = groupOf(student, setup.groupSetId);
    const size = groupId === null ? 0 : (sizes.get(groupId) as number);
    const own = byGroups ? (groupId === null ? 0 : 1) : 1;
    const drafts = {
      anyone: () => total - own,
      // A group hands in one draft, so within a group there is never another one to review.
      'own-group': () => (byGroups ? 0 : Math.max(size - 1, 0)),
      partners: () => (byGroups ? 0 : Math.max(size - 1, 0)),
      'other-groups': () => (groupId === null ? 0 : byGroups ? total - 1 : grouped - size),
    }[setup.whom]();
    return {
      studentId: student.id,
      groupId,
      drafts,
      asked: setup.whom === 'partners' ? drafts : setup.reviewsPerStudent,
    };
  });
}
