import type { DoubtView, QueueRow } from '@salt-circle/contracts';
import { SHOWN } from './shown.js';

const doubt = (code: 'asked' | 'hasty', dismissed = false): DoubtView => ({
  ...{ key: code, dismissed, other: null },
  doubt: code === 'hasty' ? { code, seconds: 9 } : { code, requestId: '1', by: 'author', words: 'Look.' },
});
const row = (doubts: readonly DoubtView[], looked: boolean) =>
  ({ doubts, looked: looked ? { by: 'Ines', at: '' } : null, withheld: 0 }) as unknown as QueueRow;

describe('reviews to look at', () => {
  it.each([
    ['a doubt', row([doubt('hasty')], false), true],
    ['a doubt that is none', row([doubt('hasty', true)], false), false],
    ['a doubt that was looked at', row([doubt('hasty')], true), false],
    ['what somebody asks, also where it was looked at', row([doubt('asked')], true), true],
    ['nothing', row([], false), false],
  ])('%s', (_, one, open) => expect(SHOWN.open.holds(one)).toBe(open));
});
