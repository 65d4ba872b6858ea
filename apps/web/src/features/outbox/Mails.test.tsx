import type { MailRow } from '@salt-circle/contracts';
import { fireEvent, render, screen } from '@testing-library/react';
import { Provider } from 'react-redux';
import { store } from '../../app/store.js';
import { Mails } from './Mails.js';

const mail = (id: string, subject: string, at: string, state: MailRow['state'] = 'sent'): MailRow => ({
  ...{ id, subject, at, state },
  ...{ to: `${id}@example.org`, error: null },
});
const AT = '2026-03-12T09:00:00.000Z';
const LATER = '2026-03-12T10:00:00.000Z';

describe('mails', () => {
  it('that one act sent stand together with their states, those of another moment apart', () => {
    const four = ['a', 'b', 'c', 'd'].map((id) => mail(id, 'Published', AT, id === 'd' ? 'failed' : 'sent'));
    const onOpen = jest.fn();
    render(
      <Provider store={store}>
        <Mails
          title="Outbox"
          outbox={{ mails: [mail('z', 'Published', LATER), ...four], total: 5, failed: 1, held: false, sends: true }}
          timeZone="UTC"
          about=""
          none=""
          openId={null}
          onOpen={onOpen}
          open={{}}
        />
      </Provider>,
    );
    const summary = screen.getByText(/to 4 people/);
    expect(summary.textContent).toMatch(/^to 4 people: 3 sent, 1 not sent, /);
    const group = summary.closest('details') as HTMLDetailsElement;
    expect([group.open, group.querySelectorAll('button').length]).toEqual([false, 4]);
    fireEvent.click(screen.getByRole('button', { name: /z@example.org/ }));
    expect(onOpen).toHaveBeenCalledWith('z');
  });
});
