import { Foundation1764028800000 } from './0001-foundation.js';
import { Planning1764115200000 } from './0002-planning.js';
import { HandingIn1764288000000 } from './0003-handing-in.js';
import { Allocation1764460800000 } from './0004-allocation.js';
import { Places1764633600000 } from './0005-places.js';
import { Accounts1764720000000 } from './0006-accounts.js';
import { Copies1764806400000 } from './0007-copies.js';
import { Reopened1764892800000 } from './0008-reopened.js';
import { WaysOfWorking1764979200000 } from './0009-ways-of-working.js';
import { Attachments1765065600000 } from './0010-attachments.js';
import { SelfReviewDue1765152000000 } from './0011-self-review-due.js';
import { Remarks1765238400000 } from './0012-remarks.js';
import { Practice1765324800000 } from './0013-practice.js';
import { Check1765411200000 } from './0014-check.js';
import { OwnRelease1765497600000 } from './0015-own-release.js';
import { LookRequests1765584000000 } from './0016-look-requests.js';
import { After1765670400000 } from './0017-after.js';
import { Rounds1765756800000 } from './0018-rounds.js';
import { Grades1765843200000 } from './0019-grades.js';
import { Grading1765929600000 } from './0020-grading.js';
import { AccessTokens1766016000000 } from './0021-access-tokens.js';
import { DraftForms1766102400000 } from './0022-draft-forms.js';
import { ReviewingWeighting1766275200000 } from './0024-reviewing-weighting.js';
import { RecentPassword1766361600000 } from './0025-recent-password.js';
import { FileContents1766448000000 } from './0026-file-contents.js';
import { PlainNames1766534400000 } from './0027-plain-names.js';
import { EventVersions1766620800000 } from './0028-event-versions.js';
import { Campuses1766188800000 } from './0023-campuses.js';
import { LtiNames1766707200000 } from './0029-lti-names.js';
import { GivenGrades1766793600000 } from './0030-given-grades.js';
import { LetterKinds1766880000000 } from './0031-letter-kinds.js';

/** In the order in which they run. A migration that has landed is never edited. */
export const MIGRATIONS = [
  Foundation1764028800000,
  Planning1764115200000,
  HandingIn1764288000000,
  Allocation1764460800000,
  Places1764633600000,
  Accounts1764720000000,
  Copies1764806400000,
  Reopened1764892800000,
  WaysOfWorking1764979200000,
  Attachments1765065600000,
  SelfReviewDue1765152000000,
  Remarks1765238400000,
  Practice1765324800000,
  Check1765411200000,
  OwnRelease1765497600000,
  LookRequests1765584000000,
  After1765670400000,
  Rounds1765756800000,
  Grades1765843200000,
  Grading1765929600000,
  AccessTokens1766016000000,
  DraftForms1766102400000,
  Campuses1766188800000,
  ReviewingWeighting1766275200000,
  RecentPassword1766361600000,
  FileContents1766448000000,
  PlainNames1766534400000,
  EventVersions1766620800000,
  LtiNames1766707200000,
  GivenGrades1766793600000,
  LetterKinds1766880000000,
] as const;
