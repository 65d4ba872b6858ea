import type { RecordRow } from '@salt-circle/contracts';
import { api } from '../../app/api.js';
import { useNow } from '../../app/time/useNow.js';
import { exactly } from '../../app/time/words.js';
import { Loading } from '../../kit/index.js';
import { SettingsGroup } from './SettingsGroup.js';

const { useRecordQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    record: build.query<RecordRow[], string>({ query: (id) => `/exchanges/${id}/record` }),
  }),
});

const WORDS: Readonly<Record<string, string>> = {
  'exchange-created': 'created the exchange',
  'exchange-copied': 'made the exchange from another one',
  'own-times-set': 'extended or excused somebody',
  'own-times-removed': 'took an extension or excuse back',
  'plan-changed': 'changed the plan',
  'dates-changed': 'changed dates',
  'rules-changed': 'changed what being late loses, or the grade',
  'attachment-added': 'attached a file to the brief or the guide',
  'attachment-removed': 'took an attachment away',
  'form-changed': 'changed the form',
  'exchange-published': 'published',
  'draft-handed-in': 'handed in a draft',
  'draft-handed-in-for': 'handed in for a student',
  'draft-withdrawn': 'took a draft back',
  'revision-handed-in': 'handed in a revision',
  'revision-withdrawn': 'took a revision back',
  replied: 'answered a review',
  reminded: 'sent reminders',
  'allocation-applied': 'applied an allocation',
  'allocation-repaired': 'repaired the allocation',
  'allocation-undone': 'took back a change of the allocation',
  'allocation-by-hand': 'changed the allocation by hand',
  'allocation-imported': 'took over an allocation from a file',
  'allocation-planned': 'set when drafts are allocated',
  'allocation-run': 'ran a planned allocation',
  'extra-reviewer-set': 'set who of the staff reviews as well',
  'grade-rule-set': 'set what the grade is made of',
  'grading-shared': 'shared out who grades whom',
  'archive-made': 'took the exchange along as an archive',
  'archive-read': 'read the exchange from an archive',
  'notes-brought': 'brought notes back in a file',
  'notes-refused': 'brought a file back that could not be taken',
  'campus-link-chosen': 'put a link to the exchange on a page of the campus',
  'campus-columns-set': 'set what the gradebook of the campus is told',
  'campus-scores-sent': 'passed grades on to the campus',
  'campus-score-decided': 'decided on grades that differ from the campus’s, or were refused there',
  withheld: 'kept something from an author',
  'given-back': 'gave back what was kept from an author',
  'release-changed': 'changed when some read their feedback',
  'look-asked': 'asked staff to look at something',
  'look-answered': 'answered somebody who had asked to look',
  'practice-added': 'added a practice draft',
  'practice-removed': 'removed a practice draft',
  'marking-forms-set': 'set by what forms drafts and reviewing are marked',
  // As it was called before there was one for drafts.
  'reviewing-form-set': 'set by what form reviewing is marked',
  'grade-overridden': 'gave something else than what was worked out in a grade',
  'grades-released': 'released grades, or took that back',
  'round-made': 'made it from the revisions of another exchange',
  'review-by-staff': 'began an own review of a draft',
  'review-begun': 'began a review',
  'review-submitted': 'submitted a review',
  'review-reopened': 'reopened a review',
  'feedback-released': 'released feedback',
};

interface RecordGroupProps {
  readonly exchangeId: string;
  readonly timeZone: string;
}

/** Who did what, when. */
export function RecordGroup({ exchangeId, timeZone }: RecordGroupProps) {
  return (
    <SettingsGroup title="Record" summary="Who did what in this exchange, and when">
      <Entries exchangeId={exchangeId} timeZone={timeZone} />
    </SettingsGroup>
  );
}

function Entries({ exchangeId, timeZone }: RecordGroupProps) {
  const now = useNow();
  const { data } = useRecordQuery(exchangeId, { refetchOnMountOrArgChange: true });
  if (data === undefined) return <Loading what="the record" />;
  return (
    <ol className="max-h-96 overflow-y-auto" tabIndex={0} aria-label="Record, newest first">
      {data.map(({ at, actor, action }, index) => (
        <li key={index} className="grid grid-cols-[14rem_1fr] gap-x-4 border-b border-line py-1">
          <span className="text-ink-soft">{exactly(Date.parse(at), timeZone, now)}</span>
          <span>
            {actor} {WORDS[action] ?? action}
          </span>
        </li>
      ))}
    </ol>
  );
}
