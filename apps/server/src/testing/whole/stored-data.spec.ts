import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { World } from '../world.js';

/**
 * Data folders of the version that had neither places nor reviewed versions, and what its server answered from them to
 * its people at several times: 404 and 403 as numbers, anything else with its contents.
 */
interface Recorded {
  readonly people: readonly string[];
  readonly looks: ReadonlyArray<{ readonly at: number; readonly seen: Readonly<Record<string, Answer>> }>;
}
type Answer = number | readonly [status: number, body: unknown];

const stored = (name: string) => join(import.meta.dirname, '../stored', name);

/** Answers have another shape by now in a few places; what they say there is the same. */
function plain(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(plain);
  if (value === null || typeof value !== 'object') return value;
  const {
    // New since.
    asOf: _asOf,
    overtaken: _overtaken,
    changing: _changing,
    allocation: _allocation,
    mail: _mail,
    alone: _alone,
    workedAt: _workedAt,
    partnerOf: _partnerOf,
    source: _source,
    feedbackEach: _feedbackEach,
    feedbackOpen: _feedbackOpen,
    lateHandIns: _lateHandIns,
    attachments: _attachments,
    selfReviewDue: _selfReviewDue,
    edit: _edit,
    itemId: _itemId,
    reviewsFinal: _reviewsFinal,
    practice: _practice,
    withheld: _withheld,
    feedbackHeld: _feedbackHeld,
    checkable: _checkable,
    practised: _practised,
    mayRevise: _mayRevise,
    mayReflect: _mayReflect,
    reflection: _reflection,
    revisionShown: _revisionShown,
    othersReviews: _othersReviews,
    revised: _revised,
    reflected: _reflected,
    after: _after,
    remindHours: _remindHours,
    purpose: _purpose,
    changes: _changes,
    others: _others,
    secondRound: _secondRound,
    gradeOpen: _gradeOpen,
    gradesRelease: _gradesRelease,
    voice: _voice,
    // Of people on a board new.
    groups,
    asks,
    // Once of people in a course alone.
    section,
    reopenUntil: _reopenUntil,
    reopenReason: _reopenReason,
    spentSeconds: _spentSeconds,
    minutes: _minutes,
    measuresTime: _measuresTime,
    // By now instructors may as well.
    reopenable: _reopenable,
    maySelfReview: _maySelfReview,
    // Of a pair on the board new, elsewhere as it was.
    required,
    // Copies are made anew, and the files themselves are not among what is stored here.
    copyFailed: _copyFailed,
    copy: _copy,
    // Once a text beside the parts, now the parts alone.
    html,
    htmlPartId: _htmlPartId,
    // Once the only draft of a feedback.
    draft,
    drafts,
    // Once where in the only text a note stands.
    anchor,
    place,
    // Once whether the person had an account, now whether the place is taken.
    account,
    // By other rules since: only what lies before is earlier, and one's own review is not missing.
    earlier: _earlier,
    earlierExchanges: _earlierExchanges,
    missing,
    // Once the name of the last act, by now with its number.
    undo,
    // Of a review new, and none; elsewhere as they were.
    files,
    // Of a label of the shorthand new, and empty; elsewhere as it was.
    group,
    // Of a card new: whether a revision can be looked at.
    revision,
    // Of reviews on a board or a list new.
    draftId,
    // Of an outbox new; elsewhere as they were.
    failed,
    held,
    // Known by now of each review, where once it was that of the only draft.
    version,
    ...rest
  } = value as Record<string, unknown>;
  const isReview = 'reviewer' in rest && 'answers' in rest;
  const isReading = draftId !== undefined && 'parts' in rest;
  const isVersion = 'reading' in rest && 'digest' in rest;
  const isEnrolled = typeof (account ?? place) === 'string';
  const selector = (place as { selector?: Record<string, unknown> } | undefined)?.selector;
  const { type: _type, ...where } = selector ?? (anchor as Record<string, unknown> | undefined) ?? {};
  return Object.fromEntries(
    Object.entries({
      ...rest,
      ...(files === undefined || (Array.isArray(files) && files.length === 0) ? {} : { files }),
      ...(group === undefined || group === '' ? {} : { group }),
      ...(required === undefined || 'locked' in rest ? {} : { required }),
      ...(version === undefined || isReview ? {} : { version }),
      ...(typeof revision === 'number' ? { revision } : {}),
      ...(section === undefined || asks !== undefined ? {} : { section }),
      ...(groups === undefined || asks !== undefined ? {} : { groups }),
      ...(draftId === undefined || 'answered' in rest ? {} : { draftId }),
      ...(failed === undefined || 'mails' in rest ? {} : { failed }),
      ...(held === undefined || 'mails' in rest ? {} : { held }),
      ...(Array.isArray(missing) ? { missing } : {}),
      ...(undo === undefined ? {} : { undo: actOf(undo) }),
      ...(html !== undefined && !isReading && !isVersion ? { html } : {}),
      ...(draft === undefined && drafts === undefined ? {} : { draft: readable(draft ?? drafts) }),
      ...(isEnrolled ? { taken: ['account', 'taken'].includes((account ?? place) as string) } : {}),
      ...(isEnrolled || (anchor === undefined && place === undefined) ? {} : { where }),
    }).map(([key, inner]) => [key, plain(inner)]),
  );
}

