import type { Role } from '../visibility/facts.js';

const MEMBERSHIP = 'http://purl.imsglobal.org/vocab/lis/v2/membership';
/** Sub-roles of instructors who help, and do not answer for the course. */
const HELPING = /^(?:TeachingAssistant|Grader)/;

/**
 * What somebody is in the course, of the roles that a platform names. Only roles in the course count, not those in the institution or the
 * system: an instructor of the university is not one of every course. Plain names (`Learner`) are those of the course as well.
 *
 * LTI 1.3 core, section A.2 (role vocabularies): sub-roles stand after the path of their principal role, and come with it mostly.
 *
 * @returns null where none of them has a place here (a mentor, an observer), also for an empty list
 */
export function courseRole(roles: readonly string[]): Role | null {
  const named = roles.flatMap((role): Array<readonly [principal: string, sub: string]> => {
    if (/^[A-Za-z]+$/.test(role)) return [[role, '']];
    const found = new RegExp(`^${MEMBERSHIP.replaceAll('.', '\\.')}(?:/([A-Za-z]+))?#([A-Za-z]+)$`).exec(role);
    if (found === null) return [];
    const [, principal, last = ''] = found;
    return principal === undefined ? [[last, '']] : [[principal, last]];
  });
  // Who helps is named as an instructor too, so the sub-role decides.
  if (named.some(([principal, sub]) => principal === 'Instructor' && HELPING.test(sub))) return 'assistant';
  if (named.some(([principal]) => HELPING.test(principal))) return 'assistant';
  if (named.some(([principal]) => principal === 'Instructor' || principal === 'Administrator')) return 'instructor';
  return named.some(([principal]) => principal === 'Learner') ? 'student' : null;
}
