import { createHash } from 'node:crypto';
import type { RosterPreview, RosterProblemView } from '@salt-circle/contracts';
import {
  counted,
  isAddress,
  type CampusMember,
  type MemberChanges,
  type MemberClash,
  type MemberField,
  type MemberUpdate,
} from '@salt-circle/core';

const FIELD_WORDS: Readonly<Record<MemberField, string>> = { name: 'name', email: 'address', campusId: 'campus id' };

/** Whom a campus names. */
export interface Named {
  readonly members: readonly CampusMember[];
  readonly unreadable: number;
}

/** The same shape as that of a roster, so that it is looked at in the same way. Rows count the members of the campus. */
export function previewOf(changes: MemberChanges, { members, unreadable }: Named, campus: string): RosterPreview {
  const rowOf = new Map(members.map(({ user }, index) => [user, index + 1]));
  const row = ({ user }: CampusMember) => rowOf.get(user) ?? 0;
  const { add, update, missing, unchanged, clashes, twice, roleless, others } = changes;
  const notes = [
    unreadable > 0
      ? counted(unreadable, 'One entry has no id, and is left out.', '# entries have no id, and are left out.')
      : '',
    twice > 0 ? counted(twice, 'One person is named twice.', '# people are named twice.') : '',
    roleless > 0
      ? counted(
          roleless,
          'One person is neither student nor staff there, and is left out.',
          '# people are neither students nor staff there, and are left out.',
        )
      : '',
    others > 0
      ? counted(
          others,
          'One student of the course came by hand or by a file, and stays.',
          '# students of the course came by hand or by a file, and stay.',
        )
      : '',
  ].filter((one) => one !== '');
  return {
    fingerprint: fingerprintOf(changes),
    read: [`${campus} names ${counted(members.length, '1 person', '# people')}.`, ...notes].join(' '),
    add: add.map((one) => ({
      row: row(one),
      ...{
        name: one.name ?? 'Somebody',
        email: one.email ?? 'no address',
        role: one.role,
        campusId: one.campusId,
        section: null,
      },
    })),
    update: update.map((one) => ({ row: row(one.member), name: one.place.name, changes: changeWords(one) })),
    missing: missing.map(({ id, name, email }) => ({ id, name, email: isAddress(email) ? email : 'no address' })),
    unchanged,
    problems: clashes.map((one) => clashView(one, row(one.member))),
    unknownColumns: [],
    classes: [],
    text: null,
  };
}

function changeWords({ fields, rejoins, tiedBy, member }: MemberUpdate): string[] {
  const tie =
    tiedBy === null
      ? []
      : [
          `is taken for ${member.name ?? 'the person'} of the campus, because of the same ${tiedBy === 'email' ? 'address' : 'campus id'}`,
        ];
  return [
    ...(rejoins ? ['comes back, with all earlier work'] : []),
    ...tie,
    ...fields.map(({ field, from, to }) => `${FIELD_WORDS[field]}: ${from ?? 'none'} → ${to}`),
  ];
}

/** All of these are left as they are; the rest can be applied. */
function clashView({ code, member, place }: MemberClash, row: number): RosterProblemView {
  const who = member.name ?? member.email ?? 'Somebody';
  const words: Readonly<Record<MemberClash['code'], string>> = {
    'own-account': `${place.name} has taken the place with an account, and says that both are the same person when coming from the campus.`,
    'other-member': `${place.name} is somebody else of the campus already.`,
    'two-people': `What the campus knows of ${who} belongs to two people here: look at their addresses and campus ids.`,
    'other-role': `${place.name} is ${place.role} here, and ${member.role ?? 'nothing'} on the campus. The role here stays.`,
  };
  return { row, sentence: `${who}: ${words[code]}`, warning: true };
}

/** Two answers of the campus that would change the same have the same one, as long as the people stay. */
export function fingerprintOf({ add, update, missing, unchanged, clashes }: MemberChanges): string {
  const outline = {
    add,
    update: update.map(({ place, member, fields, tiedBy, rejoins }) => [
      place.id,
      member.user,
      fields,
      tiedBy,
      rejoins,
    ]),
    missing: missing.map(({ id }) => id),
    unchanged,
    clashes: clashes.map(({ code, place, member }) => [code, place.id, member.user]),
  };
  return createHash('sha256').update(JSON.stringify(outline)).digest('base64url');
}
