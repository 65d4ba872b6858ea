import { exactly } from '@salt-circle/core';
import type { RecordRow } from '@salt-circle/contracts';
import { api } from '../../app/api.js';
import { useNow } from '../../app/time/useNow.js';
import { Loading } from '../../kit/index.js';
import { SettingsGroup } from './SettingsGroup.js';
import { say } from '../../words/plan.js';

const { useRecordQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    record: build.query<RecordRow[], string>({ query: (id) => `/exchanges/${id}/record` }),
  }),
});

const RECORDED = {
  'exchange-created': 'createdExchange',
  'exchange-copied': 'madeExchangeFromAnotherOne',
  'own-times-set': 'extendedOrExcusedSomebody',
  'own-times-removed': 'tookExtensionOrExcuseBack',
  'plan-changed': 'changedPlan',
  'dates-changed': 'changedDates',
  'rules-changed': 'changedWhatBeingLateLoses',
  'attachment-added': 'attachedFileToBriefOr',
  'attachment-removed': 'tookAttachmentAway',
  'form-changed': 'changedForm',
  'exchange-published': 'publishedWord',
  'draft-handed-in': 'handedInDraft',
  'draft-handed-in-for': 'handedInForStudent',
  'draft-withdrawn': 'tookDraftBack',
  'revision-handed-in': 'handedInRevision',
  'revision-withdrawn': 'tookRevisionBack',
  replied: 'answeredReview',
  reminded: 'sentReminders',
  'allocation-applied': 'appliedAllocation',
  'allocation-repaired': 'repairedAllocation',
  'allocation-undone': 'tookBackChangeOfAllocation',
  'allocation-by-hand': 'changedAllocationByHand',
  'allocation-imported': 'tookOverAllocationFromFile',
  'allocation-planned': 'setWhenDraftsAreAllocatedWord',
  'allocation-run': 'ranPlannedAllocation',
  'extra-reviewer-set': 'setWhoOfStaffReviews',
  'grade-rule-set': 'setWhatGradeIsMade',
  'grading-shared': 'sharedOutWhoGradesWhom',
  'archive-made': 'tookExchangeAlongAsArchive',
  'archive-read': 'readExchangeFromArchive',
  'notes-brought': 'broughtNotesBackInFile',
  'notes-refused': 'broughtFileBackThatCould',
  'campus-link-chosen': 'putLinkToExchangeOn',
  'campus-columns-set': 'setWhatGradebookOfCampus',
  'campus-scores-sent': 'passedGradesOnToCampus',
  'campus-score-decided': 'decidedOnGradesThatDiffer',
  withheld: 'keptSomethingFromAuthor',
  'given-back': 'gaveBackWhatWasKept',
  'release-changed': 'changedWhenSomeReadTheir',
  'look-asked': 'askedStaffToLookAt',
  'look-answered': 'answeredSomebodyWhoHadAsked',
  'practice-added': 'addedPracticeDraft',
  'practice-removed': 'removedPracticeDraft',
  'marking-forms-set': 'setByWhatFormsDrafts',
  'reviewing-form-set': 'setByWhatFormReviewing',
  'grade-overridden': 'gaveSomethingElseThanWhat',
  'grades-released': 'releasedGradesOrTookThat',
  'round-made': 'madeItFromRevisionsOf',
  'review-by-staff': 'beganOwnReviewOfDraft',
  'review-begun': 'beganReview',
  'review-submitted': 'submittedReview',
  'review-reopened': 'reopenedReview',
  'feedback-released': 'releasedFeedback',
} as const;

/** What somebody did, in one sentence; an act without words of its own by its name. */
function recordWords({ actor, action }: RecordRow): string {
  return action in RECORDED
    ? say(RECORDED[action as keyof typeof RECORDED], { actor })
    : say('otherAct', { actor, action });
}

interface RecordGroupProps {
  readonly exchangeId: string;
  readonly timeZone: string;
}

/** Who did what, when. */
export function RecordGroup({ exchangeId, timeZone }: RecordGroupProps) {
  return (
    <SettingsGroup title={say('record')} summary={say('whoDidWhatInThis')}>
      <Entries exchangeId={exchangeId} timeZone={timeZone} />
    </SettingsGroup>
  );
}

function Entries({ exchangeId, timeZone }: RecordGroupProps) {
  const now = useNow();
  const { data } = useRecordQuery(exchangeId, { refetchOnMountOrArgChange: true });
  if (data === undefined) return <Loading what={say('recordWord')} />;
  return (
    <ol className="max-h-96 overflow-y-auto" tabIndex={0} aria-label={say('recordNewestFirst')}>
      {data.map((row, index) => (
        <li key={index} className="grid grid-cols-[14rem_1fr] gap-x-4 border-b border-line py-1">
          <span className="text-ink-soft">{exactly(Date.parse(row.at), timeZone, now)}</span>
          <span>{recordWords(row)}</span>
        </li>
      ))}
    </ol>
  );
}
