import { LIMITS } from '@salt-circle/contracts/plain';
import { MAX_PROMPTS, type AfterRule, type RatingsRule } from '@salt-circle/core';
import { Button, Checkbox, Select, TextArea, TextField } from '../../kit/index.js';
import { say } from '../../words/plan.js';

interface AfterReleaseProps {
  readonly rule: AfterRule;
  readonly remindHours: number | null;
  readonly readOnly: boolean;
  readonly problemAt: (path: string) => string | undefined;
  readonly onRule: (rule: AfterRule) => void;
  readonly onRemind: (hours: number | null) => void;
}

const ratingsRules = (): ReadonlyArray<readonly [RatingsRule, string]> => [
  ['off', say('notAsked')],
  ['staff', say('askedOnlyYouAndYour')],
  ['at-once', say('askedReviewerReadsItAt')],
  ['at-end', say('askedReviewerReadsItOnce')],
];

const usualPrompts = () => [say('whatDidYourReviewersSee'), say('whatWillYouDoDifferently')];

/** What authors and reviewers do once feedback is there, beside the dates for it; and reminders. */
export function AfterRelease({ rule, remindHours, readOnly, problemAt, onRule, onRemind }: AfterReleaseProps) {
  const { ratings, reflection, othersReviews, revisionShown } = rule;
  return (
    <>
      <Select
        label={say('howDidThisReviewHelp')}
        value={ratings}
        options={ratingsRules()}
        disabled={readOnly}
        onChange={(value) => onRule({ ...rule, ratings: value as RatingsRule })}
      />
      <div className="space-y-2">
        <Checkbox
          label={say('afterReleaseReviewersReadOther')}
          checked={othersReviews}
          disabled={readOnly}
          onChange={({ target }) => onRule({ ...rule, othersReviews: target.checked })}
        />
        <Checkbox
          label={say('reviewersSeeRevisionBesideWhat')}
          checked={revisionShown}
          disabled={readOnly}
          onChange={({ target }) => onRule({ ...rule, revisionShown: target.checked })}
        />
        <Checkbox
          label={say('authorsThinkTheirFeedbackOver')}
          checked={reflection !== null}
          disabled={readOnly}
          onChange={({ target }) =>
            onRule({ ...rule, reflection: target.checked ? { prompts: usualPrompts(), minimumWords: 0 } : null })
          }
        />
      </div>
      {reflection !== null && (
        <Prompts
          reflection={reflection}
          readOnly={readOnly}
          problemAt={problemAt}
          onChange={(next) => onRule({ ...rule, reflection: next })}
        />
      )}
      <TextField
        label={say('remindByThemselvesHoursBefore')}
        type="number"
        min={1}
        max={168}
        disabled={readOnly}
        value={remindHours === null ? '' : String(remindHours)}
        problem={problemAt('remindHours')}
        hint={say('onceEachWhoeverHasNot')}
        onChange={({ target }) => onRemind(target.value === '' ? null : Math.round(Number(target.value)))}
      />
    </>
  );
}

interface PromptsProps {
  readonly reflection: NonNullable<AfterRule['reflection']>;
  readonly readOnly: boolean;
  readonly problemAt: (path: string) => string | undefined;
  readonly onChange: (reflection: NonNullable<AfterRule['reflection']>) => void;
}

function Prompts({ reflection, readOnly, problemAt, onChange }: PromptsProps) {
  const { prompts, minimumWords } = reflection;
  return (
    <div className="space-y-2 border-l-2 border-line pl-3">
      {prompts.map((prompt, index) => (
        <div key={index} className="flex items-end gap-2">
          <div className="flex-1">
            <TextArea
              label={say('question', { index: index + 1 })}
              rows={2}
              readOnly={readOnly}
              value={prompt}
              maxLength={LIMITS.guidance}
              problem={problemAt(`after.reflection.prompts.${index}`)}
              onChange={({ target }) =>
                onChange({ ...reflection, prompts: prompts.map((one, at) => (at === index ? target.value : one)) })
              }
            />
          </div>
          {!readOnly && prompts.length > 1 && (
            <Button
              small
              look="quiet"
              onClick={() => onChange({ ...reflection, prompts: prompts.filter((_, at) => at !== index) })}
            >
              {say('remove')}
            </Button>
          )}
        </div>
      ))}
      {!readOnly && prompts.length < MAX_PROMPTS && (
        <Button small onClick={() => onChange({ ...reflection, prompts: [...prompts, say('whatElse')] })}>
          {say('addQuestion')}
        </Button>
      )}
      <TextField
        label={say('atLeastSoManyWords')}
        type="number"
        min={0}
        max={5000}
        disabled={readOnly}
        value={String(minimumWords)}
        onChange={({ target }) =>
          onChange({ ...reflection, minimumWords: Math.max(0, Math.round(Number(target.value))) })
        }
      />
    </div>
  );
}
