import type { FieldProblem } from '@salt-circle/contracts';
import { formMaximum, itemMaximum, weightSum, type ItemKind, type ReviewForm } from '@salt-circle/core';
import { kindsOfItems } from '../../app/form/kinds.js';
import { Key, Select, NumberBox } from '../../kit/index.js';
import { say } from '../../words/form-builder.js';

export interface FormTotalsProps {
  readonly form: ReviewForm;
  readonly readOnly: boolean;
  /** Those of the form as a whole. */
  readonly problems: readonly FieldProblem[];
  readonly onAdd: (kind: ItemKind) => void;
  readonly onChange: (part: Partial<ReviewForm>) => void;
}

const SHADES = ['bg-iodine', 'bg-iodine/75', 'bg-iodine/55', 'bg-iodine/40'];

/** What can be added, points or weights as they add up, and what the form asks beside its items. */
export function FormTotals({ form, readOnly, problems, onAdd, onChange }: FormTotalsProps) {
  return (
    <aside className="no-print border-l border-line bg-crust px-5 py-5">
      {!readOnly && (
        <section className="mb-5">
          <h3 className="mb-1 font-semibold">{say('add')}</h3>
          {kindsOfItems().map(({ kind, word, remark, key }) => (
            <button
              key={kind}
              type="button"
              onClick={() => onAdd(kind)}
              className="flex w-full items-center gap-2.5 rounded px-1 py-1 text-left hover:bg-paper"
            >
              <Key>{key}</Key> {word} <span className="text-ink-soft">{remark}</span>
            </button>
          ))}
        </section>
      )}
      <Sum form={form} />
      <fieldset disabled={readOnly} className="mt-5 space-y-3 border-t border-line pt-4">
        <legend className="sr-only">{say('formAsWhole')}</legend>
        <Select
          label={say('scoreGoesBy')}
          value={form.weighting}
          options={[
            ['points', say('pointsAddedUp')],
            ['weights', say('weightsInPercent')],
          ]}
          onChange={(weighting) => onChange({ weighting: weighting as ReviewForm['weighting'] })}
        />
        <Select
          label={say('overallComment')}
          value={form.overall}
          options={[
            ['none', say('notAskedFor')],
            ['optional', say('mayBeGiven')],
            ['required', say('mustBeGiven')],
          ]}
          onChange={(overall) => onChange({ overall: overall as ReviewForm['overall'] })}
        />
        {form.overall !== 'none' && (
          <p className="flex items-center gap-2">
            {say('atLeast')}
            <NumberBox
              label={say('leastWordsOfOverallComment')}
              value={form.overallWords}
              blank={0}
              min={0}
              max={2000}
              onChange={(value) => onChange({ overallWords: value ?? 0 })}
            />
            {say('words')}
          </p>
        )}
        <div>
          <p className="font-medium">{say('notesOnDraft')}</p>
          <p className="mt-1 flex items-center gap-2">
            {say('atLeast')}
            <NumberBox
              label={say('leastNumberOfNotes')}
              value={form.minimumNotes}
              blank={0}
              min={0}
              max={100}
              onChange={(value) => onChange({ minimumNotes: value ?? 0 })}
            />
          </p>
          <p className="mt-1 flex items-center gap-2">
            {say('hopedFor')}
            <NumberBox
              label={say('numberOfNotesHopedFor')}
              value={form.targetNotes}
              blank={0}
              min={0}
              max={100}
              onChange={(value) => onChange({ targetNotes: value ?? 0 })}
            />
          </p>
        </div>
        {problems.map((one) => (
          <p key={one.path + one.code} className="text-sm text-copper">
            {one.sentence}
          </p>
        ))}
      </fieldset>
    </aside>
  );
}

function Sum({ form }: { readonly form: ReviewForm }) {
  const { items } = form;
  const points = formMaximum(form);
  const byWeights = form.weighting === 'weights';
  const weights = weightSum(form);
  const scored = items.flatMap((item) => {
    const most = itemMaximum(item);
    if (most === null) return [];
    const share = byWeights ? item.weight : most;
    return [{ id: item.id, title: item.title === '' ? say('untitled') : item.title, share }];
  });
  const words = items.reduce((sum, item) => {
    if (!item.required || !('minimumWords' in item)) return sum;
    return sum + item.minimumWords * (item.kind === 'pair' ? 2 : 1);
  }, 0);
  const required = items.filter((item) => item.required).length;
  return (
    <section>
      <h3 className="font-semibold">
        {points === null
          ? say('noPoints', { items: items.length })
          : byWeights
            ? say('weightsAddUpTo', { weights, items: items.length })
            : say('points', { points, items: items.length })}
      </h3>
      {scored.some(({ share }) => share > 0) && (
        <>
          <div className="my-2 flex h-3" aria-hidden="true">
            {scored.map(({ id, share }, index) => (
              <span key={id} className={SHADES[index % SHADES.length]} style={{ flexGrow: share }} />
            ))}
          </div>
          <p className="text-sm text-ink-soft">
            {scored
              .map(({ title, share }) => `${title} ${byWeights ? `${Math.round((share / weights) * 100)}%` : share}`)
              .join(', ')}
          </p>
        </>
      )}
      <p className="mt-2 text-ink-soft">
        {words > 0
          ? say('ofItemsRequiredAtLeast', { required, items: items.length, words })
          : say('ofItemsRequired', { required, items: items.length })}
      </p>
    </section>
  );
}
