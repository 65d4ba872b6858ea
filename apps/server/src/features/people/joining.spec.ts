import type {
  AccountView,
  AddPersonRequest,
  InvitationView,
  MailView,
  OutboxView,
  PeopleView,
} from '@salt-circle/contracts';
import { Invitation } from '../../model/invitation.js';
import { Mail } from '../../model/mail.js';
import { Person } from '../../model/person.js';
import { Expiry } from '../../platform/expiry/expiry.js';
import { publishedExchange } from '../../testing/acts.js';
import { ANN, BEN, CHO, INES, OUT } from '../../testing/people.js';
import { AT } from '../../testing/plan.js';
import { World } from '../../testing/world.js';

let world: World;
beforeEach(async () => {
  world = await World.open();
});
afterEach(() => world.close());

const PASSWORD = 'glasswort and thrift';
const HERE = '/courses/course';
const THERE = '/courses/elsewhere';
const DEE: AddPersonRequest = {
  name: 'Dee Novak',
  email: 'dee@example.org',
  role: 'student',
  campusId: null,
  section: null,
  invite: true,
};

/** Gives a place: Ines in her course, Otto in his. */
const give = (by: number, course: string, part: Partial<AddPersonRequest> = {}) =>
  world.do<{ id: string }>(by, 'post', `${course}/people`, { ...DEE, ...part });
const rowOf = async (by: number, course: string, id: string) =>
  (await world.do<PeopleView>(by, 'get', `${course}/people`)).people.find((one) => one.id === id);
/** What staff can read of the latest letter to an address. */
const letter = async (by: number, course: string, address = DEE.email) => {
  const { mails } = await world.do<OutboxView>(by, 'get', `${course}/outbox`);
  const id = mails.find(({ to }) => to === address)?.id ?? '';
  return world.do<MailView>(by, 'get', `${course}/outbox/${id}`);
};
const tokenIn = (text: string) => /\/join\/([\w-]+)/.exec(text)?.[1] ?? '';
/** What the addressee gets. */
const received = async (address = DEE.email) => {
  const mails = await world.database.read.find(Mail, { where: { address }, order: { id: 'ASC' } });
  return mails.flatMap(({ secret }) => (secret === null ? [] : [tokenIn(secret)]));
};
const look = (token: string) => world.do<InvitationView>(INES, 'get', `/invitations/${token}`);
const join = (
  token: string,
  placeIds: readonly string[],
  part: object = { password: PASSWORD },
  as: number | null = null,
) => world.as(as, 'post', `/invitations/${token}`, { placeIds, ...part });

