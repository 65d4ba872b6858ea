import type { HandInCheck, NameFindView, VersionMeta } from '@salt-circle/contracts';
import { LIMITS } from '@salt-circle/contracts/plain';
import { useState } from 'react';
import { Button, Checkbox, Loading, Notice, TextArea } from '../../kit/index.js';
import { useUnattached } from '../../app/recording/useUnattached.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { lateInWords } from '@salt-circle/core';
import { useExchange } from '../../app/useExchange.js';
import { HandInPreview } from './HandInPreview.js';
import { NameFinds } from './NameFinds.js';
import type { Purpose } from './draftStatus.js';
import { useHandIn, type HandingIn } from './useHandIn.js';
import { say } from '../../words/hand-in.js';

export interface HandInDialogProps {
  /** Nothing can be handed in from here. */
  readonly lookOnly: boolean;
  readonly purpose: Purpose;
  readonly savePrefix: string;
  readonly onDone: (version: VersionMeta) => void;
}

/** The last look: what is missing, what it costs, what may tell a name, and what reviewers will see. */
export function HandInDialog({ lookOnly, purpose, savePrefix, onDone }: HandInDialogProps) {
  const exchange = useExchange();
  const handing = useHandIn(exchange.id, savePrefix, onDone);
  const { looking, problem } = handing;
  if (looking.state === 'unsent') {
    return (
      <Notice tone="waiting" title={say('yourLastChangesHaveNot')}>
        {say('theyAreKeptInThis')}
      </Notice>
    );
  }
  if (looking.state === 'checked') return <Checked {...{ lookOnly, purpose, handing }} check={looking.check} />;
  if (problem !== null) return <ProblemNotice error={problem} />;
  return <Loading what={say('yourDraftAsReviewersWill')} />;
}

interface CheckedProps {
  readonly check: HandInCheck;
  readonly lookOnly: boolean;
  readonly purpose: Purpose;
  readonly handing: HandingIn;
}

function Checked({ check, lookOnly, purpose, handing }: CheckedProps) {
  const exchange = useExchange();
  const recordings = useUnattached(`${exchange.id}:`);
  const [lateSeen, setLateSeen] = useState(false);
  const [changes, setChanges] = useState('');
  const [shown, setShown] = useState<NameFindView | null>(null);
  const { problem } = handing;
  const late = check.late !== null && !lookOnly;
  return (
    <div className="space-y-4">
      <Obstacles check={check} lookOnly={lookOnly} />
      {recordings > 0 && <Notice tone="waiting">{say('recordingUnattached', { recordings })}</Notice>}
      {(check.finds.length > 0 || check.hidden.length > 0) && (
        <NameFinds
          finds={check.finds}
          hidden={check.hidden}
          kept={handing.kept}
          busy={handing.hiding}
          onHide={handing.hide}
          onKeep={handing.keep}
          onShow={setShown}
          onShowAgain={handing.showAgain}
        />
      )}
      {late && (
        <Notice tone="soon" title={lateInWords(check.late)}>
          <Checkbox
            label={say('iKnowAndHandIn')}
            checked={lateSeen}
            onChange={({ target }) => setLateSeen(target.checked)}
          />
        </Notice>
      )}
      {purpose === 'revision' && !lookOnly && (
        <TextArea
          label={say('whatChangedForYourInstructor')}
          hint={say('optionalWhatToLookAt')}
          value={changes}
          maxLength={LIMITS.guidance}
          onChange={({ target }) => setChanges(target.value)}
        />
      )}
      {problem !== null && <ProblemNotice error={problem} />}
      {!lookOnly && (
        <HandInRow
          handing={handing}
          changes={changes}
          purpose={purpose}
          disabled={check.problems.length > 0 || (check.late !== null && !lateSeen)}
        />
      )}
      <HandInPreview exchangeId={exchange.id} check={check} shown={shown} />
    </div>
  );
}

function Obstacles({ check, lookOnly }: Pick<CheckedProps, 'check' | 'lookOnly'>) {
  return (
    <>
      {check.problems.length > 0 && (
        <Notice tone={lookOnly ? 'waiting' : 'problem'} title={say('thisCannotBeHandedIn')}>
          <ul>
            {check.problems.map(({ path, sentence }) => (
              <li key={path}>{sentence}</li>
            ))}
          </ul>
        </Notice>
      )}
      {check.remarks.map((remark) => (
        <Notice key={remark} tone="waiting">
          {remark}
        </Notice>
      ))}
    </>
  );
}

interface HandInRowProps {
  readonly handing: HandingIn;
  readonly changes: string;
  readonly purpose: Purpose;
  readonly disabled: boolean;
}

function HandInRow({ handing, changes, purpose, disabled }: HandInRowProps) {
  const { length: undecided } = handing.open;
  return (
    <div className="flex flex-wrap items-center gap-3">
      <Button
        look="primary"
        busy={handing.handing}
        disabled={disabled || undecided > 0}
        onClick={() => handing.handIn(changes)}
      >
        {purpose === 'revision' ? say('handInRevisionLabel') : say('handInLabel')}
      </Button>
      {undecided > 0 && <span className="text-sm text-ink-soft">{say('placesAboveAreStillTo', { undecided })}</span>}
    </div>
  );
}