/** Of a record: who did what, when. */
function actsOf(answer: Answer): unknown {
  if (typeof answer === 'number') return answer;
  const rows = answer[1] as ReadonlyArray<Record<string, unknown>>;
  return rows.map(({ at, actor, action }) => ({ at, actor, action }));
}

function actOf(undo: unknown): unknown {
  return typeof undo === 'object' && undo !== null && 'act' in undo ? undo.act : undo;
}

/** The draft, or the draft in the version that was reviewed first; null where there is nothing to read. Not what else is so called. */
function readable(drafts: unknown): unknown {
  if (!Array.isArray(drafts)) return drafts ?? null;
  const [first = null] = drafts as unknown[];
  return first === null || (typeof first === 'object' && 'parts' in first) ? first : drafts;
}

/** Of a review and its draft, the part that each note stands on: once there was only one text that notes could stand on. */
function partsUnderNotes(answer: Answer): unknown[] {
  const { notes, draft } = (typeof answer === 'number' ? {} : answer[1]) as {
    notes?: ReadonlyArray<{ place?: { partId: string } }>;
    draft?: { htmlPartId?: string };
  };
  return (notes ?? []).map(({ place }) => place?.partId ?? draft?.htmlPartId);
}

describe.each(['small', 'demo'])('stored data, %s', (name) => {
  const { people, looks } = JSON.parse(gunzipSync(readFileSync(stored(`${name}.json.gz`))).toString()) as Recorded;
  let world: World;
  beforeAll(async () => {
    world = await World.stored(stored(`${name}.sqlite.gz`), people);
  });
  afterAll(() => world.close());

  it('is migrated, and reads to everybody as it did, at every time', async () => {
    for (const { at, seen } of looks) {
      world.clock.goTo(at);
      for (const [question, answer] of Object.entries(seen)) {
        const [person = '', path = ''] = question.split(' ');
        // What is to do is decided by another rule since, with a table of cases of its own.
        if (path === '/today') continue;
        // Once the record: who did what when is the same, what else is said of it is new.
        const isRecord = path.endsWith('/record');
        const { status, text } = await world.as(Number(person), 'get', path.replace(/record$/, 'activity'));
        const now: Answer = status === 403 || status === 404 ? status : [status, JSON.parse(text)];
        const [before, after] = [answer, now].map(isRecord ? actsOf : plain);
        expect({ at, question, answer: after }).toEqual({ at, question, answer: before });
        expect(partsUnderNotes(now)).toEqual(partsUnderNotes(answer));
      }
    }
  });
});
