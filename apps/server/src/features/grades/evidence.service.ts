import { Injectable } from '@nestjs/common';
import { explainAdjusted, resolveDates, type Adjusted, type GradeRule } from '@salt-circle/core';
import { In, type EntityManager, type EntityTarget, type FindOptionsWhere } from 'typeorm';
import { datesOf } from '../../permissions/exchange-facts.js';
import { allPersonalDates } from '../../permissions/personal-dates.js';
import { activeParticipants } from '../../queries/participants.js';
import { nearestInPractice } from '../../permissions/practice.js';
import { rowsOfReviews } from '../../queries/rows-of-reviews.js';
import { countingFigures } from '../../queries/versions.js';
import { Exchange, Participant } from '../../model/exchange.js';
import { GradeOverrideRow, ReviewingMark } from '../../model/grade.js';
import { ReplyRow } from '../../model/reply.js';
import { ReflectionRow } from '../../model/revision.js';
import { portions } from '../../platform/database/portions.js';
import { groupedBy } from '../../platform/grouping/grouped-by.js';
import { Adjusting } from './adjusting.js';
import { evidenceOf, type Around, type Evidenced, type Sources } from './person-evidence.js';
import { ratingsOf, reviewsInGrades } from './reviews-in-grades.js';

export interface AllEvidence {
  readonly people: readonly Evidenced[];
  /** Null where severity is not taken out. */
  readonly adjusted: Adjusted | null;
  /** Scores are weighted by practice, and nobody has practised. */
  readonly unpractised: boolean;
}

/** What everybody did, as the parts of the grade ask for it. */
@Injectable()
export class Evidence {
  constructor(private readonly adjusting: Adjusting) {}

  /** A fixed number of queries, but for what comes in portions. */
  async of(manager: EntityManager, around: Around, rule: GradeRule): Promise<AllEvidence> {
    const { exchange } = around;
    const participants = await activeParticipants(manager, exchange.id);
    const read = await reviewsInGrades(manager, around);
    const ratings = ratingsOf(read.reviews);
    const adjusted = rule.score === 'adjusted' ? await this.adjusting.of(exchange.id, ratings) : null;
    const ids = participants.map(({ id }) => id);
    const counting = await countingFigures(manager, exchange.id);
    const replies = await rowsOfReviews(manager, ReplyRow, exchange.id).andWhere("row.as = 'author'").getMany();
    const sources: Sources = {
      ...{ around, rule, adjusted, ...read },
      explained: adjusted === null ? new Map() : explainAdjusted(adjusted, ratings),
      practised: rule.score === 'practice' ? await practisedBy(manager, exchange) : new Map(),
      dates: resolveDates(datesOf(exchange)),
      own: await allPersonalDates(manager, exchange),
      handedInAt: new Map([...counting].map(([draftId, { handedInAt }]) => [draftId, handedInAt])),
      answered: new Set(replies.map(({ reviewId, participantId }) => `${participantId} ${reviewId}`)),
      reflections: byParticipant(await ofThese(manager, ReflectionRow, ids)),
      marks: byParticipant(await ofThese(manager, ReviewingMark, ids)),
      overrides: groupedBy(await ofThese(manager, GradeOverrideRow, ids), ({ participantId }) => participantId),
    };
    const of = evidenceOf(sources);
    const unpractised = rule.score === 'practice' && sources.practised.size === 0;
    return { people: participants.map(of), adjusted, unpractised };
  }
}

/** Also of those who have left: what they scored still counts. */
async function practisedBy(manager: EntityManager, exchange: Exchange): Promise<Map<string, number>> {
  const near = await nearestInPractice(manager, exchange);
  const all = await manager.findBy(Participant, { exchangeId: exchange.id });
  return new Map(
    all.flatMap(({ id, personId }) => {
      const share = near.get(personId);
      return share === undefined ? [] : [[id, share] as const];
    }),
  );
}

interface OfParticipant {
  readonly participantId: string;
}

function byParticipant<Row extends OfParticipant>(rows: readonly Row[]): Map<string, Row> {
  return new Map(rows.map((row) => [row.participantId, row]));
}

async function ofThese<Row extends OfParticipant>(
  manager: EntityManager,
  target: EntityTarget<Row>,
  ids: readonly string[],
): Promise<Row[]> {
  const found: Row[] = [];
  for (const some of portions(ids)) {
    found.push(...(await manager.findBy(target, { participantId: In(some) } as FindOptionsWhere<Row>)));
  }
  return found;
}
