import { Checkbox, Select } from '../../kit/index.js';
import type { Settings } from './settings.js';

interface NamesProps {
  readonly settings: Settings;
  readonly fixed: string | undefined;
  readonly onChange: (part: Partial<Settings>) => void;
}

/** Whose names are hidden, and until when. */
export function Names({ settings, fixed, onChange }: NamesProps) {
  return (
    <>
      <Select
        label="Names"
        value={settings.names}
        options={[
          ['both-ways', 'Hidden both ways: authors and reviewers know each other by alias'],
          ['reviewers-only', 'Reviewers hidden: authors do not learn who reviewed them'],
          ['authors-only', 'Authors hidden: reviewers do not learn whose draft they read'],
          ['open', 'Open: everybody sees names'],
        ]}
        onChange={(names) => onChange({ names: names as Settings['names'] })}
        disabled={fixed !== undefined}
        hint={fixed ?? 'You see names and aliases in any case.'}
      />
      {settings.names !== 'open' && (
        <Checkbox
          label="Show names when feedback is released"
          checked={settings.showNamesAtRelease}
          disabled={fixed !== undefined}
          onChange={({ target }) => onChange({ showNamesAtRelease: target.checked })}
        />
      )}
    </>
  );
}
