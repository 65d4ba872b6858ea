import { listed } from '@salt-circle/core';
import type { RosterPreview, RosterProblemView } from '@salt-circle/contracts';
import type { ReactNode } from 'react';
import { useCourse } from '../../app/useCourse.js';
import { usePeopleQuery } from './peopleApi.js';
import { say } from '../../words/people.js';
import { ROLE_WORDS } from '../../app/People.js';

const SHOWN = 100;

/** What is wrong, row by row; what is said by the way comes after it. */
export function RosterProblems({ problems }: { readonly problems: readonly RosterProblemView[] }) {
  if (problems.length === 0) return null;
  const sorted = [...problems].sort((a, b) => Number(a.warning) - Number(b.warning) || a.row - b.row);
  return (
    <div role="alert" className="max-h-48 overflow-y-auto border-l-[3px] border-madder px-3">
      <ul className="space-y-1 text-sm">
        {sorted.slice(0, SHOWN).map((one, index) => (
          <li key={index} className={one.warning ? 'text-saffron' : 'text-madder'}>
            {one.sentence}
          </li>
        ))}
      </ul>
      {sorted.length > SHOWN && <p className="text-sm">{say('andMore', { sorted: sorted.length - SHOWN })}</p>}
    </div>
  );
}

/** What would change, in four lists with their counts. */
export function RosterChanges({
  shown,
  numbered = true,
}: {
  readonly shown: RosterPreview;
  readonly numbered?: boolean;
}) {
  const { add, update, missing, unchanged } = shown;
  const course = useCourse();
  const { data } = usePeopleQuery(course.id);
  /** Of those who would be dropped, whom that would leave alone. */
  const partnersOf = (id: string) => data?.people.find((one) => one.id === id)?.partnerOf ?? [];
  return (
    <div>
      <p className="font-medium">
        {say('toAddToUpdateUnchanged', { add: add.length, update: update.length, unchanged, missing: missing.length })}
      </p>
      <List title={say('added')} count={add.length}>
        {add.slice(0, SHOWN).map(({ row, name, email, role, campusId, section }) => (
          <li key={row}>
            {numbered && <span className="text-ink-soft tabular-nums">{say('row', { row })}</span>} {name}{' '}
            <span className="text-ink-soft">
              {listed(
                [
                  email,
                  ...(role === 'student' ? [] : [ROLE_WORDS[role]]),
                  ...(campusId === null ? [] : [say('id', { campusId })]),
                  ...(section === null ? [] : [say('sectionOf', { section })]),
                ],
                'comma',
              )}
            </span>
          </li>
        ))}
      </List>
      <List title={say('updated')} count={update.length}>
        {update.slice(0, SHOWN).map(({ row, name, changes }) => (
          <li key={row}>
            {numbered && <span className="text-ink-soft tabular-nums">{say('row', { row })}</span>} {name}{' '}
            <span className="text-ink-soft">{changes.join('; ')}</span>
          </li>
        ))}
      </List>
      <List title={say('inCourseButNotNamed')} count={missing.length}>
        {missing.slice(0, SHOWN).map(({ id, name, email }) => (
          <li key={id}>
            {name} <span className="text-ink-soft">{email}</span>
            {partnersOf(id).map((sentence) => (
              <span key={sentence} className="block text-copper">
                {sentence}
              </span>
            ))}
          </li>
        ))}
      </List>
    </div>
  );
}

interface ListProps {
  readonly title: string;
  readonly count: number;
  readonly children: ReactNode;
}

function List({ title, count, children }: ListProps) {
  if (count === 0) return null;
  return (
    <details className="border-b border-line py-1">
      <summary className="cursor-pointer">
        {title} <span className="text-ink-soft">{count}</span>
      </summary>
      <ul className="max-h-48 overflow-y-auto py-1 pl-4 text-sm">{children}</ul>
      {count > SHOWN && <p className="pl-4 text-sm text-ink-soft">{say('andMoreOf', { count: count - SHOWN })}</p>}
    </details>
  );
}
