import type { FlagView, QueueRow } from '@salt-circle/contracts';
import { SHOWN } from './shown.js';

const flag = (code: 'asked' | 'hasty', dismissed = false): FlagView => ({
  ...{ key: code, dismissed, other: null },
  flag: code === 'hasty' ? { code, seconds: 9 } : { code, requestId: '1', by: 'author', words: 'Look.' },
});
const row = (flags: readonly FlagView[], looked: boolean) =>
  ({ flags, looked: looked ? { by: 'Ines', at: '' } : null, withheld: 0 }) as unknown as QueueRow;

describe('reviews to look at', () => {
  it.each([
    ['a flag', row([flag('hasty')], false), true],
    ['a dismissed flag', row([flag('hasty', true)], false), false],
    ['a flag that was looked at', row([flag('hasty')], true), false],
    ['what somebody asks, also where it was looked at', row([flag('asked')], true), true],
    ['nothing', row([], false), false],
  ])('%s', (_, one, open) => expect(SHOWN.open.holds(one)).toBe(open));
});
