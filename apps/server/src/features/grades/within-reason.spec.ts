import { withinReason } from './within-reason.js';

describe('waiting within reason', () => {
  it('gives what is there in time, and nothing once it takes too long', async () => {
    expect(await withinReason(Promise.resolve(7), 50)).toBe(7);
    expect(await withinReason(new Promise(() => undefined), 5)).toBeNull();
  });

  it('tells of what fails in time, and swallows what fails when nobody waits any more', async () => {
    await expect(withinReason(Promise.reject(new Error('no')), 50)).rejects.toThrow('no');
    let fail: (error: Error) => void = () => undefined;
    const late = new Promise<never>((_, reject) => {
      fail = reject;
    });
    expect(await withinReason(late, 5)).toBeNull();
    fail(new Error('later'));
    await new Promise((done) => setTimeout(done, 5));
  });
});
