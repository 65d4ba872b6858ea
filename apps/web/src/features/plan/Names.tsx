import { Checkbox, Select } from '../../kit/index.js';
import type { Settings } from './settings.js';
import { say } from '../../words/plan.js';

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
        label={say('names')}
        value={settings.names}
        options={[
          ['both-ways', say('hiddenBothWaysAuthorsAnd')],
          ['reviewers-only', say('reviewersHiddenAuthorsDoNot')],
          ['authors-only', say('authorsHiddenReviewersDoNot')],
          ['open', say('openEverybodySeesNames')],
        ]}
        onChange={(names) => onChange({ names: names as Settings['names'] })}
        disabled={fixed !== undefined}
        hint={fixed ?? say('youSeeNamesAndAliases')}
      />
      {settings.names !== 'open' && (
        <Checkbox
          label={say('showNamesWhenFeedbackIs')}
          checked={settings.showNamesAtRelease}
          disabled={fixed !== undefined}
          onChange={({ target }) => onChange({ showNamesAtRelease: target.checked })}
        />
      )}
    </>
  );
}
