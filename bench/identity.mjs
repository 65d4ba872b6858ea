import { at } from '../scripts/run.mjs';

const { findIdentities, seededRandom } = await import(at('packages', 'core', 'dist', 'index.js'));

const GIVEN =
  'Adjoa Bálint Chiara Dagny Emeka Farida Goran Hana Itziar Jonas Kiri Laleh Mateus Noor Oksana Petros Quyên Rasa Sunil Tereza Uma Viktor Wanja Yara Will Rose Mark Grace Lena Tom'.split(
    ' ',
  );
const FAMILY =
  'Mensah Kiss Fonti Holm Obi Aziz Ilić Sato Etxeberria Brandt Tawhai Amini Prado Haddad Bila Vlachos Trần Jonė Rao Nováková Pillai Lund Kamau Costa Marsh Young Hill Müller Okafor Grey'.split(
    ' ',
  );
const PLAIN = [
  'The bed rose by four centimetres a decade.',
  'We will plant young cordgrass on the grey mud below the hill.',
  'Reed grows where the marsh was; the mark on the post is gone.',
  'Salinity fell from 31 to 9 parts in a thousand after the storm.',
  'Grace of movement is no measure of a bird, but its count is.',
];

/** A made-up paper of a made-up person, with the places that tell who it is. */
function paper(random) {
  const pick = (list) => list[Math.floor(random() * list.length)];
  const [given, family] = [pick(GIVEN), pick(FAMILY)];
  // Somebody else, who at times has the same family name.
  const other = random() < 0.3 ? family : pick(FAMILY);
  const email = `${given}.${family}@students.example.org`.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
  const id = `cr-${1000 + Math.floor(random() * 9000)}`;
  const told = [
    `By ${given} ${family}.`,
    `${family}, ${given}`,
    `${given[0]}. ${family} took the photographs.`,
    `Write to ${email} with questions.`,
    `Student ${id.replace('-', ' ').toUpperCase()}.`,
    `My name is ${given}.`,
    `${given.toUpperCase()} ${family.toUpperCase()} — draft`,
    `Thanks to ${`${given} ${family}`.normalize('NFD').replace(/\p{M}/gu, '')} for the boat.`,
  ];
  const others = [
    `Reed declined after 1987 (${other}, 2015).`,
    `As ${other} et al. have shown, silt returns.`,
    `We thank Kwame ${other} of the harbour office.`,
    `Then ${pick(GIVEN)} of the sailing club came by.`,
  ];
  const lines = [];
  const wanted = [];
  for (let line = 0; line < 60; line += 1) {
    const draw = random();
    const text = draw < 0.1 ? pick(told) : draw < 0.2 ? pick(others) : pick(PLAIN);
    if (told.includes(text)) wanted.push([lines.join('\n').length + (line > 0 ? 1 : 0), text.length]);
    lines.push(text);
  }
  return { text: lines.join('\n'), wanted, person: { name: `${given} ${family}`, email, campusId: id } };
}

/** What is found and wrongly flagged over made-up papers, in percent. */
export function identityFigures(line, round) {
  process.stdout.write('\nNames in 500 made-up papers of 60 lines\n');
  const random = seededRandom(1962);
  const count = { wanted: 0, found: 0, sure: 0, wrongSure: 0, wrongPerhaps: 0, lines: 0 };
  for (let number = 0; number < 500; number += 1) {
    const { text, wanted, person } = paper(random);
    const finds = findIdentities(text, [person]);
    const within = ({ start }, [at, length]) => start >= at && start < at + length;
    count.lines += 60;
    count.wanted += wanted.length;
    count.found += wanted.filter((place) => finds.some((find) => within(find, place))).length;
    count.sure += wanted.filter((place) =>
      finds.some((find) => within(find, place) && find.certainty === 'sure'),
    ).length;
    const wrong = finds.filter((find) => !wanted.some((place) => within(find, place)));
    count.wrongSure += wrong.filter(({ certainty }) => certainty === 'sure').length;
    count.wrongPerhaps += wrong.filter(({ certainty }) => certainty === 'perhaps').length;
  }
  const share = (part, of) => `${round((part / of) * 100)} %`;
  line('places that tell, found', share(count.found, count.wanted), `${count.wanted} places`);
  line('found, and called sure', share(count.sure, count.wanted));
  line('other lines called sure', share(count.wrongSure, count.lines - count.wanted), `${count.wrongSure} places`);
  line(
    'other lines called "perhaps"',
    share(count.wrongPerhaps, count.lines - count.wanted),
    `${count.wrongPerhaps} places`,
  );
  worstStrings(line, round);
}

/** The strings that a search by retries takes longest for: four times the text must take about four times the time. */
const WORST = [
  ['combining marks', (length) => `a${'\u0301'.repeat(length)}`],
  ['initials of the author', (length) => 'V L '.repeat(length / 4)],
  ['halves of the name', (length) => 'Viktor-'.repeat(length / 7)],
  ['words cut at line ends', (length) => 'a-\n'.repeat(length / 3)],
];
const AUTHOR = { name: 'Viktor Lund', email: 'viktor.lund@example.org', campusId: 'cr-4101' };

function worstStrings(line, round) {
  process.stdout.write('\nNames in the worst strings: 400,000 signs / 100,000 signs, in time\n');
  for (const [name, make] of WORST) {
    const time = (length) => {
      const text = make(length);
      const times = Array.from({ length: 5 }, () => {
        const begun = performance.now();
        findIdentities(text, [AUTHOR]);
        return performance.now() - begun;
      });
      return times.sort((a, b) => a - b)[2];
    };
    time(100_000);
    const [short, long] = [time(100_000), time(400_000)];
    line(name, round(long / short), `${round(long, 0)} ms here`);
  }
}
