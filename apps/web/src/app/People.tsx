import type { PersonLabel, PersonRow } from '@salt-circle/contracts';
import { wordsBy } from '@salt-circle/core';
import { say } from '../words/app.js';

export const ROLE_WORDS: Readonly<Record<PersonRow['role'], string>> = wordsBy(say, {
  instructor: 'roleInstructor',
  assistant: 'roleAssistant',
  student: 'roleStudent',
});

/** A person in a few words, as the one who looks may know them. */
export function labelWords({ name, alias, you, role }: PersonLabel): string {
  if (role !== undefined) return say('withRole', { name: name ?? say('you'), role });
  if (you === true) return say('you');
  return name ?? alias ?? '';
}

/** Name first, the alias beside it where both are known. */
export function Person({ label }: { readonly label: PersonLabel }) {
  return (
    <>
      <span className="font-medium">{labelWords(label)}</span>
      {label.name !== undefined && label.alias !== undefined && (
        <span className="ml-1.5 font-normal text-ink-soft">{label.alias}</span>
      )}
    </>
  );
}
