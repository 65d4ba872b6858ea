import { findIdentities, type SearchOptions } from './findIdentities.js';
import type { Identity } from './nameForms.js';

/**
 * How people name themselves in their work, and sentences that look like it and are not: written down from what is common in
 * student papers, before and apart from the search (common practice, no source). Counted as shares: a search that finds
 * everything and one that finds nothing both fail.
 */
const PEOPLE: Readonly<Record<string, Identity>> = {
  adjoa: { name: 'Adjoa Mensah', email: 'adjoa.mensah@students.example.org', campusId: 'cr-4101' },
  quyen: { name: 'Quyên Trần', email: 'qt@students.example.org', campusId: 'st20417' },
  anna: { name: 'Müller-Lüdenscheid, Anna Lena', email: 'alm@example.org', campusId: '00012345' },
  rose: { name: 'Rose Marsh', email: 'rose.marsh@example.org', campusId: '4711-88' },
  will: { name: 'Will Young', email: 'young7@example.org', campusId: '77' },
  emma: { name: 'Emma Lancaster', email: 'e.lancaster@example.org', campusId: 'u552190' },
  mark: { name: 'Mark Hill', email: 'mhill@example.org', campusId: '880214' },
  siobhan: { name: 'Siobhán O’Brien', email: 'sob@example.org', campusId: null },
  rui: { name: 'Rui de la Cruz', email: 'rui.cruz@example.org', campusId: '31007' },
  florence: { name: 'Florence Bishop', email: 'fbishop@example.org', campusId: null },
};

/** The telling place stands between the marks. */
const TELLING: ReadonlyArray<readonly [who: keyof typeof PEOPLE, text: string, as?: SearchOptions['as']]> = [
  ['adjoa', 'The eastern basin\n[[Adjoa Mensah]]\nSpring term'],
  ['adjoa', 'Photograph by [[A. Mensah]], taken at low water.'],
  ['adjoa', 'All readings are mine. — [[A.M.]]'],
  ['adjoa', 'Readings ([[AM]], 3 May) were taken at noon.'],
  ['adjoa', 'Sketch: [[A. M.]]'],
  ['adjoa', 'Write to me: [[@adjoam]] on the course board.'],
  ['adjoa', 'The script is at https://code.example/[[adjoamensah]]/basin.'],
  ['adjoa', 'The data lie under https://files.example/~[[amensah]]/basin.csv.'],
  ['adjoa', 'My number is [[CR‑4101]].'],
  ['adjoa', 'My number is [[CR–4101]].'],
  ['adjoa', 'My number is [[cr 4101]].'],
  ['adjoa', 'Report of Adjoa [[Men\u00adsah]], second version.'],
  ['adjoa', 'This is what I, [[Adjoa Men-\nsah]], measured.'],
  ['adjoa', 'We are the [[Mensahs]] of the harbour street, and fish here.'],
  ['adjoa', 'In my family, the [[Mensahs’]] boat is known.'],
  ['adjoa', 'Everybody calls me [[Adjoa]].'],
  ['adjoa', 'Then my brother shouted “[[Adjoa]], the tide!”'],
  ['adjoa', 'Student: [[MENSAH]]'],
  ['adjoa', 'Contact: [[adjoa.mensah]] at the students’ mail server'],
  ['adjoa', 'file:///home/[[adjoa]]/basin/plot.png'],
  ['adjoa', '[[mensah]]_essay_final2.docx', 'label'],
  ['adjoa', 'C:\\Users\\[[Adjoa]]\\report.docx', 'label'],
  ['quyen', 'Prepared by [[Tran Quyen]] for the seminar.'],
  ['quyen', 'Id [[ST 20417]], group three.'],
  ['quyen', '[[TRẦN]] Q., 2026: own survey.'],
  ['anna', 'Autorin: [[Anna Lena Mueller-Luedenscheid]]'],
  ['anna', 'Matrikelnummer [[00012345]]'],
  ['anna', 'Own drawing ([[A. L. M.-L.]])'],
  ['anna', 'Signed: [[Müller-\nLüdenscheid]]'],
  ['rose', 'By [[Rose Marsh]]'],
  ['rose', 'Growth of cordgrass\n[[Rose M.]]\nCoastal Field Studies'],
  ['rose', 'Author: [[Rose]]'],
  ['rose', 'Then I said: my name is [[Rose]], and I count birds.'],
  ['rose', 'Student number [[4711 88]].'],
  ['rose', '[[ROSE MARSH]] – GROWTH OF CORDGRASS'],
  ['will', 'Essay by [[Will Young]], second draft'],
  ['will', 'I ([[W.Y.]]) did the counting.'],
  ['will', 'See my earlier notes at notes.example/[[willyoung]].'],
  ['emma', 'Interview led by [[Lancaster]].'],
  ['emma', 'My supervisor wrote: “Dear Ms [[Lancaster]], …”'],
  ['emma', 'For questions: [[e.lancaster@example.org]]'],
  ['emma', '[[Emma L.]], spring term'],
  ['mark', 'Field book of [[Mark Hill]].'],
  ['mark', 'Uploaded by [[mhill]] on Monday.'],
  ['mark', 'Pictures: [[M. Hill]]'],
  ['siobhan', 'As I, [[Siobhan O’Brien]], have seen.'],
  ['siobhan', 'Written by [[OBrien]].'],
  ['rui', 'Trabalho de [[Rui de la Cruz]]'],
  ['rui', 'Signed [[R. de la Cruz]]'],
  ['rui', 'Student [[31-007]]'],
  ['florence', 'Thank you for reading. [[Florence Bishop]]'],
  ['florence', 'Measured by [[F. Bishop]] in May.'],
];

