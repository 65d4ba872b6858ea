import type { AllocationImportView } from '@salt-circle/contracts';
import { Eight, EIGHT, keys } from '../../testing/eight.js';
import { allocateAll } from '../../testing/acts.js';
import { ANN, BEN, INES } from '../../testing/people.js';

let on: Eight;
beforeEach(async () => {
  on = await Eight.open();
});
afterEach(() => on.world.close());

describe('as a file', () => {
  it('goes out as CSV and comes in again, row by row', async () => {
    await on.begin();
    await on.handedInBy(EIGHT);
    const view = await allocateAll(on.world, on.id);
    const { pair } = on.idsIn(view);
    const [held] = view.pairs;
    await on.world.do(INES, 'post', `${on.path}/acts`, {
      lock: [{ reviewerId: held?.reviewerId, draftId: held?.draftId }],
    });
    const file = await on.world.as(INES, 'get', `${on.path}/file`);
    expect(file.headers['content-disposition']).toContain('Field report allocation.csv');
    const lines = file.text.replace('\uFEFF', '').trim().split('\r\n');
    expect(lines[0]).toBe('reviewer,draft,fixed');
    expect(lines).toHaveLength(17);
    expect(lines.filter((line) => line.endsWith(',yes'))).toHaveLength(1);
    const same = await on.world.do<AllocationImportView>(INES, 'post', `${on.path}/file`, {
      text: file.text,
      apply: false,
    });
    expect(same).toMatchObject({ added: [], removed: [], same: 16, problems: [], applied: false });
    const other = `reviewer,draft,fixed\nann@example.org,c-2,yes\nBEN@example.org,ann@example.org,\n`;
    const looked = await on.world.do<AllocationImportView>(INES, 'post', `${on.path}/file`, {
      text: other,
      apply: false,
    });
    expect(looked.added.length + looked.same).toBe(2);
    expect((await on.look()).pairs).toHaveLength(16);
    await on.world.do(INES, 'post', `${on.path}/file`, { text: other, apply: true });
    const after = await on.look();
    expect(keys(after.pairs)).toEqual(keys([pair(ANN, BEN), pair(BEN, ANN)]));
    expect(after.pairs.find((one) => one.reviewerId === pair(ANN, BEN).reviewerId)?.locked).toBe(true);
    expect(keys((await on.undo()).pairs)).toEqual(keys(view.pairs));
  });

  it('says what is wrong in which row, and then applies nothing', async () => {
    await on.begin();
    await on.handedInBy([ANN, BEN]);
    const rows = [
      'Reviewer;Draft;Held',
      'ann@example.org;ben@example.org;',
      'nobody@example.org;ann@example.org;no',
      'ben@example.org;cho@example.org;',
      'ann@example.org;ann@example.org;',
      'ann@example.org;c-2;',
      'ben@example.org;;maybe',
    ];
    const { problems, applied } = await on.world.do<AllocationImportView>(INES, 'post', `${on.path}/file`, {
      text: rows.join('\n'),
      apply: true,
    });
    expect(problems.map(({ sentence }) => sentence)).toEqual([
      expect.stringMatching(/^Row 3: “nobody@example.org” is nobody/),
      expect.stringMatching(/^Row 4: “cho@example.org” has handed in no draft/),
      expect.stringMatching(/^Row 5: .* would review their own draft/),
      expect.stringMatching(/^Row 6: This pair stands in row 2/),
      expect.stringMatching(/^Row 7: No draft is named/),
      expect.stringMatching(/^Row 7: “maybe” is neither yes nor no/),
    ]);
    expect(applied).toBe(false);
    expect((await on.look()).pairs).toEqual([]);
    await on.world.do(INES, 'post', `${on.path}/acts`, { forbid: [on.idsIn(await on.look()).pair(ANN, BEN)] });
    const apart = await on.world.do<AllocationImportView>(INES, 'post', `${on.path}/file`, {
      text: 'reviewer,draft\nann@example.org,ben@example.org\nben@example.org,ann@example.org',
      apply: true,
    });
    expect(apart.problems.map(({ sentence }) => sentence)).toEqual([
      expect.stringMatching(/^Row 2: You keep .* apart/),
    ]);
    expect((await on.look()).pairs).toEqual([]);
  });
});
