import type { PlanView } from '@salt-circle/contracts';
import { needsGroups, type SelfReview, type Whom } from '@salt-circle/core';
import { Link } from 'react-router';
import { Checkbox, Select, TextField } from '../../kit/index.js';
import { AllocationWhen } from './AllocationWhen.js';
import type { Settings } from './settings.js';
import { say } from '../../words/plan.js';

export interface WhoReviewsProps {
  readonly settings: Settings;
  readonly plan: PlanView;
  readonly courseId: string;
  readonly problemAt: (path: string) => string | undefined;
  readonly onChange: (part: Partial<Settings>) => void;
  /** When drafts are allocated was changed, and takes a step of its own. */
  readonly onUnmoved: (sentences: readonly string[]) => void;
}

const whomChoices = (): ReadonlyArray<readonly [Whom, string]> => [
  ['anyone', say('anyoneWhoTakesPart')],
  ['own-group', say('onlyDraftsFromOwnGroup')],
  ['other-groups', say('onlyDraftsFromOtherGroups')],
  ['partners', say('standingPartnersAllOthersOf')],
];
const selfReviews = (): ReadonlyArray<readonly [SelfReview, string]> => [
  ['off', say('off')],
  ['first', say('firstDraftsOfOthersOpenAfter')],
  ['with', say('alongWithOthers')],
  ['after', say('lastItOpensOnceOthers')],
];

export function WhoReviews({ settings, plan, courseId, problemAt, onChange, onUnmoved }: WhoReviewsProps) {
  const { fixed, choices } = plan;
  const number = settings.reviewsPerStudent;
  return (
    <>
      <Select
        label={say('whoMayReviewWhom')}
        value={settings.whom}
        options={whomChoices()}
        disabled={fixed.whom !== undefined}
        hint={fixed.whom}
        problem={problemAt('whom')}
        onChange={(whom) => onChange({ whom: whom as Whom })}
      />
      {needsGroups(settings) && (
        <div>
          <Select
            label={say('groups')}
            value={settings.groupSetId ?? ''}
            options={[
              ['', say('chooseGroupSet')],
              ...choices.groupSets.map(
                ({ id, title, groups }) => [id, say('groupsCounted', { title, groups: groups.length })] as const,
              ),
            ]}
            disabled={fixed.groupSetId !== undefined}
            problem={problemAt('groupSetId')}
            onChange={(id) => onChange({ groupSetId: id === '' ? null : id })}
          />
          <Link to={`/courses/${courseId}/groups`} className="text-sm text-dusk underline">
            {say('makeOrChangeGroups')}
          </Link>
        </div>
      )}
      {settings.whom !== 'partners' && (
        <TextField
          label={say('reviewsEachStudentGives')}
          type="number"
          min={1}
          max={10}
          value={Number.isNaN(number) ? '' : number}
          onChange={(event) => onChange({ reviewsPerStudent: event.target.valueAsNumber })}
          disabled={fixed.reviewsPerStudent !== undefined}
          hint={fixed.reviewsPerStudent ?? say('dealtOutEvenlyOnceDrafts')}
          problem={problemAt('reviewsPerStudent')}
        />
      )}
      <Select
        label={say('selfReview')}
        value={settings.selfReview}
        options={selfReviews()}
        disabled={fixed.selfReview !== undefined}
        hint={fixed.selfReview ?? say('withSameFormOfOwn')}
        problem={problemAt('selfReview')}
        onChange={(selfReview) => onChange({ selfReview: selfReview as SelfReview })}
      />
      <Checkbox
        label={say('onlyThoseWhoHandedIn')}
        checked={settings.ownHandInFirst}
        disabled={fixed.selfReview !== undefined}
        onChange={({ target }) => onChange({ ownHandInFirst: target.checked })}
      />
      <AllocationWhen plan={plan} onUnmoved={onUnmoved} />
    </>
  );
}
