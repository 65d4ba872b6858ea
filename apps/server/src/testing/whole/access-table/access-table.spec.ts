import { practiceOn, tryPractice } from '../../practice.js';
import { reviewedExchange, submitFilled } from '../../acts.js';
import { ANN, BEN, CHO, INES, OUT, TOM } from '../../people.js';
import { Person } from '../../../model/person.js';
import { AT } from '../../plan.js';
import { World } from '../../world.js';
import { accountRows } from './account-rows.js';
import { after } from './after-rows.js';
import { platformRows } from './lti-rows.js';
import { checking } from './check-rows.js';
import { grading } from './grade-rows.js';
import { marked } from './marked-rows.js';
import { exchangeRows } from './exchange-rows.js';
import { practising } from './practice-rows.js';
import { STAGES, type Row } from './row.js';

interface Layer {
  readonly route?: { readonly path: string; readonly methods: Readonly<Record<string, boolean>> };
}

describe('who may call what, when', () => {
  let world: World;
  let rows: Row[];

  beforeAll(async () => {
    world = await World.open({ mode: 'demo' });
    const ids = await reviewedExchange(world);
    await world.database.write((manager) => manager.update(Person, { id: 'p-ines' }, { runsPlatforms: true }));
    await submitFilled(world, ANN, ids.byAnn);
    const board = await world.do<{ rows: Array<{ person: { name: string }; draft: { id: string } }> }>(
      INES,
      'get',
      `/exchanges/${ids.id}/progress`,
    );
    const draftOfBen = board.rows.find(({ person }) => person.name.startsWith('Ben'))?.draft.id ?? '';
    const { practiceId, keyId } = await practiceOn(world, ids.id);
    await tryPractice(world, ANN, practiceId);
    rows = [
      ...accountRows(),
      ...exchangeRows(ids, draftOfBen),
      ...practising(ids.id, practiceId, keyId),
      ...checking(ids, draftOfBen),
      ...after(ids, draftOfBen),
      ...marked(ids, draftOfBen),
      ...grading(ids),
      ...platformRows(ids.id),
    ];
  });
  afterAll(() => world.close());

  it('has a row for every route of the server', () => {
    const { stack } = (world.app.getHttpAdapter().getInstance() as { router: { stack: Layer[] } }).router;
    // What answers to every method there is, is middleware.
    const routes = stack.flatMap(({ route }) => {
      const methods = Object.keys(route?.methods ?? {});
      return methods.length > 5 ? [] : methods.map((method) => `${method.toUpperCase()} ${route?.path}`);
    });
    expect(routes.length).toBeGreaterThan(25);
    expect([...new Set(rows.map(({ route }) => route))].sort()).toEqual([...new Set(routes)].sort());
  });

  const actors = [
    ['instructor', INES],
    ['assistant', TOM],
    ['ann', ANN],
    ['ben', BEN],
    ['cho', CHO],
    ['outsider', OUT],
    ['nobody', null],
  ] as const;

  it.each(STAGES)('answers as the table says while %s', async (stage) => {
    world.clock.goTo(AT[stage]);
    const at = STAGES.indexOf(stage);
    for (const row of rows) {
      for (const [actor, index] of actors) {
        const expected = row[actor];
        const { status } = row.route.endsWith('/changes')
          ? await world.listen(index, () => {})
          : await world.as(
              row.route === 'DELETE /api/session' ? null : index,
              row.route.split(' ')[0]?.toLowerCase() as 'get',
              row.url,
              // Another address each time, or the limit on tries would answer.
              ['POST /api/session', 'POST /api/forgotten'].includes(row.route)
                ? { ...row.body, email: `${stage}-${actor}@example.org` }
                : row.body,
            );
        const wanted = typeof expected === 'number' ? expected : expected[at];
        expect(`${row.route} (${row.remark ?? ''}) as ${actor}: ${status}`).toBe(
          `${row.route} (${row.remark ?? ''}) as ${actor}: ${wanted}`,
        );
      }
    }
  });

  it('tells an outsider the same about what is hidden as about what does not exist', async () => {
    const hidden = await world.as(
      OUT,
      'get',
      rows.find(({ route }) => route === 'GET /api/reviews/:reviewId')?.url ?? '',
    );
    const missing = await world.as(OUT, 'get', '/reviews/00000000-0000-4000-8000-000000000000');
    expect(hidden.text).toBe(missing.text);
    expect(hidden.status).toBe(missing.status);
  });
});
