import { randomUUID } from 'node:crypto';

const LONGEST = 150;
/** Control signs, and marks that turn the direction of writing round to hide an ending. */
const UNSEEN = /[\p{Cc}\p{Bidi_Control}]/gu;
/** What some file system does not take. */
const FORBIDDEN = /[<>:"|?*]/g;

/** A name that can be shown and stored: no control or direction marks, no folders, not endless. */
export function safeFileName(name: string): string {
  const last = name.replace(UNSEEN, '').split(/[\\/]/).at(-1) ?? '';
  const clean = last
    .replace(FORBIDDEN, '-')
    .replace(/^\.+/, '')
    .replace(/(?<![. ])[. ]+$/, '')
    .trim();
  if (clean === '') return `file-${randomUUID().slice(0, 8)}`;
  const dot = clean.lastIndexOf('.');
  const ending = dot > 0 && clean.length - dot <= 10 ? clean.slice(dot) : '';
  return clean.length <= LONGEST ? clean : `${clean.slice(0, LONGEST - 1 - ending.length)}…${ending}`;
}
