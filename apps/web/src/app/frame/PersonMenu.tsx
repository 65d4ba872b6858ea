import { useState } from 'react';
import { useNavigate } from 'react-router';
import { Menu, type MenuItem } from '../../kit/index.js';
import { leave, unsentTexts } from '../session/leave.js';
import { SignOutDialog } from '../session/SignOutDialog.js';
import { useMe } from '../session/useMe.js';
import { saveQueue } from '../store.js';
import { CalendarDialog } from './CalendarDialog.js';
import { chosenTheme, chooseTheme, type Theme } from '../theme.js';
import { say } from '../../words/app.js';

const themeChoices = (): ReadonlyArray<readonly [Theme, string]> => [
  ['system', say('sameAsThisDevice')],
  ['light', say('light')],
  ['dark', say('dark')],
];

function initials(name: string): string {
  const parts = name.split(/\s+/);
  return `${parts[0]?.[0] ?? ''}${parts.length > 1 ? (parts.at(-1)?.[0] ?? '') : ''}`.toUpperCase();
}

interface PersonMenuProps {
  readonly name: string;
  readonly demo: boolean;
  readonly runsPlatforms: boolean;
}

export function PersonMenu({ name, demo, runsPlatforms }: PersonMenuProps) {
  const navigate = useNavigate();
  const [calendar, setCalendar] = useState(false);
  const me = useMe();
  const [unsent, setUnsent] = useState<readonly string[] | null>(null);
  const ask = async () => {
    await saveQueue.flush(`${me.id}:`);
    const texts = await unsentTexts(me.id);
    if (texts.length === 0) await leave(me.id);
    else setUnsent(texts);
  };
  const themes = themeChoices().map(([theme, words]): MenuItem => ({
    words: (
      <span className="flex justify-between gap-4">
        {words}
        {chosenTheme() === theme && <span aria-label={say('chosenWord')}>✓</span>}
      </span>
    ),
    onPick: () => chooseTheme(theme),
  }));
  const going: MenuItem[] = [
    ...(demo ? [{ words: say('stepIntoSomebodyElse'), onPick: () => void navigate('/demo') }] : []),
    { words: say('signOut'), onPick: () => void ask() },
  ];
  return (
    <>
      <Menu
        trigger={
          <button
            type="button"
            aria-label={say('accountAndTheme', { name })}
            className="size-7 rounded-full border border-iodine text-xs font-semibold text-iodine"
          >
            {initials(name)}
          </button>
        }
        groups={[
          [{ words: <strong>{name}</strong>, onPick: () => undefined, disabled: true }],
          [
            { words: say('yourAccount'), onPick: () => void navigate('/account') },
            { words: say('dueTimesInYourCalendarLabel'), onPick: () => setCalendar(true) },
            ...(runsPlatforms ? [{ words: say('platforms'), onPick: () => void navigate('/platforms') }] : []),
            ...(demo ? [{ words: say('whatScriptsCanCall'), onPick: () => void navigate('/description') }] : []),
          ],
          themes,
          going,
        ]}
      />
      <SignOutDialog texts={unsent} onGo={() => void leave(me.id)} onStay={() => setUnsent(null)} />
      <CalendarDialog open={calendar} onClose={() => setCalendar(false)} />
    </>
  );
}
