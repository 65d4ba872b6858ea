import type { Enrolment } from '../model/course.js';

export interface TestPerson {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly campusId?: string;
  readonly role: Enrolment['role'] | null;
}

export const PEOPLE: readonly TestPerson[] = [
  { id: 'p-ines', name: 'Ines Marchetti', email: 'ines@example.org', role: 'instructor' },
  { id: 'p-tom', name: 'Tomasz Wilk', email: 'tomasz@example.org', role: 'assistant' },
  { id: 'p-ann', name: 'Ann Mensah', email: 'ann@example.org', campusId: 'c-1', role: 'student' },
  { id: 'p-ben', name: 'Ben Kiss', email: 'ben@example.org', campusId: 'c-2', role: 'student' },
  { id: 'p-cho', name: 'Cho Sato', email: 'cho@example.org', campusId: 'c-3', role: 'student' },
  { id: 'p-out', name: 'Otto Fremd', email: 'otto@example.org', role: null },
];

export const [INES, TOM, ANN, BEN, CHO, OUT] = [0, 1, 2, 3, 4, 5] as const;
