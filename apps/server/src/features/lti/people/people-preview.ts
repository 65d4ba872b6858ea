import { createHash } from 'node:crypto';
import type { RosterPreview, RosterProblemView } from '@salt-circle/contracts';
import {
  isAddress,
  type LtiMember,
  type MemberChanges,
  type MemberClash,
  type MemberField,
  type MemberUpdate,
  wordsBy,
} from '@salt-circle/core';
import { say } from '../../../words/lti.js';

const FIELD_WORDS: Readonly<Record<MemberField, string>> = wordsBy(say, {
  name: 'name',
  email: 'address',
  campusId: 'campusId',
});

/** Whom a platform names. */
export interface Named {
  readonly members: readonly LtiMember[];
  readonly unreadable: number;
}

/** The same shape as that of a roster, so that it is looked at in the same way. Rows count the members of the platform. */
export function previewOf(changes: MemberChanges, { members, unreadable }: Named, platform: string): RosterPreview {
  const rowOf = new Map(members.map(({ user }, index) => [user, index + 1]));
  const row = ({ user }: LtiMember) => rowOf.get(user) ?? 0;
  const { add, update, missing, unchanged, clashes, twice, roleless, others } = changes;
  const notes = [
    unreadable > 0 ? say('entriesHaveNoIdAnd', { unreadable }) : '',
    twice > 0 ? say('peopleAreNamedTwice', { twice }) : '',
    roleless > 0 ? say('peopleAreNeitherStudentsNor', { roleless }) : '',
    others > 0 ? say('studentsOfCourseCameBy', { others }) : '',
  ].filter((one) => one !== '');
  return {
    fingerprint: fingerprintOf(changes),
    read: [say('namesPeople', { platform, members: members.length }), ...notes].join(' '),
    add: add.map((one) => ({
      row: row(one),
      ...{
        name: one.name ?? say('somebody'),
        email: one.email ?? say('noAddress'),
        role: one.role,
        campusId: one.campusId,
        section: null,
      },
    })),
    update: update.map((one) => ({ row: row(one.member), name: one.place.name, changes: changeWords(one) })),
    missing: missing.map(({ id, name, email }) => ({ id, name, email: isAddress(email) ? email : say('noAddress') })),
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
          tiedBy === 'email'
            ? say('isTakenForOfPlatform', { name: member.name ?? say('person') })
            : say('isTakenForOfPlatformBecause', { name: member.name ?? say('person') }),
        ];
  return [
    ...(rejoins ? [say('comesBackWithAllEarlier')] : []),
    ...tie,
    ...fields.map(({ field, from, to }) =>
      say('changedFrom', { field: FIELD_WORDS[field], from: from ?? say('nothingThere'), to: to ?? '' }),
    ),
  ];
}

/** All of these are left as they are; the rest can be applied. */
function clashView({ code, member, place }: MemberClash, row: number): RosterProblemView {
  const who = member.name ?? member.email ?? say('somebody');
  const words: Readonly<Record<MemberClash['code'], string>> = {
    'own-account': say('hasTakenPlaceWithAccount', { who, name: place.name }),
    'other-member': say('isSomebodyElseOfPlatform', { who, name: place.name }),
    'two-people': say('whatPlatformKnowsOfBelongs', { who }),
    'other-role': say('isHereAndOnPlatform', { who, name: place.name, here: place.role, there: member.role ?? 'none' }),
  };
  return { row, sentence: words[code], warning: true };
}

/** Two answers of the platform that would change the same have the same one, as long as the people stay. */
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
