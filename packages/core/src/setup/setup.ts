import type { NamesPolicy, SelfReview } from '../visibility/facts.js';

/** Who of the course's students takes part. */
export type TakesPart =
  | { readonly kind: 'everyone' }
  /** Students of any of these sections or groups. */
  | { readonly kind: 'chosen'; readonly sections: readonly string[]; readonly groupIds: readonly string[] }
  /** All but these, by id of the enrolment, by section or group. */
  | {
      readonly kind: 'except';
      readonly studentIds: readonly string[];
      readonly sections: readonly string[];
      readonly groupIds: readonly string[];
    };

/**
 * Who may review whom. `partners`: everybody reviews all others of the own group, whatever its size, so that a group of
 * two are standing partners and in a group of three each reviews the two others.
 */
export type Whom = 'anyone' | 'own-group' | 'other-groups' | 'partners';

/** The settings that decide who reviews whom. */
export interface Setup {
  readonly takesPart: TakesPart;
  readonly handInAs: 'alone' | 'group';
  readonly whom: Whom;
  /** The group set that `whom` and `handInAs` speak of, or null where neither does. */
  readonly groupSetId: string | null;
  /** 1 to 10; not used for `partners`. */
  readonly reviewsPerStudent: number;
  readonly selfReview: SelfReview;
  readonly ownHandInFirst: boolean;
  readonly names: NamesPolicy;
}

/** One student of the course, as far as planning goes. */
export interface Student {
  readonly id: string;
  readonly section: string | null;
  /** By group set; a student has at most one group of a set. */
  readonly groupIds: Readonly<Record<string, string | undefined>>;
}

export function takesPart({ takesPart: rule }: Pick<Setup, 'takesPart'>, student: Student): boolean {
  if (rule.kind === 'everyone') return true;
  const groups = Object.values(student.groupIds);
  const named =
    (student.section !== null && rule.sections.includes(student.section)) ||
    groups.some((id) => id !== undefined && rule.groupIds.includes(id));
  if (rule.kind === 'chosen') return named;
  return !named && !rule.studentIds.includes(student.id);
}

/** Whether the settings need every student to be in a group. */
export function needsGroups({ whom, handInAs }: Pick<Setup, 'whom' | 'handInAs'>): boolean {
  return whom !== 'anyone' || handInAs === 'group';
}

export function groupOf(student: Student, setId: string | null): string | null {
  return setId === null ? null : (student.groupIds[setId] ?? null);
}
