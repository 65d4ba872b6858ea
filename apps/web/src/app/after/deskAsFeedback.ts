import type { DeskView, FeedbackView } from '@salt-circle/contracts';

/** One review and its draft, read as feedback is. */
export function deskAsFeedback(desk: DeskView): FeedbackView {
  const { id, reviewer, self, draft, answers, files, notes, form } = desk;
  return {
    ...{ drafts: [draft], form, missing: 0 },
    reviews: [{ id, reviewer, self, version: draft.version, answers, files, notes }],
  };
}
