import { LIMITS, type HandInCheck, type NameFindView, type VersionMeta } from '@salt-circle/contracts';
import { useState } from 'react';
import { Button, Checkbox, Loading, Notice, TextArea } from '../../kit/index.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { counted, lateInWords } from '@salt-circle/core';
import { useExchange } from '../../app/useExchange.js';
import { HandInPreview } from './HandInPreview.js';
import { NameFinds } from './NameFinds.js';
import type { Purpose } from './standing.js';
import { useHandIn, type HandingIn } from './useHandIn.js';

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
      <Notice tone="waiting" title="Your last changes have not reached the server, so nothing can be handed in yet.">
        They are kept in this browser. Close this, and try again when the state at the bottom says they are saved.
      </Notice>
    );
  }
  if (looking.state === 'checked') return <Checked {...{ lookOnly, purpose, handing }} check={looking.check} />;
  if (problem !== null) return <ProblemNotice error={problem} />;
  return <Loading what="your draft as reviewers will see it" />;
}

interface CheckedProps {
  readonly check: HandInCheck;
  readonly lookOnly: boolean;
  readonly purpose: Purpose;
  readonly handing: HandingIn;
}

function Checked({ check, lookOnly, purpose, handing }: CheckedProps) {
  const exchange = useExchange();
  const [lateSeen, setLateSeen] = useState(false);
  const [changes, setChanges] = useState('');
  const [shown, setShown] = useState<NameFindView | null>(null);
  const { problem } = handing;
  const late = check.late !== null && !lookOnly;
  return (
    <div className="space-y-4">
      <Obstacles check={check} lookOnly={lookOnly} />
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
            label="I know, and hand in late"
            checked={lateSeen}
            onChange={({ target }) => setLateSeen(target.checked)}
          />
        </Notice>
      )}
      {purpose === 'revision' && !lookOnly && (
        <TextArea
          label="What changed, for your instructor"
          hint="Optional: what to look at first, and what you left as it was."
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
        <Notice tone={lookOnly ? 'waiting' : 'problem'} title="This cannot be handed in yet.">
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
        {purpose === 'revision' ? 'Hand in the revision' : 'Hand in'}
      </Button>
      {undecided > 0 && (
        <span className="text-sm text-ink-soft">
          {counted(undecided, 'One place above is', '# places above are')} still to be decided.
        </span>
      )}
    </div>
  );
}
