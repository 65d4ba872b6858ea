import { type AddressInfo } from 'node:net';
import { simpleParser, type ParsedMail } from 'mailparser';
import { SMTPServer } from 'smtp-server';
import type { MailView, OutboxView } from '@salt-circle/contracts';
import { handIn, publishedExchange } from '../../testing/acts.js';
import { ANN, INES } from '../../testing/people.js';
import { AT, DATES } from '../../testing/plan.js';
import { World } from '../../testing/world.js';
import { Mail } from '../../model/mail.js';
import { insertAll } from '../../platform/database/insert-all.js';
import { Expiry } from '../../platform/expiry/expiry.js';
import { retryFailed } from './commands.js';
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

  it('tells of dates that move within ten minutes in one letter, and of none that are put back', async () => {
    const id = await publishedExchange(world);
    world.clock.goTo(AT.drafting);
    const { dates } = await world.do<{ dates: typeof DATES }>(INES, 'get', `/exchanges/${id}/plan`);
    const letters = async () => {
      const { mails } = await outbox(world);
      return mails.filter(({ subject }) => subject.includes('have moved'));
    };
    await world.do(INES, 'post', `/exchanges/${id}/dates/now`, { date: 'draftsDue', tell: true });
    expect((await letters()).map(({ state }) => state)).toEqual(['kept', 'kept', 'kept']);
    const move = (part: object) =>
      world.do(INES, 'put', `/exchanges/${id}/dates`, { dates: { ...dates, ...part }, tell: true });
    await move({ repliesDue: '2026-04-01T09:00:00.000Z' });
    const open = (await letters()).filter(({ state }) => state === 'kept');
    expect([open.length, (await letters()).length]).toEqual([3, 6]);
    const { text } = await world.do<MailView>(INES, 'get', `${OUTBOX}/${open[0]?.id}`);
    expect([text.includes('Replies due'), text.includes('Drafts due')]).toEqual([true, false]);
    await move({});
    expect((await letters()).filter(({ state }) => state !== 'ended')).toEqual([]);
    const { news } = await world.do<{ news: Array<{ words: string }> }>(ANN, 'get', '/inbox');
    expect(news.filter(({ words }) => words.includes('have moved'))).toEqual([]);
  });

  it('keeps nothing of what was undone', async () => {
    const before = (await outbox(world)).total;
    await expect(
      world.database.write((_, emit) => {
        emit({ action: 'exchange-published', actorId: null, exchangeId: 'none' });
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
  let port: number;
  let connections: number;
  let world: World;

  /** A real SMTP conversation (RFC 5321) on loopback. */
  const mailServer = () =>
    new SMTPServer({
      authOptional: true,
      disabledCommands: ['STARTTLS'],
      onConnect: (_, done) => {
        connections += 1;
        done();
      },
      onRcptTo: (_, __, done) => done(refuse ? new Error('mailbox unavailable') : undefined),
      onData: (stream, _, done) => {
        void simpleParser(stream).then((mail) => {
          received.push(mail);
          done();
        });
      },
    });

  beforeEach(async () => {
    received = [];
    refuse = false;
    connections = 0;
    server = mailServer();
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', () => resolve()));
    ({ port } = server.server.address() as AddressInfo);
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
    expect(mail.subject).toBe('Join Coastal Restoration');
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

  it('gets letters of accounts first, by connections that stay open, a thousand without a pause', async () => {
    const rows = Array.from({ length: 1_000 }, (_, index) => ({
      ...{ id: `m-${String(index).padStart(4, '0')}`, at: index, address: `s${index}@example.org`, courseId: 'course' },
      ...{ exchangeId: null, subject: 'News', text: 'Text', secret: null, state: 'waiting' as const },
    }));
    await world.database.write((manager) => insertAll(manager, Mail, rows));
    await world.database.write((manager) =>
      manager.insert(Mail, {
        ...(rows[0] as (typeof rows)[0]),
        id: 'account',
        at: 5_000,
        courseId: null,
        subject: 'Password',
      }),
    );
    expect(await deliver()).toBe(1_001);
    expect(received.slice(0, 8).map(({ subject }) => subject)).toContain('Password');
    expect(connections).toBeLessThan(50);
  });

  it('that is away is left alone for a while, and no letter is charged for it', async () => {
    await publishedExchange(world);
    await new Promise<void>((resolve) => server.close(() => resolve()));
    expect(await deliver()).toBe(0);
    const states = async () => (await world.database.read.find(Mail)).map(({ state, tries }) => [state, tries]);
    expect(await states()).toEqual([
      ['waiting', 0],
      ['waiting', 0],
      ['waiting', 0],
    ]);
    server = mailServer();
    await new Promise<void>((resolve) => server.listen(port, '127.0.0.1', () => resolve()));
    expect(await deliver()).toBe(0);
    world.clock.skip(31_000);
    expect([await deliver(), (await world.database.read.find(Mail)).map(({ error }) => error)]).toEqual([
      3,
      [null, null, null],
    ]);
  });

  it('gets a letter again that was given up, when somebody says so', async () => {
    await publishedExchange(world);
    await world.database.write((manager) =>
      manager.update(Mail, { courseId: 'course' }, { state: 'failed', tries: 6 }),
    );
    const { failed, mails } = await outbox(world);
    expect(failed).toBe(3);
    expect(await world.do(INES, 'post', `${OUTBOX}/${mails[0]?.id}/again`, {})).toEqual({ letters: 1 });
    expect(await deliver()).toBe(1);
    expect(await world.do(INES, 'post', `${OUTBOX}/again`, {})).toEqual({ letters: 2 });
    expect(await deliver()).toBe(2);
    expect(await retryFailed(world.dataFolder)).toBe(0);
  });

  it('gets a letter late with a link that still works', async () => {
    await world.as(null, 'post', '/forgotten', { email: 'ann@example.org' });
    await new Promise((done) => setTimeout(done, 100));
    const [before] = await world.database.read.findBy(Mail, { address: 'ann@example.org' });
    world.clock.skip(3 * 3_600_000);
    await world.app.get(Expiry).remove();
    expect(await deliver()).toBe(1);
    const token = /\/password\/([\w-]+)/.exec(received[0]?.text ?? '')?.[1] ?? '';
    expect(before?.text).not.toContain(token);
    expect((await world.as(null, 'get', `/password-links/${token}`)).status).toBe(200);
  });

  it('is not waited for when the server ends: the letters at hand are finished, the others stay', async () => {
    const rows = Array.from({ length: 200 }, (_, index) => ({
      ...{ id: `m-${index}`, at: index, address: `s${index}@example.org`, courseId: 'course', exchangeId: null },
      ...{ subject: 'News', text: 'Text', secret: null, state: 'waiting' as const },
    }));
    await world.database.write((manager) => insertAll(manager, Mail, rows));
    const sending = deliver();
    while (received.length === 0) await new Promise((done) => setTimeout(done, 5));
    await world.app.get(PostService).onApplicationShutdown();
    const sent = await sending;
    expect(sent).toBeLessThan(200);
    expect(await world.database.read.countBy(Mail, { state: 'sent' })).toBe(sent);
    await expect(deliver()).rejects.toThrow('the server ends');
  });
});