describe('a place in a course', () => {
  it('is taken by a link, once, with a new account; work that waits for the place is there', async () => {
    const exchange = await publishedExchange(world);
    const { id } = await give(INES, HERE);
    const token = tokenIn((await letter(INES, HERE)).text);
    expect(await look(token)).toMatchObject({
      places: [{ course: 'Coastal Restoration', by: 'Ines Marchetti', name: 'Dee Novak' }],
    });
    const { status, headers } = await join(token, [id]);
    expect(status).toBe(204);
    const cookie = headers['set-cookie']?.[0] ?? '';
    const body = { email: DEE.email, password: PASSWORD };
    expect((await world.as(null, 'post', '/session', body)).status).toBe(204);
    expect((await join(token, [id])).status).toBe(410);
    expect((await rowOf(INES, HERE, id))?.place).toBe('taken');
    world.clock.goTo(AT.drafting);
    const draft = await fetch(`${await world.url()}/api/exchanges/${exchange}/draft`, { headers: { cookie } });
    expect(draft.status).toBe(200);
  });

  it('tells a course nothing of other courses, nor of an account', async () => {
    await give(OUT, THERE, { name: 'Dorothea N. from elsewhere', campusId: 'secret-9' });
    const { id } = await give(INES, HERE);
    const row = await rowOf(INES, HERE, id);
    expect(row).toMatchObject({ name: 'Dee Novak', place: 'invited' });
    // Somebody with an account there looks the same.
    const { id: ofBen } = await give(OUT, THERE, { name: 'B. K.', email: 'ben@example.org' });
    expect(await rowOf(OUT, THERE, ofBen)).toMatchObject({ name: 'B. K.', place: 'invited', campusId: null });
    const seen = await world.do<PeopleView>(INES, 'get', `${HERE}/people`);
    expect(JSON.stringify(seen)).not.toMatch(/Dorothea|secret-9|B\. K\./);
  });

  it('cannot be used to become somebody of another course', async () => {
    // An instructor-to-be elsewhere, who has no account yet.
    const { id: there } = await give(OUT, THERE, { role: 'instructor' });
    const { id: here } = await give(INES, HERE);
    // The letter can be read by staff here, but not the link: Dee has more than this one place.
    const shown = await letter(INES, HERE);
    expect([tokenIn(shown.text), shown.text.includes('known to the addressee only')]).toEqual(['', true]);
    // What could be read before the second place was given is the link to the first place alone, also afterwards.
    const early = tokenIn((await letter(OUT, THERE)).text);
    expect((await look(early)).places.map(({ course }) => course)).toEqual(['Elsewhere']);
    expect((await join(early, [there, here])).status).toBe(410);
    // What one course says of the person changes nothing in the other one.
    await world.do(INES, 'put', `${HERE}/people/${here}`, {
      ...DEE,
      invite: undefined,
      name: 'X',
      email: 'x@example.org',
    });
    expect(await rowOf(OUT, THERE, there)).toMatchObject({ name: 'Dee Novak', email: DEE.email, role: 'instructor' });
  });

  it('is shown with all others given to the address, to whoever reads its mail', async () => {
    const { id: there } = await give(OUT, THERE, { role: 'assistant', name: 'D. N.' });
    const { id: here } = await give(INES, HERE);
    const [token = ''] = (await received()).slice(-1).filter(Boolean);
    const sealed = (await world.database.read.findBy(Invitation, { address: DEE.email })).find(({ shown }) => !shown);
    const mine = (await world.database.read.findOneByOrFail(Mail, { id: sealed?.mailId ?? '' })).secret ?? token;
    const view = await look(tokenIn(mine));
    expect(view.hasAccount).toBe(false);
    expect(view.places.map(({ id, name, role }) => [id, name, role]).sort()).toEqual(
      [
        [here, 'Dee Novak', 'student'],
        [there, 'D. N.', 'assistant'],
      ].sort(),
    );
    expect((await join(tokenIn(mine), [here], { password: PASSWORD, name: 'Dee' })).status).toBe(204);
    const dee = await world.database.read.findOneByOrFail(Person, { email: DEE.email });
    expect([dee.name, dee.addressConfirmedAt]).toEqual(['Dee', expect.any(Number)]);
    expect([(await rowOf(INES, HERE, here))?.place, (await rowOf(OUT, THERE, there))?.place]).toEqual([
      'taken',
      'invited',
    ]);
  });

  it('is taken by an account that is signed in: by the link, or from the own page when the address is confirmed', async () => {
    const { id: first } = await give(OUT, THERE, { email: 'ann@example.org' });
    const open = async () => (await world.do<AccountView>(ANN, 'get', '/account')).open.map(({ id }) => id);
    expect(await open()).toEqual([]);
    await world.database.write((manager) => manager.update(Person, { id: 'p-ann' }, { addressConfirmedAt: 1 }));
    world.signOut(ANN);
    expect(await open()).toEqual([first]);
    await world.do(ANN, 'post', '/account/places', { placeIds: [first] });
    expect((await world.do<Array<{ id: string }>>(ANN, 'get', '/courses')).map(({ id }) => id)).toEqual([
      'course',
      'elsewhere',
    ]);
    // Ben takes what was given to another address of his, by the link that went there.
    const { id: second } = await give(OUT, THERE, { email: 'ben@private.example', name: 'Benedek' });
    const token = tokenIn((await letter(OUT, THERE, 'ben@private.example')).text);
    expect((await join(token, [second], {}, BEN)).status).toBe(204);
    expect((await rowOf(OUT, THERE, second))?.name).toBe('Benedek');
    // Nobody has two places in one course.
    const { id: third } = await give(INES, HERE, { email: 'cho@private.example', name: 'Cho again' });
    const again = await join(tokenIn((await letter(INES, HERE, 'cho@private.example')).text), [third], {}, CHO);
    expect([again.status, again.body.code]).toEqual([409, 'place-there-already']);
  });

  it('does not become part of an account whose address somebody else may have made up', async () => {
    // Made by a link that staff could read: the address is not confirmed, so what is given to it later is not offered.
    const { id } = await give(INES, HERE);
    await join(tokenIn((await letter(INES, HERE)).text), [id]);
    const dee = await world.database.read.findOneByOrFail(Person, { email: DEE.email });
    expect(dee.addressConfirmedAt).toBeNull();
    const { id: there } = await give(OUT, THERE);
    const signedIn = await world.as(null, 'post', '/session', { email: DEE.email, password: PASSWORD });
    const cookie = signedIn.headers['set-cookie']?.[0] ?? '';
    const view = await fetch(`${await world.url()}/api/account`, { headers: { cookie } });
    expect(((await view.json()) as AccountView).open).toEqual([]);
    // The link to the second place went to the mailbox alone.
    expect(tokenIn((await letter(OUT, THERE)).text)).toBe('');
    expect((await rowOf(OUT, THERE, there))?.place).toBe('invited');
  });
});

