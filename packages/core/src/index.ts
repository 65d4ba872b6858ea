export { MisuseError, type CoreProblem } from './problem.js';
export { HELPED, MAX_PROMPTS, RATINGS_RULES, USUAL_AFTER } from './after/afterRule.js';
export type { AfterRule, Helped, RatingsRule, ReflectionRule } from './after/afterRule.js';
export { endOf, DATE_ORDER, NO_DATES, OPTIONAL_DATES, resolveDates } from './timeline/dates.js';
export type { DateName, ExchangeDates, Instant, ResolvedDates } from './timeline/dates.js';
export { checkDates, type DateProblemCode } from './timeline/checkDates.js';
export { isReleased, mayHandIn, nextChange, openingsAt, segments, stageAt } from './timeline/stage.js';
export type { Openings, Segment, Stage, StageChange, TimelineState } from './timeline/stage.js';
export {
  PERSONAL_DATES,
  mergePersonalDates,
  withPersonalDates,
  type PersonalDateName,
  type PersonalDates,
} from './timeline/personalDates.js';
export { checkLateRule, lateness, type LateProblemCode, type LateRule, type Lateness } from './timeline/late.js';
export { moveNow } from './timeline/moveNow.js';
export { dayNumber, instantOf, instantsOf, localTime, plusDays, zoneName, type LocalTime } from './timeline/zone.js';
export { daysToFirst, holidayClashes, shiftDates, type Holiday, type HolidayClash } from './timeline/shift.js';
export { countWords } from './text/words.js';
export { TextCollector, type PlacedRun } from './text/textCollector.js';
export { checksOf, EMPTY_FORM, ITEM_KINDS, OVERALL_ID } from './form/form.js';
export type {
  Answer,
  Answers,
  Band,
  Check,
  ChecklistEntry,
  ChecklistItem,
  ChoiceItem,
  ChoiceOption,
  CommentRule,
  CriterionItem,
  FormItem,
  ItemKind,
  Level,
  NumberItem,
  PairItem,
  PromptItem,
  RangeItem,
  ReviewForm,
} from './form/form.js';
export { checkForm, MAX_NOTES, RANGE_STEPS, type FormProblemCode } from './form/checkForm.js';
export { bandOf, formMaximum, formScore, itemMaximum, itemPoints, weightSum } from './form/score.js';
export { closeness, KAPPA_ITEMS } from './agreement/closeness.js';
export type { Closeness, ClosenessUnit, ItemCloseness } from './agreement/closeness.js';
export { weightedKappa } from './agreement/weightedKappa.js';
export {
  hasPractised,
  MAX_PRACTICE_DRAFTS,
  MAX_PRACTICE_TRIES,
  mayTryAgain,
  NO_PRACTICE,
  practiceState,
} from './practice/practice.js';
export type { PracticeRule, PracticeState, PracticeTries } from './practice/practice.js';
export { newItem, usualItems, type NewId } from './form/newItem.js';
export { rangeBounds } from './form/range.js';
export { valueFault, type ValueFault } from './form/value.js';
export type { FormScore } from './form/score.js';
export { scoreWords } from './form/scoreWords.js';
export { completeness, type Completeness, type Missing } from './form/completeness.js';
export {
  checkDeliverables,
  DEFAULT_MEGABYTES,
  DELIVERABLE_KINDS,
  FILE_FAMILIES,
  isFilled,
  MAX_DELIVERABLES,
  MAX_FILES,
  MAX_MEGABYTES,
  missingDeliverables,
} from './setup/deliverables.js';
export type { Deliverable, DeliverableKind, DeliverableProblemCode, FileFamily, Filled } from './setup/deliverables.js';
export { checkGradeParts, GRADE_PARTS, type GradePart, type GradePartName } from './setup/gradeParts.js';
export type { GradeProblemCode } from './setup/gradeParts.js';
export { groupOf, needsGroups, takesPart, type Setup, type Student, type TakesPart, type Whom } from './setup/setup.js';
export { eligibleDrafts, type Eligible } from './setup/eligible.js';
export { checkSetup, type SetupProblemCode } from './setup/checkSetup.js';
export { divide, type Division } from './people/divide.js';
export { readRoster, type Roster, type RosterColumn, type RosterEntry, type RosterProblem } from './people/roster.js';
export { afterArriving, type ArrivalFacts, type ArrivalStep, type ArrivalStop } from './campus/arrival.js';
export { CLAIM, LTI_VERSION, MEDIA, SCOPE } from './campus/claims.js';
export { compareMembers, type PlacedPerson } from './campus/compareMembers.js';
export type { MemberChanges, MemberClash, MemberField, MemberUpdate, PlaceSource } from './campus/compareMembers.js';
export { readLaunch, type CampusServices, type Choosing, type Launch, type LaunchFault } from './campus/launch.js';
export { readMembers, type CampusMember } from './campus/members.js';
export { isAddress, noAddress, shownAddress } from './campus/noAddress.js';
export { courseRole } from './campus/roles.js';
export { COLUMN_MAXIMUM, readResults, sameScore, scoreBody, scoreOfGrade, type CampusScore } from './campus/score.js';
export { compareRoster } from './people/compareRoster.js';
export type { Enrolled, RosterChanges, RosterClash, RosterField, RosterUpdate } from './people/compareRoster.js';
export { readGroupRows, type GroupProblem, type GroupRows } from './people/groupRows.js';
export { readOneRoster, rosterOfClasses } from './people/oneRoster.js';
export type { Bundle, BundleClass, BundleFiles, BundleProblem } from './people/oneRoster.js';
export { FORM_FORMAT, FORM_VERSION, readFormFile, writeFormFile } from './formats/formFile.js';
export type { FormReading, TitledForm } from './formats/formFile.js';
export { caseRubricTitles, readCaseRubric, writeCaseRubric } from './formats/caseRubric.js';
export { FORM_CSV_HEADER, readFormRows, writeFormRows } from './formats/formCsv.js';
export { formLosses, LOSSES, type FormLosses } from './formats/losses.js';
export type { FileProblem } from './formats/structure.js';
export { seededRandom, shuffled, type Random } from './random/random.js';
export { allocate } from './allocation/allocate.js';
export {
  repair,
  type AdditionReason,
  type AllocationChanges,
  type RemovalReason,
  type Repair,
} from './allocation/repair.js';
export { poolRound, type PoolProblem, type PoolRound } from './allocation/poolRound.js';
export { measure, type Measures } from './allocation/quality.js';
export { MAX_CAPACITY } from './allocation/problem.js';
export { pairKey } from './allocation/pairKey.js';
export { dueRun, nextRun, nightsWaited, NIGHTLY_HOUR, type Schedule } from './allocation/schedule.js';
export { reviewerStrengths, type ReviewingRecord } from './allocation/strengthOf.js';
export { ALLOCATION_CSV_HEADER, readAllocationRows } from './allocation/rows.js';
export type { AllocationRowCode, AllocationRowProblem, AllocationRows, Named } from './allocation/rows.js';
export type {
  Allocation,
  AllocationProblem,
  AllocationProgress,
  AllocationQuality,
  DraftEntry,
  Pair,
  ReviewerEntry,
  Shortfall,
  Watch,
} from './allocation/problem.js';
export { fromWebSelectors, toWebSelectors, type WebSelector } from './anchoring/webAnnotation.js';
export { describeTextAnchor } from './anchoring/describe.js';
export { matchTextAnchor, type AnchorMatch, type Certainty } from './anchoring/match.js';
export { pageText, runPieces, type PageRun, type PageText, type RunPiece } from './anchoring/pageText.js';
export { checkPlace, comparePlaces } from './anchoring/place.js';
export type { Place, PlaceablePart, PlaceProblemCode, Selector } from './anchoring/place.js';
export { boxBetween, grownBox, hits, movedBox, unturned, type Box, type Point, type Turn } from './anchoring/region.js';
export type { TextAnchor, TextPositionSelector, TextQuoteSelector, TextRange } from './anchoring/selectors.js';
export { editTyped, passageAfter, placedEdit, type ProposedEdit } from './edits/proposedEdit.js';
export {
  applyEdit,
  invertSplices,
  rebaseEdit,
  spliced,
  splicesOf,
  type Splice,
  type TextEdit,
} from './edits/textEdit.js';
export { ActiveTime } from './quality/activeTime.js';
export {
  saysWhatToDo,
  submitFacts,
  TELLING_WORDS,
  type FactNote,
  type FactPart,
  type SubmitFacts,
} from './quality/submitFacts.js';
export { flagKey, flagRank, flagsOf, levelShares, DEFAULT_FLAGGING_RULES } from './quality/flags.js';
export { agreedOn, type Agreed, type AgreedItem } from './quality/agreed.js';
export { itemSpreads, type ItemSpread } from './quality/spread.js';
export type { Flag, FlaggingRules, ReviewEvidence } from './quality/flags.js';
export { usualShorthand, type ShorthandLabel } from './shorthand/usualShorthand.js';
export { listed } from './words/listed.js';
export { catalogues, ENGLISH, language, partsFor, sentences, speakBy, type Say, type Spoken } from './words/say.js';
export { checkCatalogue, checkTranslation } from './words/checkCatalogue.js';
export { dayOf, exactly } from './words/times.js';
export { wordsBy } from './words/wordsBy.js';
export { type Catalogue, type Filling, type Slots } from './words/sentence.js';
export { compareTexts, type ComparedPart } from './revision/compareTexts.js';
export { becameOf, compareVersions, type Became, type VersionPart } from './revision/compareVersions.js';
export { DECISIONS, decisionKey, decisionTarget, planFigures } from './revision/decisions.js';
export type { DecisionKind, DecisionTarget, PlanFigures, Remark } from './revision/decisions.js';
export { feedbackIsOpen, isReleasedToAll, maySee, readerOf, type Reader } from './visibility/maySee.js';
export { hears, TOPICS, type Topic } from './visibility/hears.js';
export { mayDo } from './visibility/mayDo.js';
export { nameShown, type NameShown, type Part } from './visibility/names.js';
export { makeAliases } from './visibility/aliases.js';
export { REFUSALS } from './visibility/facts.js';
export type {
  OwnFeedback,
  Act,
  Decision,
  DraftRelation,
  ExchangeFacts,
  NamesPolicy,
  Refusal,
  Reviewing,
  Role,
  SelfReview,
  Subject,
  Viewer,
} from './visibility/facts.js';
export { findIdentities, type IdentityFind, type SearchOptions } from './identity/findIdentities.js';
export type { Identity } from './identity/nameForms.js';
export { findLookalikes, shapeOfId } from './identity/lookalikes.js';
export { PeopleByWord } from './identity/peopleByWord.js';
export {
  staffNeeds,
  studentNeeds,
  studentStatus,
  type Need,
  type NeedKind,
  type OwnReview,
  type StaffSituation,
  type StudentStatus,
  type StudentSituation,
} from './today/needs.js';
export { contradictions, type ContradictionCode } from './setup/contradictions.js';
export { byFamilyName } from './people/familyName.js';
export { planSummary, type PlanSummaryContext, type PlanSummarySettings } from './planSummary/planSummary.js';
export {
  deliverableWords,
  FAMILY_WORDS,
  gradeWords,
  KIND_WORDS,
  lateInWords,
  lateWords,
  PART_WORDS,
} from './planSummary/settingWords.js';
export { formWords } from './planSummary/formWords.js';
export { type Rating } from './scoring/ratingDesign.js';
export {
  adjustScores,
  type Adjusted,
  type AdjustedDraft,
  type AdjustProblem,
  type ReviewerSeverity,
} from './scoring/adjustScores.js';
export { normalQuantile } from './scoring/normalQuantile.js';
export {
  krippendorffAlpha,
  type Alpha,
  type MeasureLevel,
  type Unit as RatedUnit,
} from './agreement/krippendorffAlpha.js';
export {
  intraclassCorrelation,
  ratingsNeeded,
  spearmanBrown,
  type IntraclassCorrelation,
  type Reliability,
} from './agreement/intraclassCorrelation.js';
export {
  blandAltman,
  pearson,
  spearman,
  type LimitsOfAgreement,
  type Pair as AgreementPair,
} from './agreement/correlation.js';
export {
  checkGradeRule,
  GRADE_STEPS,
  QUALITY_COLUMNS,
  ROUNDINGS,
  SCORE_METHODS,
  USUAL_GRADE_RULE,
  USUAL_PART_RULE,
  type GradeBand,
  type GradeRule,
  type GradeRuleProblemCode,
  type GradeScale,
  type GradeStep,
  type PartRule,
  type QualityColumn,
  type Rounding,
  type ScoreMethod,
} from './grading/gradeRule.js';
export {
  gradeOf,
  type Grade,
  type GradeEvidence,
  type GradeLine,
  type LineState,
  type Override,
  type PartEvidence,
} from './grading/gradeOf.js';
export { GRADING_WORKS, shareOut, type GradingWork, type ToGrade } from './grading/shareOut.js';
export { peerScore, weightedScore } from './grading/peerScore.js';
export {
  closenessToOthers,
  qualityOf,
  substanceOf,
  SUBSTANTIAL,
  type QualityEvidence,
  type ReviewSubstance,
} from './grading/reviewingQuality.js';
export { meanAnswer } from './form/meanAnswer.js';
export { sameScale } from './form/sameScale.js';
export { checkMarkingForms, type MarkingForms, type MarkingProblemCode } from './grading/markingForms.js';
export { markKey, ofMarkKey, readyReviewingForm } from './grading/reviewingForm.js';
export {
  alongDraft,
  DRAFT_PARTS,
  draftPartOf,
  placeShare,
  type AlongDraft,
  type PartExtent,
} from './insights/alongDraft.js';
export { RELIABLE, reliabilityOf, type ScoreReliability } from './insights/reliability.js';
export { readItems, SCALE_PARTS, type ItemInsight, type ReadReview } from './insights/readItems.js';
export { explainAdjusted, type Explanation } from './scoring/explain.js';
export { explanationWords } from './scoring/explainWords.js';
export {
  HOW_WORDS,
  MISSING_WORDS,
  partRuleWords,
  QUALITY_WORDS,
  ROUNDING_WORDS,
  SCORE_WORDS,
  shareWords,
} from './grading/gradeRuleWords.js';
export { answerLines } from './annotatedFiles/answerLines.js';
export {
  importMarks,
  type ImportedMarks,
  type AnnotatedText,
  type ReadText,
  type TextMark,
} from './annotatedFiles/importMarks.js';
export {
  planImport,
  type ImportLimits,
  type ImportedNote,
  type KnownNote,
  type PlacedMark,
  type Unplaced,
  type UnplacedReason,
} from './annotatedFiles/planImport.js';
export { guessKind } from './annotatedFiles/guessKind.js';
export { ANNOTATION_CONTEXT, annotationCollection, PAGE_SIZE } from './annotatedFiles/annotations.js';
export {
  editLine,
  KIND_NAMES,
  noteLines,
  passageOf,
  type AnnotatedAnswer,
  type AnnotatedDraft,
  type AnnotatedKind,
  type AnnotatedNote,
  type AnnotatedPart,
  type AnnotatedReply,
  type AnnotatedReview,
} from './annotatedFiles/annotatedDraft.js';
