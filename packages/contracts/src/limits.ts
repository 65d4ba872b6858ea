/** Bounds of what may cross the wire, in UTF-16 code units unless said otherwise. */
export const LIMITS = {
  title: 200,
  /** About sixty pages of marked-up text; more than any draft that classmates are asked to read. */
  draftHtml: 400_000,
  draftContext: 2_000,
  url: 2_000,
  settingsHtml: 100_000,
  answerText: 20_000,
  noteBody: 5_000,
  /** Told at once: a day without a connection. */
  spentSeconds: 86_400,
  /** Files of one note or answer, and of a review in all. */
  remarkFiles: 3,
  reviewFiles: 30,
  remarkMegabytes: 50,
  notes: 300,
  /** Remarks and quotes of all notes of a review together. */
  notesText: 1_000_000,
  quote: 20_000,
  context: 200,
  guidance: 2_000,
  levelDescription: 1_000,
  items: 60,
  /** Levels, bands, entries or options of one item. */
  parts: 30,
  holidays: 60,
  /** Dismissed flags of one review, and words that may hurt. */
  flags: 100,
  /** A name or a word, and what kind of flag it is. */
  flagKey: 240,
  harshWords: 200,
  /** Characters of one answer in a thread, and answers to one review. */
  reply: 4_000,
  replies: 500,
  /** Characters of an answer to one question of a reflection. */
  reflection: 20_000,
  partners: 200,
  chosen: 500,
  name: 200,
  passwordMin: 10,
  passwordMax: 200,
  /** Places that one invitation can give at once. */
  places: 100,
  /** Of brief and guide together. */
  attachments: 20,
  attachmentMegabytes: 100,
  archiveMegabytes: 1_900,
  /** Bytes of a roster, group list or form file, as it is on disk. */
  importBytes: 2_500_000,
  /** Bytes of the form with which a platform sends somebody: a signed statement, mostly. */
  formBytes: 100_000,
  shorthandEntries: 40,
  reviewsPerStudentMin: 1,
  reviewsPerStudentMax: 10,
  /** Shape of a request, whatever it is about: levels, fields of one object, objects, and values of all kinds. */
  depth: 32,
  keys: 60,
  objects: 5_000,
  values: 30_000,
  /** Scores of a gradebook that are told at once. */
  scores: 200,
  /** Problems that are told at once. */
  problems: 50,
  /** Bytes of a request by somebody who is not signed in. */
  anonymousBytes: 8_000,
  /** Bytes of a whole request. Above every single bound, so that the bound with a name answers first. */
  requestBytes: 4_000_000,
} as const;
