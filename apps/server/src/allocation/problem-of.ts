import { allocate, groupOf, type Allocation, type AllocationProblem } from '@salt-circle/core';
import type { EntityManager } from 'typeorm';
import { Authors } from '../drafts/authors.js';
import { LAST_NUMBER } from '../drafts/versions.js';
import { Exchange, type Participant } from '../exchanges/entities.js';
import { allOwnTimes } from '../exchanges/own-times.js';
import { activeParticipants } from '../exchanges/participants.js';
import { studentsOf } from '../people/students.js';

export interface HandedIn {
  readonly draftId: string;
  readonly participantId: string;
  readonly groupId: string | null;
  readonly alias: string | null;
  readonly title: string;
  /** Participants who wrote it: one, or all members of a group. */
  readonly authorIds: readonly string[];
}

/** All that who reviews whom follows from; its digest tells whether it has changed. */
export interface Question {
  readonly reviewerIds: readonly string[];
  readonly drafts: readonly HandedIn[];
  readonly whom: Exchange['whom'];
  readonly reviewsPerStudent: number;
  readonly selfReview: boolean;
  /** Group of each participant, where the exchange goes by groups. */
  readonly groups: Readonly<Record<string, string | null>>;
}

export interface Loaded {
  readonly question: Question;
  /** Those who take no part: not handed in where that is needed, excused, or no longer in the course. */
  readonly leftOut: readonly string[];
}

/** In the order of the participants' random ids: nothing of the persons steers who reviews whom. */
export async function loadQuestion(manager: EntityManager, exchange: Exchange): Promise<Loaded> {
  const participants = await activeParticipants(manager, exchange.id);
  const own = await allOwnTimes(manager, exchange);
  const excused = ({ personId }: Participant) => own.get(personId)?.excused === true;
  const taking = new Map(participants.filter((one) => !excused(one)).map((one) => [one.id, one]));
  const drafts = (await handedInDrafts(manager, exchange))
    .map((draft) => ({ ...draft, authorIds: draft.authorIds.filter((id) => taking.has(id)) }))
    .filter(({ authorIds }) => authorIds.length > 0);
  const handedIn = new Set(drafts.flatMap(({ authorIds }) => authorIds));
  const reviewerIds = [...taking.keys()].filter((id) => !exchange.ownHandInFirst || handedIn.has(id));
  const students = new Map((await studentsOf(manager, exchange.courseId)).map((one) => [one.personId, one]));
  const groups = [...taking.values()].map(({ id, personId }) => {
    const student = students.get(personId);
    return [id, student === undefined ? null : groupOf(student, exchange.groupSetId)] as const;
  });
  return {
    question: {
      reviewerIds,
      drafts,
      whom: exchange.whom,
      reviewsPerStudent: exchange.reviewsPerStudent,
      selfReview: exchange.selfReview !== 'off',
      groups: exchange.whom === 'anyone' ? {} : Object.fromEntries(groups),
    },
    leftOut: participants.filter(({ id }) => !reviewerIds.includes(id)).map(({ id }) => id),
  };
}

/** The last version's title of every draft that was handed in. */
export async function handedInDrafts(manager: EntityManager, exchange: Exchange): Promise<HandedIn[]> {
  const authors = await Authors.load(manager, exchange);
  const rows = await manager
    .createQueryBuilder('draft', 'draft')
    .innerJoin('draft_version', 'version', `version.draftId = draft.id AND version.number = ${LAST_NUMBER}`)
    .select([
      'draft.id AS draftId',
      'draft.participantId AS participantId',
      'draft.groupId AS groupId',
      'draft.alias AS alias',
      'version.title AS title',
    ])
    .where('draft.exchangeId = :exchangeId', { exchangeId: exchange.id })
    .orderBy('draft.participantId', 'ASC')
    .getRawMany<Omit<HandedIn, 'authorIds'>>();
  return rows.map((row) => ({ ...row, authorIds: authors.of(row) }));
}

/**
 * Solves it by what may review what: among everybody; in each group by itself; or among everybody with all
 * of a group counting as authors of its drafts, so that nobody gets one of the own group.
 * Reviews of one's own draft are not among the pairs: they are no matter of choice.
 */
export function solve(question: Question, seed: number): Allocation {
  const { whom, drafts, reviewerIds, groups } = question;
  if (whom === 'anyone') return allocate(problem(question, reviewerIds, drafts, seed));
  if (whom === 'other-groups') {
    const members = new Map<string, string[]>();
    for (const [id, group] of Object.entries(groups)) {
      if (group !== null) members.set(group, [...(members.get(group) ?? []), id]);
    }
    const authors = ({ authorIds }: HandedIn) => [
      ...new Set(authorIds.flatMap((id) => members.get(groups[id] ?? '') ?? [id])),
    ];
    return allocate(problem(question, reviewerIds, drafts, seed, authors));
  }
  const parts = [...new Set(Object.values(groups))].filter((group) => group !== null).sort();
  const solved = parts.map((group, index) => {
    const inGroup = (id: string) => groups[id] === group;
    const own = drafts.filter(({ authorIds }) => authorIds.some(inGroup));
    return allocate(problem(question, reviewerIds.filter(inGroup), own, seed + index));
  });
  return joined(solved);
}

function problem(
  { whom, reviewsPerStudent }: Question,
  reviewerIds: readonly string[],
  drafts: readonly HandedIn[],
  seed: number,
  authors: (draft: HandedIn) => readonly string[] = ({ authorIds }) => authorIds,
): AllocationProblem {
  const authored = new Set(drafts.flatMap(({ authorIds }) => authorIds));
  // Partners review all the others, however many those are.
  const capacity = (id: string) =>
    whom === 'partners' ? drafts.length - (authored.has(id) ? 1 : 0) : reviewsPerStudent;
  return {
    reviewers: reviewerIds.map((id) => ({ id, capacity: capacity(id) })),
    drafts: drafts.map((draft) => ({ id: draft.draftId, authorIds: authors(draft) })),
    seed,
  };
}

function joined(all: readonly Allocation[]): Allocation {
  const sum = (of: (one: Allocation) => number) => all.reduce((total, one) => total + of(one), 0);
  const withDrafts = all.filter(({ pairs }) => pairs.length > 0);
  const counts = (of: (one: Allocation) => number) => withDrafts.map(of);
  return {
    pairs: all.flatMap(({ pairs }) => pairs),
    quality: {
      asked: sum(({ quality }) => quality.asked),
      placed: sum(({ quality }) => quality.placed),
      fewestPerDraft: withDrafts.length === 0 ? 0 : Math.min(...counts(({ quality }) => quality.fewestPerDraft)),
      mostPerDraft: withDrafts.length === 0 ? 0 : Math.max(...counts(({ quality }) => quality.mostPerDraft)),
      mutualPairs: sum(({ quality }) => quality.mutualPairs),
    },
    shortfalls: all.flatMap(({ shortfalls }) => shortfalls),
  };
}
