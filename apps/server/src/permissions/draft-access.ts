import type { DraftRelation } from '@salt-circle/core';
import { IsNull, Not, type EntityManager } from 'typeorm';
import { DraftVersion, type Draft } from '../model/draft.js';
import { Review } from '../model/review.js';
import type { ExchangeContext } from './access.js';
import { draftOf } from './own-draft.js';

/** How the one who asks stands to a draft, with the review that it was given to them for, if it was. */
export interface DraftAccess extends DraftRelation {
  readonly context: ExchangeContext;
  readonly draft: Draft;
  /** Of this draft, by the one who asks. */
  readonly review: Review | null;
}

/** How the one who asks stands to any draft of the exchange, as far as it follows from the own one. */
export type OwnDraftAccess = Pick<DraftRelation, 'viewerHandedIn' | 'selfReviewed' | 'othersReviewed'>;

/** Whether the one who asks has handed in, and has submitted the review of the own draft, and those of others. */
export async function ownDraftAccess(manager: EntityManager, context: ExchangeContext): Promise<OwnDraftAccess> {
  const { participant } = context;
  const own = participant === null ? null : await draftOf(manager, participant, context.groupId);
  if (participant === null || own === null) {
    return { viewerHandedIn: false, selfReviewed: false, othersReviewed: false };
  }
  return {
    viewerHandedIn: await manager.existsBy(DraftVersion, { draftId: own.id, withdrawnAt: IsNull() }),
    selfReviewed: await manager.existsBy(Review, {
      reviewerId: participant.id,
      draftId: own.id,
      submittedAt: Not(IsNull()),
    }),
    othersReviewed: !(await manager.existsBy(Review, {
      reviewerId: participant.id,
      draftId: Not(own.id),
      submittedAt: IsNull(),
    })),
  };
}

/** The one answer to “how does this person stand to this draft”: what is seen and done follows from it. */
export async function draftAccess(
  manager: EntityManager,
  context: ExchangeContext,
  draft: Draft,
  own?: OwnDraftAccess,
): Promise<DraftAccess> {
  const { participant } = context;
  const review =
    participant === null ? null : await manager.findOneBy(Review, { reviewerId: participant.id, draftId: draft.id });
  return {
    context,
    draft,
    review,
    ...(own ?? (await ownDraftAccess(manager, context))),
    ofOwnDraft: isOwnDraft(context, draft),
    allocatedToViewer: review !== null,
  };
}

/** Whether the one who asks is an author of this draft. */
function isOwnDraft(
  { participant, groupId }: ExchangeContext,
  draft: Pick<Draft, 'participantId' | 'groupId'>,
): boolean {
  if (participant === null) return false;
  return draft.groupId === null ? draft.participantId === participant.id : draft.groupId === groupId;
}

/** What the core asks for, without what was loaded. */
export function draftRelation(standing: DraftRelation): DraftRelation {
  const { viewerHandedIn, ofOwnDraft, selfReviewed, othersReviewed, allocatedToViewer } = standing;
  return { viewerHandedIn, ofOwnDraft, selfReviewed, othersReviewed, allocatedToViewer };
}
