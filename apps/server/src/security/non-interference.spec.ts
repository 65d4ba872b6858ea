import {
  ANN,
  AT,
  BEN,
  fillIn,
  INES,
  NOTE,
  NOTE_ID,
  PEOPLE,
  reviewedExchange,
  World,
  type TestPerson,
} from '../testing/world.js';

/** Ben, and somebody else in his place: every field of the person differs, what the person does is the same. */
const OTHER: TestPerson = {
  id: 'a-first-in-any-order',
  name: 'Zoë Ångström-O’Neill the Third',
  email: 'z@elsewhere.example',
  campusId: '0000',
  role: 'student',
};

function peopleWith(ben: TestPerson): TestPerson[] {
  return PEOPLE.map((person, index) => (index === BEN ? ben : person));
}

/** Everything that Ann gets to read through the whole exchange, as sent: status, headers, body. */
async function allThatAnnSees(ben: TestPerson, names: 'both-ways' | 'open'): Promise<string[]> {
  const world = await World.open({}, peopleWith(ben));
  const seen: string[] = [];
  try {
    const ids = await reviewedExchange(world, { names });
    const exchange = `/exchanges/${ids.id}`;
    const board = await world.do<{ rows: Array<{ person: { name: string }; draft: { id: string } }> }>(
      INES,
      'get',
      `${exchange}/progress`,
    );
    const draft = board.rows.find(({ person }) => person.name === ben.name)?.draft.id ?? '';
    const look = async () => {
      const paths = [
        '/today',
        '/courses',
        '/courses/course',
        exchange,
        `${exchange}/form`,
        `${exchange}/draft`,
        `${exchange}/reviews`,
        `${exchange}/drafts/${draft}`,
        `${exchange}/feedback`,
        `${exchange}/progress`,
        `${exchange}/allocation`,
        `/reviews/${ids.byAnn}`,
        `/reviews/${ids.byBen}`,
      ];
      for (const path of paths) {
        const { status, headers, text } = await world.as(ANN, 'get', path);
        const { date: _date, connection: _connection, ...told } = headers as Record<string, string>;
        seen.push(`${path} ${status} ${JSON.stringify(told)} ${text}`);
      }
    };
    await look();
    await fillIn(world, BEN, ids.byBen);
    await world.do(BEN, 'put', `/reviews/${ids.byBen}/notes/${NOTE_ID}`, NOTE);
    await world.do(BEN, 'post', `/reviews/${ids.byBen}/submit`);
    await fillIn(world, ANN, ids.byAnn);
    const { text } = await world.as(ANN, 'post', `/reviews/${ids.byAnn}/submit`);
    seen.push(text);
    for (const at of [AT.reviewing, AT.checking, AT.closed]) {
      world.clock.goTo(at);
      await look();
    }
  } finally {
    await world.close();
  }
  return seen;
}

describe('anonymity as non-interference', () => {
  it('gives the same bytes whoever the hidden author and reviewer is', async () => {
    const withBen = await allThatAnnSees(PEOPLE[BEN] as TestPerson, 'both-ways');
    const withOther = await allThatAnnSees(OTHER, 'both-ways');
    // Ann has read a draft and feedback: there was something to give away.
    expect(withBen.join()).toContain('Geese have grazed');
    expect(withBen.join()).toContain('How was this measured?');
    expect(withOther).toEqual(withBen);
  });

  it('notices when a name does show: with open names the answers differ', async () => {
    const withBen = await allThatAnnSees(PEOPLE[BEN] as TestPerson, 'open');
    const withOther = await allThatAnnSees(OTHER, 'open');
    expect(withBen.join()).toContain('Ben Kiss');
    expect(withOther).not.toEqual(withBen);
  });
});