const INNOCENT: ReadonlyArray<readonly [who: keyof typeof PEOPLE, text: string, as?: SearchOptions['as']]> = [
  ['adjoa', 'We went out at 10 A.M. and came back at 4 P.M.'],
  ['adjoa', 'We thank Kwame Mensah of the harbour office.'],
  ['adjoa', 'B. Mensah measured the same in 1998.'],
  ['adjoa', 'Mensah, K. (2004): Tides of the gulf. Harbour Press.'],
  ['adjoa', 'Commensal species live on the piles of the Mensahville dam.'],
  ['adjoa', 'It is written in AM stereo, and 4101 birds were seen.'],
  ['adjoa', 'The radio played on AM all day.'],
  ['quyen', 'The tran is a measure of grain in old books.'],
  ['quyen', 'A quart (qt) of water was taken each time.'],
  ['anna', 'Anna Karenina begins with a sentence about families.'],
  ['anna', 'The Anna Creek station lies in the desert.'],
  ['anna', 'Der Müller mahlt das Korn, so steht es im Märchen.'],
  ['rose', 'The marsh rose by four centimetres a decade.'],
  ['rose', 'Rose hips were found near the dike.'],
  ['rose', 'Marsh plants grew, and the Rose Theatre was flooded.'],
  ['rose', 'The level rose. Marsh after marsh fell dry.'],
  ['rose', 'The Salt Marsh Survey of 1998 is our source.'],
  ['rose', 'In the Great Marsh, the soil is soft.'],
  ['rose', 'Marsh (1998) showed the same for the north shore.'],
  ['rose', 'As Marsh and Bird (2001) say, the shore moves.'],
  ['rose', 'A rose marsh is what the old maps call it.'],
  ['rose', 'Between 4 and 88 birds came, 4711 in all.'],
  ['will', 'We will plant young cordgrass. Will it grow? Young plants do.'],
  ['will', 'The Young’s modulus of clay is low.'],
  ['will', 'The Last Will of the lord names the dike.'],
  ['will', 'Young people like the beach; old people Will not.'],
  ['will', 'It says so in Young (2015) and in Young et al. (2019).'],
  ['will', 'We counted 77 birds on 77 days.'],
  ['emma', 'The train from Leeds stops in Lancaster at noon.'],
  ['emma', 'The survey was printed at Lancaster University.'],
  ['emma', 'Near Lancaster, the bay opens to the west.'],
  ['emma', 'Emma Bovary reads novels all day.'],
  ['emma', 'Jane Austen wrote Emma in 1815.'],
  ['emma', 'The Lancaster Sound freezes in winter.'],
  ['mark', 'The mark on the gauge was read from the hill.'],
  ['mark', 'Mark the place on the map. Hill after hill follows.'],
  ['mark', 'The Hill of Howth is made of quartz.'],
  ['mark', 'High Water Mark and Low Water Mark are two lines.'],
  ['mark', 'We met at Castle Hill, below the wall.'],
  ['mark', 'The price was 300 Mark in those days.'],
  ['mark', 'Muddy water covers the M. hillii beds.'],
  ['siobhan', 'Brien is a river in the west; K. O’Brien mapped it.'],
  ['siobhan', 'The sob of the wind was heard at night.'],
  ['rui', 'De la costa se ve la isla; la cruz está en el monte.'],
  ['rui', 'The island of Santa Cruz has salt pans.'],
  ['florence', 'Florence, Italy, was flooded in 1966.'],
  ['florence', 'The bishop of the town gave the dike its name.'],
  ['florence', 'In Florence, the river rose by five metres.'],
  ['florence', 'Bishop Egil let the first dike be built.'],
  ['florence', 'F. Nightingale counted the dead; Florence is her town of birth.'],
];

const plain = (text: string) => text.replace(/\[\[|\]\]/g, '');
const findsIn = (who: keyof typeof PEOPLE, text: string, as: SearchOptions['as'] = 'prose') =>
  findIdentities(text, [PEOPLE[who] as Identity], { as });

describe('names as people write them', () => {
  it('are found at 38 of 41 telling places, or better', () => {
    const missed = TELLING.filter(([who, text, as]) => {
      const start = text.indexOf('[[');
      const end = text.indexOf(']]') - 2;
      return !findsIn(who, plain(text), as).some((find) => find.start < end && find.end > start);
    }).map(([, text]) => text);
    expect(TELLING.length).toBeGreaterThanOrEqual(41);
    expect(missed.length / TELLING.length <= 3 / 41 ? [] : missed).toEqual([]);
  });

  it('are seen in 6 of 40 innocent sentences at most, and never for sure', () => {
    const found = INNOCENT.flatMap(([who, text, as]) => {
      const finds = findsIn(who, text, as);
      return finds.length === 0 ? [] : [{ text, finds: finds.map(({ exact, certainty }) => `${exact} ${certainty}`) }];
    });
    expect(INNOCENT.length).toBeGreaterThanOrEqual(40);
    expect(found.length / INNOCENT.length <= 6 / 40 ? [] : found).toEqual([]);
    expect(found.filter(({ finds }) => finds.some((one) => one.endsWith('sure')))).toEqual([]);
  });
});
