import { wordsBy } from '@salt-circle/core';
import type { DeskView, Withholdable, WithheldView } from '@salt-circle/contracts';
import { createContext, use, useMemo, useState, type ReactNode } from 'react';
import { useGiveBackMutation, useWithholdMutation } from '../../../app/moderation/checkApi.js';
import { WordsForm } from '../../../app/moderation/WordsForm.js';
import { ProblemNotice } from '../../../app/ProblemNotice.js';
import { When } from '../../../app/time/When.js';
import { Button, Checkbox, Dialog } from '../../../kit/index.js';
import { say } from '../../../words/desk.js';

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

const WHAT: Readonly<Record<Withholdable, string>> = wordsBy(say, {
  review: 'thisReview',
  note: 'thisNote',
  answer: 'thisAnswer',
  file: 'thisFile',
});

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
            ? say('keptFromAuthor', { reason: kept.reason })
            : say('yourInstructorKeepsFromAuthor', { what: WHAT[kind], reason: kept.reason })}
          {kept.staff !== null && (
            <span className="block text-ink-soft">
              {kept.staff.told
                ? kept.staff.counts
                  ? say('reviewerSeesThisItCounts', {
                      by: kept.staff.by,
                      when: <When at={kept.staff.at} timeZone={timeZone} />,
                    })
                  : say('reviewerSeesThisItDoes', {
                      by: kept.staff.by,
                      when: <When at={kept.staff.at} timeZone={timeZone} />,
                    })
                : kept.staff.counts
                  ? say('reviewerDoesNotSeeThis', {
                      by: kept.staff.by,
                      when: <When at={kept.staff.at} timeZone={timeZone} />,
                    })
                  : say('reviewerDoesNotSeeThisIt', {
                      by: kept.staff.by,
                      when: <When at={kept.staff.at} timeZone={timeZone} />,
                    })}
            </span>
          )}
        </p>
      )}
      {may && kept === undefined && (
        <Button look={large ? 'plain' : 'quiet'} small={!large} onClick={() => setAsking(true)}>
          {large ? say('withholdWholeReview') : say('withhold')}
        </Button>
      )}
      {may && kept !== undefined && (
        <Button small busy={isLoading} onClick={() => void giveBack({ reviewId, kind, targetId })}>
          {say('giveItBack')}
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
      title={say('withholdOf', { what: WHAT[kind] })}
      description={say('authorSeesNothingOfIt')}
    >
      <WordsForm
        label={say('reasonForRecord')}
        value={reason}
        onChange={setReason}
        problem={error}
        busy={isLoading}
        submit={say('withholdIt')}
        onSubmit={() => void go()}
      >
        <Checkbox
          label={say('reviewerSeesThatItIs')}
          checked={told}
          onChange={({ target }) => setTold(target.checked)}
        />
        <Checkbox
          label={say('itCountsForReviewerAll')}
          checked={counts}
          onChange={({ target }) => setCounts(target.checked)}
        />
      </WordsForm>
    </Dialog>
  );
}
