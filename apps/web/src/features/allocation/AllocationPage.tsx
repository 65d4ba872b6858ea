import type { AllocationPreviewView, AllocationView, PairView } from '@salt-circle/contracts';
import { useState } from 'react';
import { Button, Dialog, Empty, Loading, Notice, StateMark } from '../../kit/index.js';
import { api } from '../../app/api.js';
import { labelWords, Person } from '../../app/People.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useNow } from '../../app/time/useNow.js';
import { When } from '../../app/time/When.js';
import { useExchange } from '../../app/useExchange.js';
import { Quality } from './Quality.js';

const { useAllocationQuery, usePreviewAllocationMutation, useApplyAllocationMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    allocation: build.query<AllocationView, string>({
      query: (id) => `/exchanges/${id}/allocation`,
      providesTags: ['Allocation'],
    }),
    previewAllocation: build.mutation<AllocationPreviewView, { id: string; seed: number }>({
      query: ({ id, seed }) => ({ url: `/exchanges/${id}/allocation/preview`, method: 'POST', body: { seed } }),
    }),
    applyAllocation: build.mutation<AllocationView, { id: string; seed: number; fingerprint: string }>({
      query: ({ id, ...body }) => ({ url: `/exchanges/${id}/allocation`, method: 'POST', body }),
      invalidatesTags: ['Allocation', 'Exchange', 'Progress', 'Today', 'Review'],
    }),
  }),
});

/** Who reviews whom: what is applied, and a preview of what could be. */
export function AllocationPage() {
  const exchange = useExchange();
  const now = useNow();
  const { data: current, error } = useAllocationQuery(exchange.id, { refetchOnMountOrArgChange: true });
  const [preview, previewing] = usePreviewAllocationMutation();
  const [apply, applying] = useApplyAllocationMutation();
  const [shown, setShown] = useState<AllocationPreviewView | null>(null);
  const [asking, setAsking] = useState(false);

  const look = async () => {
    const result = await preview({ id: exchange.id, seed: Math.floor(Math.random() * 2 ** 32) });
    setShown(result.data ?? null);
  };
  const put = async () => {
    if (shown === null) return;
    const result = await apply({ id: exchange.id, seed: shown.seed, fingerprint: shown.fingerprint });
    setAsking(false);
    if (result.error === undefined) setShown(null);
  };
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (current === undefined) return <Loading what="the allocation" />;
  const due = exchange.dates.draftsDue;
  const early = due !== null && now < Date.parse(due);
  const problem = previewing.error ?? applying.error;

  return (
    <div className="grid flex-1 grid-cols-1 lg:grid-cols-[1fr_23rem]">
      <div className="px-5 py-5">
        <h2 className="mb-1 text-xl font-semibold">Who reviews whom</h2>
        {shown === null && !current.applied && <NothingYet view={current} published={exchange.published} />}
        {shown !== null && <p className="mb-3 text-copper">Preview: nothing has been applied yet.</p>}
        {shown === null && current.applied && (
          <p className="mb-3 text-ink-soft">
            {current.pairs.length} reviews allocated. Reviewers see them when reviewing opens.
          </p>
        )}
        {(shown ?? current).pairs.length > 0 && <Pairs pairs={(shown ?? current).pairs} applied={shown === null} />}
      </div>
      <aside className="space-y-4 border-l border-line bg-crust px-5 py-5">
        {problem !== undefined && <ProblemNotice error={problem} />}
        {early && due !== null && (
          <Notice tone="soon" title="Drafts can still come in.">
            They are due <When at={due} timeZone={exchange.course.timeZone} />. Whoever hands in after you apply gets no
            reviews from this allocation.
          </Notice>
        )}
        {shown !== null && <Quality preview={shown} reviewsEach={exchange.reviewsPerStudent} />}
        {current.begun ? (
          <Notice title="Reviewing has begun.">The allocation stays as it is, so that no work is thrown away.</Notice>
        ) : (
          <div className="flex flex-wrap gap-2">
            {shown !== null && (
              <Button look="primary" onClick={() => setAsking(true)}>
                Apply to {shown.pairs.length} reviews…
              </Button>
            )}
            <Button
              look={shown === null ? 'primary' : 'plain'}
              busy={previewing.isLoading}
              disabled={!exchange.published}
              onClick={() => void look()}
            >
              {shown === null
                ? current.applied
                  ? 'Preview another allocation'
                  : 'Preview an allocation'
                : 'Try another'}
            </Button>
            {shown !== null && (
              <Button look="quiet" onClick={() => setShown(null)}>
                Drop the preview
              </Button>
            )}
          </div>
        )}
        <p className="text-sm text-ink-soft">
          Everyone who handed in gets {exchange.reviewsPerStudent}{' '}
          {exchange.reviewsPerStudent === 1 ? 'draft' : 'drafts'} of others; nobody gets their own; every draft gets its
          share, give or take one.
        </p>
      </aside>
      <Dialog
        open={asking}
        onClose={() => setAsking(false)}
        title={current.applied ? 'Replace the allocation?' : 'Apply this allocation?'}
        description={
          current.applied
            ? `The ${current.pairs.length} reviews allocated now are replaced. None of them has been begun, so no work is lost.`
            : 'Reviewers see their drafts when reviewing opens. Until the first review is begun, you can replace it.'
        }
      >
        <Button look="primary" busy={applying.isLoading} onClick={() => void put()}>
          Apply
        </Button>
      </Dialog>
    </div>
  );
}

function NothingYet({ view, published }: { readonly view: AllocationView; readonly published: boolean }) {
  return (
    <Empty title="No drafts have been allocated yet.">
      <p>
        {published
          ? `${view.handedIn} of ${view.students} students have handed in. A preview shows who would review whom before anything is applied.`
          : 'Publish the exchange first; drafts are allocated once they have been handed in.'}
      </p>
    </Empty>
  );
}

function Pairs({ pairs, applied }: { readonly pairs: readonly PairView[]; readonly applied: boolean }) {
  return (
    <table className="w-full text-left">
      <thead className="sticky top-0 bg-salt">
        <tr className="border-b border-ink text-sm text-ink-soft">
          <th className="py-1.5 pr-3 font-semibold">Reviewer</th>
          <th className="py-1.5 pr-3 font-semibold">reviews the draft by</th>
          <th className="py-1.5 pr-3 font-semibold">Title</th>
          {applied && <th className="py-1.5 font-semibold">State</th>}
        </tr>
      </thead>
      <tbody>
        {pairs.map((pair, index) => {
          const repeated =
            index > 0 && labelWords((pairs[index - 1] as PairView).reviewer) === labelWords(pair.reviewer);
          return (
            <tr
              key={`${labelWords(pair.reviewer)} ${labelWords(pair.author)}`}
              className={repeated ? '' : 'border-t border-line'}
            >
              <td className="py-1.5 pr-3">
                {repeated ? (
                  <span className="sr-only">{labelWords(pair.reviewer)}</span>
                ) : (
                  <Person label={pair.reviewer} />
                )}
              </td>
              <td className="py-1.5 pr-3">
                <Person label={pair.author} />
              </td>
              <td className="max-w-64 truncate py-1.5 pr-3 text-ink-soft">{pair.draftTitle}</td>
              {applied && (
                <td className="py-1.5">
                  <StateMark
                    state={pair.state === 'submitted' ? 'done' : pair.state}
                    share={0.5}
                    word={
                      pair.state === 'submitted' ? 'submitted' : pair.state === 'in-progress' ? 'begun' : 'not begun'
                    }
                    wordHidden={false}
                  />
                </td>
              )}
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
