import type { AllocationView, TodayView } from '@salt-circle/contracts';
import type { Pair } from '@salt-circle/core';
import { Mail } from '../model/mail.js';
import { PlannedRuns } from '../features/allocation/planned-runs.js';
import { handIn, publishedExchange } from './acts.js';
import { ANN, BEN, CHO, INES, PEOPLE, type TestPerson } from './people.js';
import { AT, PLAN } from './plan.js';
import { World } from './world.js';

const MORE: readonly TestPerson[] = ['Dee', 'Eli', 'Fay', 'Gus', 'Hal'].map((name, index) => ({
  id: `p-${name.toLowerCase()}`,
  name: `${name} Lindqvist`,
  email: `${name.toLowerCase()}@example.org`,
  campusId: `c-${index + 4}`,
  role: 'student',
}));

/** Eight students, by their places in the list: the three of the usual world, and five more. */
export const EIGHT: readonly number[] = [ANN, BEN, CHO, 6, 7, 8, 9, 10];

/** Enough people for an allocation that is a matter of choice, and one exchange of theirs. */
export class Eight {
  id = '';

  private constructor(readonly world: World) {}

  static async open(): Promise<Eight> {
    return new Eight(await World.open({}, [...PEOPLE, ...MORE]));
  }

  get path(): string {
    return `/exchanges/${this.id}/allocation`;
  }

  /** A new exchange, in which drafts are being written. */
  async begin(part: Partial<typeof PLAN> = {}): Promise<void> {
    this.world.clock.goTo(AT.drafting);
    this.id = await publishedExchange(this.world, { reviewsPerStudent: 2, ...part });
  }

  async handedInBy(people: readonly number[]): Promise<void> {
    for (const person of people) await handIn(this.world, person, this.id, `The bed rose by ${person} centimetres.`);
  }

  /** Takes the last step back, as the board shows it. */
  async undo(): Promise<AllocationView> {
    const step = (await this.look()).undo?.step ?? 0;
    return this.world.do<AllocationView>(INES, 'post', `${this.path}/undo`, { step });
  }

  look(person: number = INES): Promise<AllocationView> {
    return this.world.do<AllocationView>(person, 'get', this.path);
  }

  nameOf(person: number): string {
    return (this.world.people[person] as TestPerson).name;
  }

  async lettersTo(person: number, about = 'for you to review'): Promise<Mail[]> {
    const { email } = this.world.people[person] as TestPerson;
    const letters = await this.world.database.read.findBy(Mail, { address: email });
    return letters.filter(({ subject }) => subject.includes(about));
  }

  async todayOf(person: number): Promise<string[]> {
    return (await this.world.do<TodayView>(person, 'get', '/today')).items.map(({ kind }) => kind);
  }

  /** What a server that is up does every few seconds. */
  runs(): Promise<void> {
    return this.world.app.get(PlannedRuns).look();
  }

  idsIn(view: AllocationView) {
    const reviewer = (person: number) =>
      view.reviewers.find(({ label }) => label.name === this.nameOf(person))?.id ?? '';
    const draft = (person: number) => view.drafts.find(({ author }) => author.name === this.nameOf(person))?.id ?? '';
    return { reviewer, draft, pair: (a: number, b: number): Pair => ({ reviewerId: reviewer(a), draftId: draft(b) }) };
  }
}

/** For comparing pairs whatever their order. */
export function keys(pairs: readonly Pair[]): string[] {
  return pairs.map(({ reviewerId, draftId }) => `${reviewerId} ${draftId}`).sort();
}
