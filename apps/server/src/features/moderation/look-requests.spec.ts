import type { LookRequestView, OutboxView, QueueView } from '@salt-circle/contracts';
import { leaveNote, NOTE_ID, reviewedExchange, submitFilled } from '../../testing/acts.js';
import { ANN, BEN, CHO, INES, PEOPLE, TOM } from '../../testing/people.js';
import { AT } from '../../testing/plan.js';
import { World } from '../../testing/world.js';

let world: World;
let id: string;
let byAnn: string;

beforeEach(async () => {
  world = await World.open();
  ({ id, byAnn } = await reviewedExchange(world));
  await leaveNote(world, ANN, byAnn);
  await submitFilled(world, ANN, byAnn);
});
afterEach(() => world.close());

const path = () => `/reviews/${byAnn}/look-requests`;
const ask = (who: number, words: string, noteId: string | null = null) =>
  world.as(who, 'post', path(), { noteId, words });
const seenBy = (who: number) => world.do<LookRequestView[]>(who, 'get', path());
const answer = (who: number, requestId: string, words = 'I have withheld it.') =>
  world.as(who, 'put', `${path()}/${requestId}`, { answer: words });

describe('“please look”', () => {
  it('comes first in the queue, is answered, and told to whoever asked', async () => {
    world.clock.goTo(AT.closed);
    expect((await ask(BEN, 'This is not about my draft.', NOTE_ID)).status).toBe(201);
    const { rows } = await world.do<QueueView>(INES, 'get', `/exchanges/${id}/queue`);
    expect(rows[0]?.flags[0]?.flag).toMatchObject({
      code: 'asked',
      by: 'author',
      words: 'This is not about my draft.',
    });
    // It waits for an answer: it is not a flag to be dismissed, and looking alone does not settle it.
    const key = rows[0]?.flags[0]?.key ?? '';
    await world.do(INES, 'put', `/reviews/${byAnn}/check`, { looked: true, dismissed: [key] });
    const looked = await world.do<QueueView>(INES, 'get', `/exchanges/${id}/queue`);
    expect(looked.rows[0]?.flags[0]).toMatchObject({ key, dismissed: false });
    const [request] = await seenBy(TOM);
    expect(request).toMatchObject({ noteId: NOTE_ID, by: { person: { name: PEOPLE[BEN]?.name }, as: 'author' } });
    expect((await answer(TOM, request?.id ?? '')).status).toBe(200);
    expect(await seenBy(BEN)).toMatchObject([{ answer: 'I have withheld it.', by: null }]);
    const after = await world.do<QueueView>(INES, 'get', `/exchanges/${id}/queue`);
    expect(after.rows[0]?.flags.map(({ key }) => key)).toEqual(['nothing-to-do', 'hasty']);
    // Told once: a second answer mends the first.
    await answer(INES, request?.id ?? '', 'I have looked again.');
    const { mails } = await world.do<OutboxView>(INES, 'get', '/courses/course/outbox');
    expect(mails.filter(({ subject }) => subject.includes('an answer')).map(({ to }) => to)).toEqual([
      PEOPLE[BEN]?.email,
    ]);
  });

  it('is known to the one who asked and to staff, and to nobody on the other side', async () => {
    await ask(ANN, 'Was I too harsh?');
    world.clock.goTo(AT.closed);
    await ask(BEN, 'Who is this?');
    expect((await seenBy(ANN)).map(({ words }) => words)).toEqual(['Was I too harsh?']);
    expect((await seenBy(BEN)).map(({ words }) => words)).toEqual(['Who is this?']);
    expect((await seenBy(INES)).map(({ by }) => by?.as)).toEqual(['reviewer', 'author']);
    expect((await world.as(CHO, 'get', path())).status).toBe(404);
  });

  it('is asked once however often it is pressed, with words, of what one can read', async () => {
    expect((await ask(BEN, 'Too early.')).status).toBe(404);
    world.clock.goTo(AT.closed);
    await ask(BEN, 'Twice?');
    expect((await ask(BEN, 'Twice? ')).body).toHaveLength(1);
    expect((await ask(BEN, '  ')).status).toBe(422);
    expect((await ask(BEN, 'What?', 'none')).status).toBe(404);
    await world.do(INES, 'put', `/reviews/${byAnn}/withheld`, {
      ...{ kind: 'note', targetId: NOTE_ID, reason: 'No.', told: false, counts: true },
    });
    // As if it had never been: whether it was withheld is not told either.
    expect((await ask(BEN, 'And this?', NOTE_ID)).status).toBe(404);
    for (const who of [INES, TOM]) expect((await ask(who, 'Look.')).status).toBe(403);
    expect((await answer(BEN, 'none')).status).toBe(403);
    for (let count = 0; count < 25; count += 1) await ask(BEN, `Look ${count}`);
    expect(await seenBy(BEN)).toHaveLength(20);
  });
});
