// The decorators of nested requests read it while they are being defined.
import 'reflect-metadata';

export { LIMITS } from './limits.js';
export { WEB_ADDRESS } from './webAddress.js';
export { WITHHOLDABLE, type Withholdable } from './withholdable.js';
export { PROBLEM_CODES, type FieldProblem, type Problem, type ProblemCode } from './problems.js';
export {
  ChangeAddressRequest,
  ChangePasswordRequest,
  ConfirmPasswordRequest,
  ForgottenRequest,
  JoinRequest,
  MoveClockRequest,
  NewPasswordRequest,
  OwnNameRequest,
  SignInRequest,
  StepInRequest,
} from './requests/account.js';
export {
  AdoptRequest,
  AfterRuleRequest,
  DecisionRequest,
  MailWishRequest,
  RatingRequest,
  ReadNewsRequest,
  ReflectionRequest,
  ReplyRequest,
} from './requests/after.js';
export type {
  AdoptionView,
  AdoptResult,
  AfterRow,
  DecisionsView,
  DecisionView,
  InboxView,
  NewsView,
  NotAdopted,
  RatingView,
  ReflectionRead,
  ReflectionView,
  RemarkView,
  ReplyView,
  RevisionView,
  ThreadsView,
} from './views/after.js';
export type { StoryEvent, StoryView } from './views/story.js';
export { CreateCourseRequest, CreateExchangeRequest, ReleaseRequest } from './requests/exchange.js';
export {
  AllocationActsRequest,
  AllocationImportRequest,
  AllocationPlanRequest,
  ScheduleRequest,
  ApplyPreviewRequest,
  UndoRequest,
  ExtraReviewerRequest,
  PairPart,
  PreviewRequest,
  WishesPart,
} from './requests/allocation.js';
export {
  CopyExchangeRequest,
  DateNowRequest,
  DatesRequest,
  DeliverableRequest,
  GradePartRequest,
  LateRequest,
  MoveDatesRequest,
  RulesRequest,
  PersonalDatesRequest,
  PlanRequest,
  TakesPartRequest,
} from './requests/plan.js';
export {
  FormContent,
  FormItemRequest,
  FormRequest,
  LibraryAddRequest,
  LibraryCopyRequest,
  LibraryFormRequest,
  ShorthandEntryRequest,
  ShorthandRequest,
  UseFormRequest,
} from './requests/form.js';
export {
  AddPersonRequest,
  CourseSettingsRequest,
  DivisionRequest,
  FormFileRequest,
  GroupImportRequest,
  GroupSetRequest,
  HolidayRequest,
  InviteRequest,
  MoveMemberRequest,
  PersonRequest,
  RosterApplyRequest,
  RosterRequest,
  SourceRequest,
} from './requests/people.js';
export {
  AttachRequest,
  DraftSaveRequest,
  ExtendRequest,
  HandInForRequest,
  TextForRequest,
  HandInRequest,
  HideFindRequest,
  HideRequest,
  LinkRequest,
  PartOrderRequest,
  UploadedRequest,
  RemindRequest,
  TextSaveRequest,
} from './requests/drafts.js';
export {
  AnswerRequest,
  NoteParams,
  BringInRequest,
  BringRequest,
  BroughtNoteRequest,
  NoteRequest,
  OwnRemarkRequest,
  ReopenRequest,
  ReviewFileRequest,
  SpentRequest,
} from './requests/work.js';
export {
  CheckRequest,
  FlaggingRulesRequest,
  QueueBoundsRequest,
  WithholdableRequest,
  WithholdRequest,
} from './requests/moderation.js';
export { LookAnswerRequest, LookRequest } from './requests/look.js';
export { ReleasePeopleRequest } from './requests/release.js';
export { PracticeBeginRequest, PracticeDraftRequest, PracticeRuleRequest } from './requests/practice.js';
export {
  AnchorRequest,
  DeleteEditRequest,
  EditRequest,
  InsertEditRequest,
  JoinEditRequest,
  MoveEditRequest,
  ReplaceEditRequest,
  SplitEditRequest,
  type AnyEditRequest,
} from './requests/edit.js';
export {
  MomentSelectorRequest,
  PageSelectorRequest,
  PassageSelectorRequest,
  PlaceRequest,
  PositionRequest,
  QuoteRequest,
  RegionSelectorRequest,
  SelectorRequest,
  TextSelectorRequest,
  WholeSelectorRequest,
  type AnySelectorRequest,
} from './requests/place.js';
export { NOTE_KINDS, type NoteKind } from './noteKinds.js';
export type { AccountView, AddressLinkView, PasswordLinkView, SessionRow } from './views/account.js';
export type { ChangeNews } from './views/changes.js';
export type { ProgressReview, ProgressRow, ProgressView } from './views/progress.js';
export type {
  AnswerView,
  CourseCard,
  CourseView,
  DatesView,
  DemoPerson,
  DeskView,
  ExchangeCard,
  ExchangeView,
  AttachmentCard,
  AttachmentPlace,
  DraftFeedbackView,
  FeedbackView,
  NextChangeView,
  NoteView,
  OwnRemarkView,
  ReviewFileCard,
  ReviewNameView,
  ReviewNamesView,
  VersionPlace,
  PersonalDatesPart,
  AuditGrade,
  AuditMove,
  AuditRow,
  ReviewCard,
  ReviewContent,
  ReviewState,
  ViewAsView,
  SessionView,
  StaffFigures,
  StudentMarks,
  SubmitView,
  TodayItem,
  TodayKind,
  TodayView,
  WaitingItem,
} from './views/views.js';
export type { IsoInstant, PersonLabel } from './views/person.js';
export type {
  CopyView,
  DraftReading,
  DraftReadingView,
  FileFacts,
  HandInCheck,
  HiddenPassage,
  LateView,
  MyDraftView,
  NameFindView,
  OpenUploadView,
  PartShow,
  PartView,
  ReminderView,
  SavedView,
  TextView,
  VersionMeta,
  VersionView,
} from './views/drafts.js';
export type {
  CopyPreview,
  FixableSetting,
  FormImportView,
  FormView,
  LibraryCard,
  LibraryFormView,
  LibraryView,
  PersonalDatesView,
  PlanChoices,
  PlanSettings,
  PlanView,
  ShorthandView,
  TakesPartView,
} from './views/plan.js';
export type {
  CalendarLinkView,
  GroupImportPreview,
  GroupMember,
  GroupSetView,
  GroupsView,
  GroupView,
  InvitationLinkRow,
  InvitationView,
  MailRow,
  MailView,
  OpenPlace,
  OutboxView,
  PeopleView,
  PersonRow,
  RosterApplied,
  RosterPreview,
  RosterProblemView,
} from './views/people.js';
export type {
  AllocationAct,
  AllocationImportView,
  AllocationView,
  BoardDraft,
  BoardPair,
  BoardReviewer,
  ImportedPair,
  JobView,
  LeftOut,
  PreviewKind,
  PreviewView,
  RunOutcome,
  ScheduleKind,
  ScheduleView,
  StaffReviewer,
  SuggestionView,
  WishesView,
} from './views/allocation.js';
export type { LookRequestView } from './views/look.js';
export type { ReleaseRow, ReleaseView } from './views/release.js';
export {
  GradeOverrideRequest,
  GradeRuleRequest,
  GraderRequest,
  GradesReleaseRequest,
  GradingShareRequest,
  MarkingFormsRequest,
} from './requests/grades.js';
export type {
  GradeGroundsView,
  GradeMoveView,
  GradeRow,
  GradesView,
  GradeTarget,
  GraderView,
  GradingCompanyView,
  GradingWorkView,
  OwnGradeView,
} from './views/grades.js';
export type { CourseInsightsView, InsightsView, UptakeView } from './views/insights.js';
export type { EarlierView, RoundCard } from './views/earlier.js';
export { SecondRoundRequest } from './requests/round.js';
export type { CheckView, FlagView, LookedView, QueueRow, QueueView, WithheldView } from './views/moderation.js';
export type { PracticeCard, PracticeContent, PracticeOwn, PracticeResultView, PracticeView } from './views/practice.js';
export { boardChange, changedBoard, type BoardChange } from './views/boardChange.js';
export type { ShorthandEntry } from './views/shorthand.js';
export { TokenRequest } from './requests/tokens.js';
export { TOKEN_SCOPES, type MadeTokenView, type TokenRow, type TokenScope, type TokensView } from './views/tokens.js';
export type { BroughtInView, BroughtView } from './views/brought.js';
export { ArchiveQuery, ArchiveRequest, ReadArchiveRequest } from './requests/archive.js';
export type { ArchiveView } from './views/archive.js';
export {
  ArrivalAccountRequest,
  ArrivalChoiceRequest,
  ArrivalCourseRequest,
  ArrivalMailRequest,
  PlatformNameRequest,
  PlatformPeopleRequest,
  PlatformRequest,
  CoursePlatformRequest,
  GradebookDecisionRequest,
  GradebookQuery,
  GradebookRequest,
} from './requests/lti.js';
export { LTI_SCORE_STATES } from './views/lti.js';
export type {
  ArrivalView,
  PlatformsView,
  LtiProofView,
  PlatformRow,
  LtiScoreState,
  LtiScoreView,
  CoursePlatformView,
  GradebookView,
} from './views/lti.js';
