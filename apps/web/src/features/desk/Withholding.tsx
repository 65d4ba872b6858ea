import type { DeskView, Withholdable, WithheldView } from '@salt-circle/contracts';
import { LIMITS } from '@salt-circle/contracts';
import { createContext, use, useMemo, useState, type ReactNode } from 'react';
import { useGiveBackMutation, useWithholdMutation } from '../../app/check/checkApi.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { When } from '../../app/time/When.js';
import { Button, Checkbox, Dialog, TextArea } from '../../kit/index.js';

interface Around {
  readonly reviewId: string;
  readonly timeZone: string;
  /** Whether the one who looks may withhold and give back. */
  readonly may: boolean;
  readonly withheld: readonly WithheldView[];
}

const Surroundings = createContext<Around | null>(null);

/** What below it can be withheld, and what is. */
export function WithholdingOf({ desk, children }: { readonly desk: DeskView; readonly children: ReactNode }) {
  const { id, checkable, withheld } = desk;
  const { timeZone } = desk.exchange;
  const around = useMemo(
    () => ({ reviewId: id, timeZone, may: checkable, withheld }),
    [id, timeZone, checkable, withheld],
  );
  return <Surroundings value={around}>{children}</Surroundings>;
}

/** Whether it is kept from its author, as far as the one who looks knows. */
export function useIsWithheld(kind: Withholdable, targetId: string): boolean {
  const withheld = use(Surroundings)?.withheld ?? [];
  return withheld.some((one) => one.kind === kind && one.targetId === targetId);
}

const WHAT: Readonly<Record<Withholdable, string>> = {
  review: 'this review',
  note: 'this note',
  answer: 'this answer',
  file: 'this file',
};

interface WithholdingProps {
  readonly kind: Withholdable;
  /** Of the note, the item or the file; empty for the whole review. */
  readonly targetId: string;
  /** The button in full, where there is room. */
  readonly large?: boolean;
}

/** Whether something of the review is kept from its author, and, for staff, the way to keep it or to give it back. */
export function Withholding({ kind, targetId, large = false }: WithholdingProps) {
  const around = use(Surroundings);
  const [asking, setAsking] = useState(false);
  const [giveBack, { isLoading, error }] = useGiveBackMutation();
  if (around === null) return null;
  const { reviewId, timeZone, may } = around;
  const kept = around.withheld.find((one) => one.kind === kind && one.targetId === targetId);
  if (kept === undefined && !may) return null;
  return (
    <div className="no-print mt-1 text-sm" onClick={(event) => event.stopPropagation()}>
      {kept !== undefined && (
        <p className="text-copper">
          {may
            ? `Kept from the author: ${kept.reason}`
            : `Your instructor keeps ${WHAT[kind]} from the author: ${kept.reason}`}
          {kept.staff !== null && (
            <span className="block text-ink-soft">
              {kept.staff.by}, <When at={kept.staff.at} timeZone={timeZone} />; the reviewer{' '}
              {kept.staff.told ? 'sees this' : 'does not see this'}; it{' '}
              {kept.staff.counts ? 'counts' : 'does not count'} for the reviewer
            </span>
          )}
        </p>
      )}
      {may && kept === undefined && (
        <Button look={large ? 'plain' : 'quiet'} small={!large} onClick={() => setAsking(true)}>
          {large ? 'Withhold the whole review…' : 'Withhold…'}
        </Button>
      )}
      {may && kept !== undefined && (
        <Button small busy={isLoading} onClick={() => void giveBack({ reviewId, kind, targetId })}>
          Give it back
        </Button>
      )}
      {error !== undefined && <ProblemNotice error={error} />}
      {asking && (
        <WithholdDialog reviewId={reviewId} kind={kind} targetId={targetId} onClose={() => setAsking(false)} />
      )}
    </div>
  );
}

interface WithholdDialogProps extends Pick<WithholdingProps, 'kind' | 'targetId'> {
  readonly reviewId: string;
  readonly onClose: () => void;
}

function WithholdDialog({ reviewId, kind, targetId, onClose }: WithholdDialogProps) {
  const [reason, setReason] = useState('');
  const [told, setTold] = useState(false);
  const [counts, setCounts] = useState(true);
  const [withhold, { isLoading, error }] = useWithholdMutation();
  const go = async () => {
    const result = await withhold({ reviewId, kind, targetId, reason, told, counts });
    if (result.error === undefined) onClose();
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={`Withhold ${WHAT[kind]}`}
      description="The author sees nothing of it, and not that anything is kept. It can be given back at any time."
    >
      <form
        className="space-y-3"
        onSubmit={(event) => {
          event.preventDefault();
          void go();
        }}
      >
        <TextArea
          label="Reason, for the record"
          value={reason}
          maxLength={LIMITS.guidance}
          onChange={({ target }) => setReason(target.value)}
        />
        <Checkbox
          label="The reviewer sees that it is withheld, and this reason"
          checked={told}
          onChange={({ target }) => setTold(target.checked)}
        />
        <Checkbox
          label="It counts for the reviewer all the same"
          checked={counts}
          onChange={({ target }) => setCounts(target.checked)}
        />
        {error !== undefined && <ProblemNotice error={error} />}
        <Button look="primary" type="submit" busy={isLoading}>
          Withhold it
        </Button>
      </form>
    </Dialog>
  );
}
