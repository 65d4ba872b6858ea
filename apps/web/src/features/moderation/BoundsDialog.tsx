import { DEFAULT_FLAGGING_RULES, type FlaggingRules } from '@salt-circle/core';
import { useState } from 'react';
import { useSaveBoundsMutation } from '../../app/moderation/checkApi.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, Checkbox, Dialog, TextArea } from '../../kit/index.js';
import { say } from '../../words/moderation.js';

interface BoundsDialogProps {
  readonly bounds: FlaggingRules;
  readonly onClose: () => void;
}

/** Which flags a review gets, for this exchange. */
export function BoundsDialog({ bounds: given, onClose }: BoundsDialogProps) {
  const exchange = useExchange();
  const [bounds, setBounds] = useState(given);
  const [words, setWords] = useState(given.harshWords.join(', '));
  const [save, { isLoading, error }] = useSaveBoundsMutation();
  const set = (part: Partial<FlaggingRules>) => setBounds((all) => ({ ...all, ...part }));
  const go = async () => {
    const harshWords = words
      .split(/[,\n]/)
      .map((word) => word.trim())
      .filter((word) => word !== '');
    const result = await save({ exchangeId: exchange.id, bounds: { ...bounds, harshWords } });
    if (result.error === undefined) onClose();
  };
  return (
    <Dialog open onClose={onClose} wide title={say('flaggingRulesTitle')} description={say('theseAreReasonsToLook')}>
      <form
        className="space-y-3"
        onSubmit={(event) => {
          event.preventDefault();
          void go();
        }}
      >
        <Percent
          label={say('farFewerWordsThanOthers')}
          value={bounds.fewWords}
          usual={DEFAULT_FLAGGING_RULES.fewWords}
          onChange={(fewWords) => set({ fewWords })}
        />
        <Checkbox
          label={say('noNoteSaysWhatTo')}
          checked={bounds.nothingToDo}
          onChange={({ target }) => set({ nothingToDo: target.checked })}
        />
        <Percent
          label={say('levelsFarFromOtherReviews')}
          value={bounds.farFromOthers}
          usual={DEFAULT_FLAGGING_RULES.farFromOthers}
          onChange={(farFromOthers) => set({ farFromOthers })}
        />
        <Checkbox
          label={say('everythingAtTopOrAt')}
          checked={bounds.oneEnd}
          onChange={({ target }) => set({ oneEnd: target.checked })}
        />
        <Percent
          label={say('soMuchOfItsText')}
          value={bounds.sameText}
          usual={DEFAULT_FLAGGING_RULES.sameText}
          onChange={(sameText) => set({ sameText })}
        />
        <Bound
          label={say('submittedWithinSoManySeconds')}
          unit={say('seconds')}
          value={bounds.hasty}
          usual={DEFAULT_FLAGGING_RULES.hasty}
          onChange={(hasty) => set({ hasty })}
        />
        <Checkbox
          label={say('nameStandsInItThat')}
          checked={bounds.names}
          onChange={({ target }) => set({ names: target.checked })}
        />
        <TextArea
          label={say('wordsThatMayHurt')}
          hint={say('separatedByCommasWholeWords')}
          value={words}
          onChange={({ target }) => setWords(target.value)}
        />
        {error !== undefined && <ProblemNotice error={error} />}
        <div className="flex gap-2">
          <Button look="primary" type="submit" busy={isLoading}>
            {say('save')}
          </Button>
          <Button
            onClick={() => {
              setBounds(DEFAULT_FLAGGING_RULES);
              setWords(DEFAULT_FLAGGING_RULES.harshWords.join(', '));
            }}
          >
            {say('backToUsual')}
          </Button>
        </div>
      </form>
    </Dialog>
  );
}

interface BoundProps {
  readonly label: string;
  readonly unit: string;
  readonly value: number | null;
  readonly usual: number | null;
  readonly onChange: (value: number | null) => void;
}

/** A reason that can be turned off, with its figure. */
function Bound({ label, unit, value, usual, onChange }: BoundProps) {
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
      <Checkbox
        label={label}
        checked={value !== null}
        onChange={({ target }) => onChange(target.checked ? usual : null)}
      />
      {value !== null && (
        <label className="flex items-center gap-1.5 text-sm">
          <span className="sr-only">{label}</span>
          <input
            type="number"
            min={0}
            max={unit === '%' ? 100 : 86_400}
            value={value}
            onChange={({ target }) => onChange(Number.isNaN(target.valueAsNumber) ? 0 : target.valueAsNumber)}
            className="w-20 rounded border border-edge bg-paper px-2 py-1"
          />
          {unit}
        </label>
      )}
    </div>
  );
}

function Percent({ value, usual, onChange, label }: Omit<BoundProps, 'unit'>) {
  const percent = (share: number | null) => (share === null ? null : Math.round(100 * share));
  return (
    <Bound
      label={label}
      unit="%"
      value={percent(value)}
      usual={percent(usual)}
      onChange={(given) => onChange(given === null ? null : Math.min(100, Math.max(0, given)) / 100)}
    />
  );
}
