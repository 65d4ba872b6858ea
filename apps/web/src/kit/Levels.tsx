import { RadioGroup } from 'radix-ui';
import type { Level } from '@salt-circle/core';
import { say } from '../words/kit.js';

export interface LevelsProps {
  readonly label: string;
  readonly levels: readonly Level[];
  readonly value: string | null;
  /** Absent: shown, not chosen. */
  readonly onChange?: (levelId: string) => void;
}

/** "No claim, 0 points. It describes, but asks for nothing." */
function nameOf({ title, points, description }: Level): string {
  const name = say('points', { title, worth: points === null ? 'none' : 'some', points: points ?? 0 });
  return description === '' ? name : say('levelDescribed', { title: name, description });
}

/** The levels of a criterion side by side; arrow keys move the choice. */
export function Levels({ label, levels, value, onChange }: LevelsProps) {
  // Descriptions want room: such levels stand under each other until there is plenty.
  const wordy = levels.some(({ description }) => description !== '');
  return (
    <RadioGroup.Root
      aria-label={label}
      value={value}
      disabled={onChange === undefined}
      onValueChange={(next) => onChange?.(next)}
      orientation="horizontal"
      className={`flex flex-col ${wordy ? '@2xl:flex-row' : '@sm:flex-row'}`}
    >
      {levels.map((level) => (
        <RadioGroup.Item
          key={level.id}
          value={level.id}
          aria-label={nameOf(level)}
          className={`relative flex flex-1 flex-col border border-edge bg-paper px-2.5 py-1.5 text-left text-ink not-first:-mt-px data-[state=checked]:z-10 data-[state=checked]:outline-2 data-[state=checked]:-outline-offset-2 data-[state=checked]:outline-iodine ${wordy ? '@2xl:not-first:mt-0 @2xl:not-first:-ml-px' : '@sm:not-first:mt-0 @sm:not-first:-ml-px'}`}
        >
          <span>
            {level.points !== null && <span className="mr-1 font-semibold">{level.points}</span>}
            {level.title}
          </span>
          {level.description !== '' && <span className="block text-sm text-ink-soft">{level.description}</span>}
        </RadioGroup.Item>
      ))}
    </RadioGroup.Root>
  );
}
