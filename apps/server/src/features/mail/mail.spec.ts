import { type AddressInfo } from 'node:net';
import { simpleParser, type ParsedMail } from 'mailparser';
import { SMTPServer } from 'smtp-server';
import type { MailView, OutboxView } from '@salt-circle/contracts';
import { handIn, publishedExchange } from '../../testing/acts.js';
import { ANN, INES } from '../../testing/people.js';
import { AT, DATES } from '../../testing/plan.js';
import { World } from '../../testing/world.js';
import { PostService } from './post.service.js';

const OUTBOX = '/courses/course/outbox';
const outbox = (world: World) => world.do<OutboxView>(INES, 'get', OUTBOX);

describe('the outbox', () => {
  let world: World;
  beforeEach(async () => {
    world = await World.open();
  });
  afterEach(() => world.close());

  it('keeps a receipt that says what was handed in, and when', async () => {
    const id = await publishedExchange(world);
    world.clock.goTo(AT.drafting);
    await handIn(world, ANN, id, 'Nine words say how the bed of clay rose.');
    const { mails, sends } = await outbox(world);
    expect(sends).toBe(false);
    const receipt = mails.find(({ subject }) => subject.startsWith('Receipt'));
    expect(receipt).toMatchObject({
      to: 'ann@example.org',
      state: 'kept',
      subject: 'Receipt: your draft for “Field report”',
    });
    const { text } = await world.do<MailView>(INES, 'get', `${OUTBOX}/${receipt?.id}`);
    expect(text).toContain(
      'version 1 of your draft for “Field report” in Coastal Restoration on Thu 5 Mar 2026, 02:00 EET',
    );
    expect(text).toMatch(/Words: 9\nReport\n {2}SHA-256 [0-9a-f]{64}\nAll together: SHA-256 [0-9a-f]{64}/);
    expect(text).toContain(`https://salt-circle.example.org/exchanges/${id}/draft`);
  });

  it('tells of dates that move, those after the release among them', async () => {
    const id = await publishedExchange(world);
    const move = (part: Partial<typeof DATES>) =>
      world.do(INES, 'put', `/exchanges/${id}/dates`, { dates: { ...DATES, ...part }, tell: true });
    const told = async () => (await outbox(world)).mails.filter(({ subject }) => subject.includes('have moved'));
    await move({ repliesDue: '2026-04-01T09:00:00.000Z', revisionDue: '2026-04-08T09:00:00.000Z' });
    const mails = await told();
    expect(mails.map(({ to }) => to).sort()).toEqual(['ann@example.org', 'ben@example.org', 'cho@example.org']);
    const { text } = await world.do<MailView>(INES, 'get', `${OUTBOX}/${mails[0]?.id}`);
    expect(text).toContain('Replies due: Wed 1 Apr 2026');
    expect(text).toContain('Revision due: Wed 8 Apr 2026');
    expect(text).not.toMatch(/Release|Drafts due/);
  });

  it('keeps nothing of what was undone', async () => {
    const before = (await outbox(world)).total;
    await expect(
      world.database.write((_, happened) => {
        happened({ action: 'exchange-published', actorId: null, exchangeId: 'none' });
        return Promise.resolve();
      }),
    ).rejects.toThrow();
    expect((await outbox(world)).total).toBe(before);
  });
});

describe('a mail server', () => {
  let server: SMTPServer;
  let received: ParsedMail[];
  let refuse: boolean;
  let world: World;

  beforeEach(async () => {
    received = [];
    refuse = false;
    // A real SMTP conversation (RFC 5321) on loopback.
    server = new SMTPServer({
      authOptional: true,
      disabledCommands: ['STARTTLS'],
      onRcptTo: (_, __, done) => done(refuse ? new Error('mailbox unavailable') : undefined),
      onData: (stream, _, done) => {
        void simpleParser(stream).then((mail) => {
          received.push(mail);
          done();
        });
      },
    });
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', () => resolve()));
    const { port } = server.server.address() as AddressInfo;
    world = await World.open({ smtp: `smtp://127.0.0.1:${port}`, mailFrom: 'Salt Circle <salt@example.org>' });
  });
  afterEach(async () => {
    await world.close();
    await new Promise<void>((resolve) => server.close(() => resolve()));
  });
  const deliver = () => world.app.get(PostService).deliver();

  it('gets each mail once, with its letters and line breaks', async () => {
    await world.do(INES, 'post', '/courses/course/people', {
      name: 'Zoë Ström',
      email: 'zoe@example.org',
      role: 'student',
      campusId: null,
      section: null,
      invite: true,
    });
    expect((await outbox(world)).mails).toMatchObject([{ state: 'waiting' }]);
    expect([await deliver(), await deliver()]).toEqual([1, 0]);
    const [mail] = received as [ParsedMail];
    expect(mail.subject).toBe('Your place in Coastal Restoration');
    expect(mail.from?.text).toBe('"Salt Circle" <salt@example.org>');
    expect(mail.text).toMatch(/^Zoë Ström,\n/);
    expect(mail.text).toMatch(/https:\/\/salt-circle\.example\.org\/join\/[\w-]{40,}/);
    // Once it is sent, nobody can read the link here, not even in the database.
    const { mails } = await outbox(world);
    const kept = await world.do<MailView>(INES, 'get', `${OUTBOX}/${mails[0]?.id}`);
    expect([kept.state, kept.text.includes('/join/')]).toEqual(['sent', false]);
    expect(JSON.stringify(await world.database.read.query('SELECT * FROM mail'))).not.toContain('/join/');
  });

  it('that refuses is tried again, and in the end the mail is shown as failed', async () => {
    await publishedExchange(world);
    refuse = true;
    let at = Date.now();
    jest.spyOn(world.clock, 'real').mockImplementation(() => at);
    for (let round = 0; round < 6; round += 1) {
      expect(await deliver()).toBe(0);
      at += 9 * 3_600_000;
    }
    const { mails } = await outbox(world);
    expect(mails.map(({ state }) => state)).toEqual(['failed', 'failed', 'failed']);
    expect(mails[0]?.error).toContain('mailbox unavailable');
    refuse = false;
    at += 9 * 3_600_000;
    expect(await deliver()).toBe(0);
  });
});
