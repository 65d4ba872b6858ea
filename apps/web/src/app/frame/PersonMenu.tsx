import { useState } from 'react';
import { useNavigate } from 'react-router';
import { Menu, type MenuItem } from '../../kit/index.js';
import { useSignOutMutation } from '../api.js';
import { CalendarDialog } from './CalendarDialog.js';
import { chosenTheme, chooseTheme, type Theme } from '../theme.js';

const THEMES: ReadonlyArray<readonly [Theme, string]> = [
  ['system', 'The same as this device'],
  ['light', 'Light'],
  ['dark', 'Dark'],
];

function initials(name: string): string {
  const parts = name.split(/\s+/);
  return `${parts[0]?.[0] ?? ''}${parts.length > 1 ? (parts.at(-1)?.[0] ?? '') : ''}`.toUpperCase();
}

interface PersonMenuProps {
  readonly name: string;
  readonly demo: boolean;
  readonly runsCampuses: boolean;
}

export function PersonMenu({ name, demo, runsCampuses }: PersonMenuProps) {
  const navigate = useNavigate();
  const [signOut] = useSignOutMutation();
  const [calendar, setCalendar] = useState(false);
  const leave = async () => {
    await signOut();
    // A full load: nothing of this person's data stays in memory for the next one.
    window.location.assign(demo ? '/demo' : '/sign-in');
  };
  const themes = THEMES.map(([theme, words]): MenuItem => ({
    words: (
      <span className="flex justify-between gap-4">
        {words}
        {chosenTheme() === theme && <span aria-label="chosen">✓</span>}
      </span>
    ),
    onPick: () => chooseTheme(theme),
  }));
  const going: MenuItem[] = [
    ...(demo ? [{ words: 'Step into somebody else', onPick: () => void navigate('/demo') }] : []),
    { words: 'Sign out', onPick: () => void leave() },
  ];
  return (
    <>
      <Menu
        trigger={
          <button
            type="button"
            aria-label={`${name}: account and theme`}
            className="size-7 rounded-full border border-iodine text-xs font-semibold text-iodine"
          >
            {initials(name)}
          </button>
        }
        groups={[
          [{ words: <strong>{name}</strong>, onPick: () => undefined, disabled: true }],
          [
            { words: 'Your account', onPick: () => void navigate('/account') },
            { words: 'Due times in your calendar…', onPick: () => setCalendar(true) },
            ...(runsCampuses ? [{ words: 'Campuses', onPick: () => void navigate('/campuses') }] : []),
            ...(demo ? [{ words: 'What scripts can call', onPick: () => void navigate('/description') }] : []),
          ],
          themes,
          going,
        ]}
      />
      <CalendarDialog open={calendar} onClose={() => setCalendar(false)} />
    </>
  );
}
