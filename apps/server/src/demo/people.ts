/** Invented people. Any likeness of name is chance. */
export const INSTRUCTORS = [{ key: 'ines', name: 'Ines Marchetti', email: 'ines.marchetti@example.org' }] as const;
export const ASSISTANTS = [{ key: 'tomasz', name: 'Tomasz Wilk', email: 'tomasz.wilk@example.org' }] as const;

const STUDENT_NAMES = [
  'Adjoa Mensah',
  'Bálint Kiss',
  'Chiara Fonti',
  'Dagny Holm',
  'Emeka Obi',
  'Farida Aziz',
  'Goran Ilić',
  'Hana Sato',
  'Itziar Etxeberria',
  'Jonas Brandt',
  'Kiri Tawhai',
  'Laleh Amini',
  'Mateus Prado',
  'Noor Haddad',
  'Oksana Bila',
  'Petros Vlachos',
  'Quyên Trần',
  'Rasa Jonė',
  'Sunil Rao',
  'Tereza Nováková',
  'Uma Pillai',
  'Viktor Lund',
  'Wanja Kamau',
  'Yara Costa',
] as const;

/** Names without their accents, lower case, as platform mail systems write them. */
function mailName(name: string): string {
  return name
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z]+/g, '.');
}

export const STUDENTS = STUDENT_NAMES.map((name, index) => ({
  name,
  email: `${mailName(name)}@students.example.org`,
  campusId: `cr-${String(4101 + index * 7)}`,
}));

/** A second, small course in which nothing has been planned yet. */
export const SEMINAR_STUDENTS = ['Amaru Quispe', 'Brigid Nolan', 'Chenoa Reyes', 'Dimitar Petkov'].map(
  (name, index) => ({
    name,
    email: `${mailName(name)}@students.example.org`,
    campusId: `fm-${String(210 + index)}`,
  }),
);

export const DEMO_PASSWORD = 'saltmarsh';
