export { MisuseError, type CoreProblem } from './problem.js';
export { DATE_ORDER, OPTIONAL_DATES, resolveDates } from './timeline/dates.js';
export type { DateName, ExchangeDates, Instant, ResolvedDates } from './timeline/dates.js';
export { checkDates, type DateProblemCode } from './timeline/checkDates.js';
export { isReleased, mayHandIn, mayReview, nextChange, segments, stageAt } from './timeline/stage.js';
export type { Segment, Stage, StageChange, TimelineState } from './timeline/stage.js';
export { countWords } from './text/words.js';
export { TextCollector, type PlacedRun } from './text/textCollector.js';
export type { Answer, Answers, CriterionItem, FormItem, Level, PromptItem, ReviewForm } from './form/form.js';
export { checkForm, MAX_MINIMUM_WORDS, MAX_POINTS, type FormProblemCode } from './form/checkForm.js';
export { formMaximum, formScore, itemMaximum, type FormScore } from './form/score.js';
export { completeness, type Completeness, type Missing } from './form/completeness.js';
export { seededRandom, shuffled, type Random } from './allocation/random.js';
export { allocate } from './allocation/allocate.js';
export type { Allocation, AllocationProblem, AllocationQuality, Pair, Shortfall } from './allocation/problem.js';
export { CONTEXT_LENGTH, describeTextAnchor } from './anchoring/describe.js';
export { matchTextAnchor, type AnchorMatch } from './anchoring/match.js';
export type { TextAnchor, TextPositionSelector, TextQuoteSelector, TextRange } from './anchoring/selectors.js';
export { maySee } from './visibility/maySee.js';
export { mayDo } from './visibility/mayDo.js';
export { nameShown, type NameShown } from './visibility/names.js';
export { makeAliases } from './visibility/aliases.js';
export type {
  Act,
  Decision,
  ExchangeFacts,
  NamesPolicy,
  Refusal,
  Role,
  Subject,
  Viewer,
} from './visibility/facts.js';
