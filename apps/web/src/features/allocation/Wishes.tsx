import type { AllocationView, WishesView } from '@salt-circle/contracts';
import { LIMITS } from '@salt-circle/contracts/plain';
import { Checkbox, Select } from '../../kit/index.js';
import type { WishesBody } from './allocationApi.js';
import { WHOM_WORDS } from './sentences.js';
import { say } from '../../words/allocation.js';

export function asBody({ whom, reviewsEach, avoid, mix, maxPerDraft }: WishesView): WishesBody {
  return { whom, reviewsEach, avoid: avoid === 'all' ? null : avoid, mix, maxPerDraft };
}

const EACH = Array.from({ length: LIMITS.reviewsPerStudentMax }, (_, index) => String(index + 1));
const WHOM = Object.keys(WHOM_WORDS) as Array<WishesView['whom']>;

interface WishesProps {
  readonly view: AllocationView;
  readonly wishes: WishesView;
  /** Why what students have been told cannot be changed from here; null when it can. */
  readonly planFixed: string | null;
  readonly onChange: (wishes: WishesView) => void;
}

/** What an automatic allocation goes by. Every change shows in a new preview. */
export function Wishes({ view, wishes, planFixed, onChange }: WishesProps) {
  const change = (part: Partial<WishesView>) => onChange({ ...wishes, ...part });
  const known = view.reviewers.filter(({ strength }) => strength !== null).length;
  const avoided = wishes.avoid;
  return (
    <section aria-label={say('wishes')} className="space-y-2.5">
      <h3 className="font-semibold">{say('wishes')}</h3>
      <Select
        label={say('whoMayReviewWhom')}
        value={wishes.whom}
        disabled={planFixed !== null}
        hint={planFixed ?? undefined}
        options={WHOM.filter((whom) => whom === 'anyone' || view.hasGroups || whom === wishes.whom).map((whom) => [
          whom,
          WHOM_WORDS[whom],
        ])}
        onChange={(whom) => change({ whom: whom as WishesView['whom'] })}
      />
      <div className="grid grid-cols-2 gap-3">
        {wishes.whom !== 'partners' && (
          <Select
            label={say('reviewsEach')}
            value={String(wishes.reviewsEach)}
            disabled={planFixed !== null}
            options={EACH.map((each) => [each, each])}
            onChange={(each) => change({ reviewsEach: Number(each) })}
          />
        )}
        <Select
          label={say('atMostPerDraft')}
          value={String(wishes.maxPerDraft ?? '')}
          options={[['', say('noLimit')], ...EACH.map((each) => [each, each] as const)]}
          onChange={(most) => change({ maxPerDraft: most === '' ? null : Number(most) })}
        />
      </div>
      {view.earlierExchanges.length > 0 && (
        <fieldset>
          <legend className="font-medium">{say('avoidPairsOf')}</legend>
          {view.earlierExchanges.map(({ id, title }) => {
            const chosen = avoided === 'all' || avoided.includes(id);
            const all = view.earlierExchanges.map((one) => one.id);
            const now = avoided === 'all' ? all : avoided;
            return (
              <div key={id}>
                <Checkbox
                  label={title}
                  checked={chosen}
                  onChange={() => {
                    const next = chosen ? now.filter((one) => one !== id) : [...now, id];
                    change({ avoid: all.every((one) => next.includes(one)) ? 'all' : next });
                  }}
                />
              </div>
            );
          })}
        </fieldset>
      )}
      <div>
        <Checkbox
          label={say('mixStrongerAndWeakerReviewers')}
          checked={wishes.mix}
          disabled={known === 0}
          onChange={({ target }) => change({ mix: target.checked })}
        />
        <p className="text-sm text-ink-soft">
          {known === 0
            ? say('nobodyHasReviewedInThis')
            : say('byReviewsOfEarlierExchanges', { known, reviewers: view.reviewers.length })}
        </p>
      </div>
    </section>
  );
}
