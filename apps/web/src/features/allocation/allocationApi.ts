import type {
  AllocationImportView,
  AllocationView,
  BoardChange,
  JobView,
  PreviewKind,
  Problem,
  ScheduleKind,
} from '@salt-circle/contracts';
import { changedBoard } from '@salt-circle/contracts/plain';
import type { Pair, Whom } from '@salt-circle/core';
import { api } from '../../app/api.js';
import type { RootState } from '../../app/store.js';
import { changedHere } from '../../app/changes/freshness.js';

/** All that follows from who reviews whom. */
const FOLLOWS = ['Exchange', 'Progress', 'Today', 'Review', 'Plan'] as const;
const at = (id: string, path = '') => `/exchanges/${id}/allocation${path}`;

export interface WishesBody {
  readonly whom: Whom;
  readonly reviewsEach: number;
  readonly avoid: readonly string[] | null;
  readonly mix: boolean;
  readonly maxPerDraft: number | null;
}

export interface PreviewBody {
  readonly kind: PreviewKind;
  readonly seed: number | null;
  readonly wishes: WishesBody | null;
}

export interface ActsBody {
  readonly add?: readonly Pair[];
  readonly remove?: readonly Pair[];
  readonly lock?: readonly Pair[];
  readonly unlock?: readonly Pair[];
  readonly forbid?: readonly Pair[];
  readonly allow?: readonly Pair[];
  readonly confirmed?: boolean;
}

export interface PlanBody {
  readonly revision: number;
  readonly wishes: WishesBody;
  readonly schedule: ScheduleKind;
  readonly at: string | null;
  readonly party: number;
  readonly patience: number;
}

interface BoardCall {
  readonly id: string;
  readonly url: string;
  readonly method?: string;
  readonly body?: object;
}

interface Told {
  readonly data?: unknown;
  readonly error?: Problem | undefined;
}

/** Says which board is on the screen, so that what differs from it is enough of an answer. */
async function askBoard(
  { id, url, ...call }: BoardCall,
  state: unknown,
  ask: (call: Omit<BoardCall, 'id'>) => PromiseLike<Told> | Told,
): Promise<{ data: AllocationView } | { error: Problem }> {
  const shown = boards.endpoints.allocation.select(id)(state as RootState).data;
  const answer = await ask({ ...call, url: shown === undefined ? url : `${url}?since=${shown.asOf}` });
  if (answer.error !== undefined) return { error: answer.error };
  const told = answer.data as AllocationView | BoardChange;
  return { data: shown !== undefined && 'since' in told ? changedBoard(shown, told) : (told as AllocationView) };
}

const boards = api.injectEndpoints({
  endpoints: (build) => ({
    allocation: build.query<AllocationView, string>({
      queryFn: (id, { getState }, _, ask) => askBoard({ id, url: at(id) }, getState(), ask),
      providesTags: changedHere(['Allocation'], 'allocation'),
      // A question asked before an act may be answered after it: what is older never takes the place of what is newer.
      merge: (shown, answer) => (answer.asOf >= shown.asOf ? answer : undefined),
    }),
  }),
});

export const allocationApi = boards.injectEndpoints({
  endpoints: (build) => {
    /** Answers with the board as it is after; that goes into the cache at once. */
    const changing = <Given extends { readonly id: string }>(
      request: (given: Given) => { url: string; method: string; body?: object },
    ) =>
      build.mutation<AllocationView, Given>({
        queryFn: (given, { getState }, _, ask) => askBoard({ id: given.id, ...request(given) }, getState(), ask),
        invalidatesTags: FOLLOWS,
        onQueryStarted: async ({ id }, { dispatch, queryFulfilled }) => {
          // Refused: the sentence is shown where it was asked.
          const answer = await queryFulfilled.catch(() => null);
          // At once, before whoever pressed goes on: nobody sees the board as it was under what was done.
          if (answer !== null) dispatch(boards.util.updateQueryData('allocation', id, () => answer.data));
        },
      });
    return {
      startPreview: build.mutation<JobView, { id: string } & PreviewBody>({
        query: ({ id, ...body }) => ({ url: at(id, '/previews'), method: 'POST', body }),
      }),
      previewJob: build.query<JobView, { id: string; jobId: string }>({
        query: ({ id, jobId }) => at(id, `/jobs/${jobId}`),
        keepUnusedDataFor: 0,
      }),
      cancelPreview: build.mutation<null, { id: string; jobId: string }>({
        query: ({ id, jobId }) => ({ url: at(id, `/jobs/${jobId}`), method: 'DELETE' }),
      }),
      dropPreview: build.mutation<null, { id: string; previewId: string }>({
        query: ({ id, previewId }) => ({ url: at(id, `/previews/${previewId}`), method: 'DELETE' }),
        invalidatesTags: ['Allocation', 'Today'],
      }),
      applyPreview: changing<{ id: string; previewId: string }>(({ id, previewId }) => ({
        url: at(id),
        method: 'POST',
        body: { previewId },
      })),
      undoAllocation: changing<{ id: string; step: number }>(({ id, step }) => ({
        url: at(id, '/undo'),
        method: 'POST',
        body: { step },
      })),
      actByHand: changing<{ id: string } & ActsBody>(({ id, ...body }) => ({
        url: at(id, '/acts'),
        method: 'POST',
        body,
      })),
      setAllocationPlan: changing<{ id: string } & PlanBody>(({ id, ...body }) => ({
        url: at(id, '/plan'),
        method: 'PUT',
        body,
      })),
      setExtraReviewer: changing<{ id: string; personId: string; reviews: number | null }>(({ id, ...body }) => ({
        url: at(id, '/extra'),
        method: 'PUT',
        body,
      })),
      readAllocationFile: build.mutation<
        AllocationImportView,
        { id: string; text: string | null; base64: string | null; apply: boolean }
      >({
        query: ({ id, ...body }) => ({ url: at(id, '/file'), method: 'POST', body }),
        invalidatesTags: (result) => (result?.applied === true ? ['Allocation', ...FOLLOWS] : []),
      }),
    };
  },
});

export const { useAllocationQuery } = boards;

export const {
  useStartPreviewMutation,
  useLazyPreviewJobQuery,
  useCancelPreviewMutation,
  useDropPreviewMutation,
  useApplyPreviewMutation,
  useUndoAllocationMutation,
  useActByHandMutation,
  useSetAllocationPlanMutation,
  useSetExtraReviewerMutation,
  useReadAllocationFileMutation,
} = allocationApi;
