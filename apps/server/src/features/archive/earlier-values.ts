import type { GivenGrade } from '@salt-circle/core';

/** A grade that somebody was told, of when it was kept in the words in which it was told. */
export function gradeOfWords(words: string): GivenGrade {
  if (words === '') return { scale: 'none' };
  const percent = /^(\d+(?:\.\d+)?)%$/u.exec(words);
  if (percent !== null) return { scale: 'percent', value: Number(percent[1]) };
  const points = /^(\d+(?:\.\d+)?) of (\d+(?:\.\d+)?)$/u.exec(words);
  if (points !== null) return { scale: 'points', value: Number(points[1]), of: Number(points[2]) };
  return { scale: 'bands', name: words };
}
