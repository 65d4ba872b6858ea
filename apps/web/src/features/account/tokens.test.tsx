import type { TokensView } from '@salt-circle/contracts';
import { act, fireEvent, screen, waitFor } from '@testing-library/react';
import { changesIn, forget, server, show } from '../../testing/pages.js';
import { TokensSection } from './TokensSection.js';

const TOKEN = {
  ...{ id: 't1', name: 'Marks into R', scope: 'grades' as const, used: null },
  ...{ created: '2026-03-01T00:00:00Z', ends: '2999-01-01T00:00:00Z' },
};
const open = async (view: TokensView, answers: object = {}) => {
  const asked = server({ '/account/tokens': view, ...answers });
  await show(<TokensSection />);
  return asked;
};

beforeEach(forget);

describe('access tokens', () => {
  it('are nothing for whoever can make none, and has none', async () => {
    const asked = await open({ may: false, tokens: [] });
    await waitFor(() => expect(asked.some(({ path }) => path === '/account/tokens')).toBe(true));
    await act(() => new Promise((done) => setTimeout(done, 20)));
    expect(screen.queryByRole('heading')).toBeNull();
  });

  it('say what they open and whether they were used, and are taken back with one press', async () => {
    const asked = await open({ may: true, tokens: [TOKEN] }, { '/account/tokens/t1': null });
    expect((await screen.findByRole('listitem')).textContent).toContain(
      'grades, insights and results alone, to read; ends in',
    );
    expect(screen.getByRole('listitem').textContent).toContain('not used yet');
    fireEvent.click(screen.getByRole('button', { name: 'Take back Marks into R' }));
    await waitFor(() => expect(changesIn(asked)).toHaveLength(1));
    expect(changesIn(asked)[0]).toMatchObject({ method: 'DELETE' });
  });

  it('are made for something, and shown once', async () => {
    await open({ may: true, tokens: [] });
    fireEvent.click(await screen.findByRole('button', { name: 'Make a token…' }));
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Make it' }).disabled).toBe(true);
    fireEvent.change(screen.getByLabelText('What it is for'), { target: { value: 'R' } });
    server({ '/account/tokens': { may: true, tokens: [], token: 'salt_abc' } });
    fireEvent.click(screen.getByRole('button', { name: 'Make it' }));
    expect(await screen.findByText('salt_abc')).not.toBeNull();
    fireEvent.click(screen.getByRole('button', { name: 'I have it' }));
    expect(screen.queryByText('salt_abc')).toBeNull();
  });
});
