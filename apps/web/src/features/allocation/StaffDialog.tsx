import type { AllocationView } from '@salt-circle/contracts';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useExchange } from '../../app/useExchange.js';
import { Dialog, Select } from '../../kit/index.js';
import { useSetExtraReviewerMutation } from './allocationApi.js';
import { say } from '../../words/allocation.js';

const MOST = 30;

/** Assistants and instructors who review as well, each under an alias of the exchange. */
export function StaffDialog({ view, onClose }: { readonly view: AllocationView; readonly onClose: () => void }) {
  const exchange = useExchange();
  const [save, { error, isLoading }] = useSetExtraReviewerMutation();
  return (
    <Dialog open onClose={onClose} title={say('staffWhoReviewAsWellLabel')} description={say('theyCountAsReviewersIn')}>
      <ul className="space-y-2">
        {view.staff.map(({ personId, name, reviews }) => (
          <li key={personId} className="flex items-center justify-between gap-3">
            <span>{name}</span>
            <span className="w-36">
              <Select
                label={say('reviewsBy', { name })}
                labelHidden
                value={String(reviews ?? '')}
                disabled={isLoading}
                options={[
                  ['', say('none')],
                  ...Array.from(
                    { length: MOST },
                    (_, index) => [String(index + 1), say('reviewsCounted', { count: index + 1 })] as const,
                  ),
                ]}
                onChange={(count) =>
                  void save({ id: exchange.id, personId, reviews: count === '' ? null : Number(count) })
                }
              />
            </span>
          </li>
        ))}
      </ul>
      {error !== undefined && <ProblemNotice error={error} />}
    </Dialog>
  );
}
