import { Injectable } from '@nestjs/common';
import type { NoteView, OwnRemarkRequest, OwnRemarkView } from '@salt-circle/contracts';
import { countWords } from '@salt-circle/core';
import { In, IsNull, type EntityManager } from 'typeorm';
import type { ExchangeContext } from '../../permissions/access.js';
import type { CurrentUser } from '../../auth/view-as.js';
import { refusal } from '../../platform/problems/sentences.js';
import { Course } from '../../model/course.js';
import { OwnRemark } from '../../model/own-remark.js';
import { Clock } from '../../platform/clock/clock.js';
import { Database } from '../../platform/database/database.js';
import { ProblemError } from '../../platform/problems/problem-error.js';
import { Ids } from '../../platform/ids/ids.js';
import { say } from '../../words/reviews.js';

/** Fewer words are written faster than they are found. */
const LEAST_WORDS = 3;
/** More than anybody looks through; the least used ones give way. */
const MOST = 500;
/** UTF-16 code units of a name that is taken from the remark itself. */
const NAME_LENGTH = 60;

/** Remarks of a person's own reviews, to be used again. */
@Injectable()
export class OwnRemarks {
  constructor(
    private readonly database: Database,
    private readonly ids: Ids,
    private readonly clock: Clock,
  ) {}

  /** The most used first. */
  async list(person: CurrentUser): Promise<OwnRemarkView[]> {
    // They are nobody else's business, also not of staff who look with somebody's eyes.
    if (person.viewAs !== undefined) return [];
    const manager = this.database.read;
    const rows = await manager.find(OwnRemark, {
      where: { personId: person.id, removedAt: IsNull() },
      order: { uses: 'DESC', title: 'ASC' },
      take: MOST,
    });
    const where = { id: In([...new Set(rows.map(({ courseId }) => courseId))]) };
    const courses = new Map((await manager.find(Course, { where })).map((one) => [one.id, one.title]));
    return rows.map(({ id, title, body, courseId, uses }) => ({
      id,
      title,
      body,
      courseTitle: courses.get(courseId) ?? '',
      uses,
    }));
  }

  /**
   * What stands in the notes of a submitted review is kept for the next one.
   * @param again the review was submitted before: what it said then is not counted twice
   */
  async keep(
    manager: EntityManager,
    { person, course }: ExchangeContext,
    { notes, again }: { readonly notes: readonly NoteView[]; readonly again: boolean },
  ): Promise<void> {
    const bodies = new Set(notes.map(({ body }) => body.trim()).filter((body) => countWords(body) >= LEAST_WORDS));
    for (const body of bodies) {
      const known = await manager.findOneBy(OwnRemark, { personId: person.id, body });
      if (known !== null && again) continue;
      if (known !== null) {
        await manager.update(OwnRemark, { id: known.id }, { uses: known.uses + 1 });
        continue;
      }
      await manager.insert(OwnRemark, {
        id: this.ids.uuid(),
        personId: person.id,
        courseId: course.id,
        title: nameOf(body),
        body,
        uses: 1,
        removedAt: null,
      });
    }
  }

  async change(person: CurrentUser, id: string, { title, body }: OwnRemarkRequest): Promise<void> {
    await this.database.write(async (manager) => {
      const row = await this.#own(manager, person, id);
      const other = await manager.findOneBy(OwnRemark, { personId: row.personId, body });
      if (other !== null && other.id !== id) {
        throw new ProblemError({
          code: 'conflict',
          sentence: say('anotherOfYourRemarksSays'),
          whatToDo: say('removeOneOfTwoOr'),
        });
      }
      await manager.update(OwnRemark, { id }, { title, body });
    });
  }

  async remove(person: CurrentUser, id: string): Promise<void> {
    await this.database.write(async (manager) => {
      await this.#own(manager, person, id);
      await manager.update(OwnRemark, { id }, { removedAt: this.clock.now() });
    });
  }

  async #own(manager: EntityManager, person: CurrentUser, id: string): Promise<OwnRemark> {
    const row = await manager.findOneBy(OwnRemark, { id, personId: person.id, removedAt: IsNull() });
    if (row === null) throw refusal('unknown');
    return row;
  }
}

/** Its first words. */
function nameOf(body: string): string {
  const line = body.replace(/\s+/g, ' ');
  return line.length <= NAME_LENGTH ? line : `${line.slice(0, NAME_LENGTH - 1).trimEnd()}…`;
}