describe('the link to a place ends', () => {
  const ends: Array<[string, (id: string) => Promise<unknown>]> = [
    [
      'when the address is corrected',
      (id) =>
        world.do(INES, 'put', `${HERE}/people/${id}`, { ...DEE, invite: undefined, email: 'dee.novak@example.org' }),
    ],
    ['when the person is dropped', (id) => world.do(INES, 'delete', `${HERE}/people/${id}`)],
    ['when another one is sent', (id) => world.do(INES, 'post', `${HERE}/people/invitations`, { enrolmentIds: [id] })],
    [
      'when a roster corrects the address',
      async () => {
        await world.do(INES, 'put', `${HERE}/people/${(await rows()).get('Dee Novak')}`, {
          ...DEE,
          invite: undefined,
          campusId: 'c-4',
        });
        await roster('Dee Novak,d@example.org,c-4');
      },
    ],
    ['when a roster drops the person', () => roster('')],
  ];
  const rows = async () =>
    new Map((await world.do<PeopleView>(INES, 'get', `${HERE}/people`)).people.map(({ name, id }) => [name, id]));
  const roster = async (more: string) => {
    const text = `name,email,id\nAnn Mensah,ann@example.org,c-1\nBen Kiss,ben@example.org,c-2\nCho Sato,cho@example.org,c-3\n${more}`;
    const source = { text, base64: null, classIds: [], traitColumn: null };
    const { fingerprint } = await world.do<{ fingerprint: string }>(
      INES,
      'post',
      `${HERE}/people/roster/preview`,
      source,
    );
    await world.do(INES, 'post', `${HERE}/people/roster`, { ...source, dropMissing: true, invite: false, fingerprint });
  };

  it.each(ends)('%s', async (_, end) => {
    const { id } = await give(INES, HERE);
    const { text } = await letter(INES, HERE);
    await end(id);
    expect((await world.as(null, 'get', `/invitations/${tokenIn(text)}`)).status).toBe(410);
    expect((await join(tokenIn(text), [id])).status).toBe(410);
    const texts = (await world.database.read.findBy(Mail, { address: DEE.email })).map((mail) => mail.text);
    expect(texts.join()).not.toContain(tokenIn(text));
  });

  it('with time, and is removed then', async () => {
    const { id } = await give(INES, HERE);
    const { text } = await letter(INES, HERE);
    await world.database.write((manager) => manager.update(Invitation, { enrolmentId: id }, { createdAt: 1 }));
    expect((await join(tokenIn(text), [id])).status).toBe(410);
    await world.app.get(Expiry).remove();
    expect(await world.database.read.countBy(Invitation, { enrolmentId: id })).toBe(0);
    expect((await rowOf(INES, HERE, id))?.place).toBe('open');
  });
});
