import type { PlanView } from '@salt-circle/contracts';
import { counted, needsGroups, type SelfReview, type Whom } from '@salt-circle/core';
import { Link } from 'react-router';
import { Checkbox, Select, TextField } from '../../kit/index.js';
import { AllocationWhen } from './AllocationWhen.js';
import type { Settings } from './settings.js';

export interface WhoReviewsProps {
  readonly settings: Settings;
  readonly plan: PlanView;
  readonly courseId: string;
  readonly problemAt: (path: string) => string | undefined;
  readonly onChange: (part: Partial<Settings>) => void;
  /** When drafts are allocated was changed, and takes a step of its own. */
  readonly onUnmoved: (sentences: readonly string[]) => void;
}

const WHOM: ReadonlyArray<readonly [Whom, string]> = [
  ['anyone', 'Anyone who takes part'],
  ['own-group', 'Only drafts from the own group'],
  ['other-groups', 'Only drafts from other groups'],
  ['partners', 'Standing partners: all others of the own group'],
];
const SELF: ReadonlyArray<readonly [SelfReview, string]> = [
  ['off', 'Off'],
  ['first', 'First: the drafts of others open after it'],
  ['with', 'Along with the others'],
  ['after', 'Last: it opens once the others are submitted'],
];

export function WhoReviews({ settings, plan, courseId, problemAt, onChange, onUnmoved }: WhoReviewsProps) {
  const { fixed, choices } = plan;
  const number = settings.reviewsPerStudent;
  return (
    <>
      <Select
        label="Who may review whom"
        value={settings.whom}
        options={WHOM}
        disabled={fixed.whom !== undefined}
        hint={fixed.whom}
        problem={problemAt('whom')}
        onChange={(whom) => onChange({ whom: whom as Whom })}
      />
      {needsGroups(settings) && (
        <div>
          <Select
            label="Groups"
            value={settings.groupSetId ?? ''}
            options={[
              ['', 'Choose a group set'],
              ...choices.groupSets.map(
                ({ id, title, groups }) => [id, `${title} (${counted(groups.length, '1 group', '# groups')})`] as const,
              ),
            ]}
            disabled={fixed.groupSetId !== undefined}
            problem={problemAt('groupSetId')}
            onChange={(id) => onChange({ groupSetId: id === '' ? null : id })}
          />
          <Link to={`/courses/${courseId}/groups`} className="text-sm text-dusk underline">
            Make or change groups
          </Link>
        </div>
      )}
      {settings.whom !== 'partners' && (
        <TextField
          label="Reviews each student gives"
          type="number"
          min={1}
          max={10}
          value={Number.isNaN(number) ? '' : number}
          onChange={(event) => onChange({ reviewsPerStudent: event.target.valueAsNumber })}
          disabled={fixed.reviewsPerStudent !== undefined}
          hint={fixed.reviewsPerStudent ?? 'Dealt out evenly once drafts are in.'}
          problem={problemAt('reviewsPerStudent')}
        />
      )}
      <Select
        label="Self-review"
        value={settings.selfReview}
        options={SELF}
        disabled={fixed.selfReview !== undefined}
        hint={fixed.selfReview ?? 'With the same form, of the own draft.'}
        problem={problemAt('selfReview')}
        onChange={(selfReview) => onChange({ selfReview: selfReview as SelfReview })}
      />
      <Checkbox
        label="Only those who handed in their own draft review others"
        checked={settings.ownHandInFirst}
        disabled={fixed.selfReview !== undefined}
        onChange={({ target }) => onChange({ ownHandInFirst: target.checked })}
      />
      <AllocationWhen plan={plan} onUnmoved={onUnmoved} />
    </>
  );
}
