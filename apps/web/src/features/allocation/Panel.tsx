import { wordsBy } from '@salt-circle/core';
import type { AllocationView, JobView, PreviewView } from '@salt-circle/contracts';
import { ArrowRight, Minus, Plus } from 'lucide-react';
import { labelWords } from '../../app/People.js';
import { When } from '../../app/time/When.js';
import { useExchange } from '../../app/useExchange.js';
import { useState } from 'react';
import { Button, Notice, TextField } from '../../kit/index.js';
import type { Model } from './model.js';
import {
  measuredFigures,
  named,
  progressWords,
  qualityFigures,
  repairChanges,
  unmetWishes,
  type FigureWords,
} from './sentences.js';
import { waysOut } from './together.js';
import type { ManualChanges } from './useManualChanges.js';
import { say } from '../../words/allocation.js';

const TITLES: Readonly<Record<PreviewView['kind'], string>> = wordsBy(say, {
  new: 'previewNotApplied',
  repair: 'repairNotApplied',
  round: 'roundNotApplied',
});

/** What is shown at the left, in figures and sentences. */
export function PreviewPanel({
  preview,
  model,
  onSeed,
}: {
  readonly preview: PreviewView;
  readonly model: Model;
  /** Missing where the outcome is not a matter of chance. */
  readonly onSeed?: (seed: number) => void;
}) {
  const unmet = unmetWishes(preview, model);
  const changes = preview.kind === 'new' ? [] : repairChanges(preview, model);
  return (
    <section aria-label={say('preview')} className="space-y-3">
      <div>
        <h3 className="text-lg font-semibold">{TITLES[preview.kind]}</h3>
        <p className="text-sm text-ink-soft">
          {preview.scheduled
            ? say('fromPlannedRun', { reviews: preview.pairs.length })
            : say('reviewsCounted', { count: preview.pairs.length })}
        </p>
        {onSeed !== undefined && <Seed key={preview.id} seed={preview.seed} onTry={onSeed} />}
      </div>
      <Figures figures={qualityFigures(preview.quality, preview.wishes)} />
      {unmet.length > 0 && (
        <Notice tone="waiting" title={say('wishesAreNotMet', { unmet: unmet.length })}>
          <ul className="mt-1 list-disc space-y-1 pl-4 text-sm">
            {unmet.map((sentence) => (
              <li key={sentence}>{sentence}</li>
            ))}
          </ul>
        </Notice>
      )}
      {preview.kind !== 'new' && (
        <div>
          <h4 className="font-semibold">
            {changes.length === 0
              ? say('nothingNeedsToChange')
              : say('pairsMorePairsTakenAway', { added: preview.added.length, removed: preview.removed.length })}
          </h4>
          <ul className="mt-1 max-h-64 space-y-1 overflow-y-auto text-sm">
            {changes.map(({ key, sign, reviewer, author, reason }) => (
              <li key={key} className="flex gap-1.5">
                {sign === 'added' ? (
                  <Plus size={14} className="mt-0.5 shrink-0 text-kelp" aria-label={say('moreWord')} />
                ) : (
                  <Minus size={14} className="mt-0.5 shrink-0 text-madder" aria-label={say('takenAway')} />
                )}
                <span>
                  {reviewer} <ArrowRight size={12} className="inline" aria-label={say('reviewsWord')} /> {author}{' '}
                  <span className="text-ink-soft">{reason}</span>
                </span>
              </li>
            ))}
          </ul>
        </div>
      )}
    </section>
  );
}

/** For whoever wants the same allocation again: the number that chance went by. */
function Seed({ seed, onTry }: { readonly seed: number; readonly onTry: (seed: number) => void }) {
  const [typed, setTyped] = useState(String(seed));
  const wanted = Number(typed);
  const isSeed = typed.trim() !== '' && Number.isInteger(wanted) && wanted >= 0 && wanted <= 4_294_967_295;
  return (
    <details className="mt-1 text-sm">
      <summary className="cursor-pointer text-ink-soft">{say('sameAgain')}</summary>
      <form
        className="mt-1 space-y-1"
        onSubmit={(event) => {
          event.preventDefault();
          if (isSeed) onTry(wanted);
        }}
      >
        <TextField
          label={say('seed')}
          hint={say('withSamePeopleWishesAnd')}
          inputMode="numeric"
          value={typed}
          problem={isSeed ? undefined : say('wholeNumberFrom0To')}
          onChange={({ target }) => setTyped(target.value)}
        />
        <Button small type="submit" disabled={!isSeed || wanted === seed}>
          {say('tryThisSeed')}
        </Button>
      </form>
    </details>
  );
}

/** People of whose group nobody else has handed in, and what can be done for them. */
export function Alone({ model, manual }: { readonly model: Model; readonly manual: ManualChanges }) {
  const { alone } = model.view;
  if (alone.length === 0 || !model.view.applied) return null;
  return (
    <Notice
      tone="soon"
      title={say('haveNobodyToReviewWith', {
        named: named(alone.map(({ reviewerId }) => model.reviewerName(reviewerId))),
        alone: alone.length,
      })}
    >
      <p className="text-sm">{say('nobodyElseOfGroupHas')}</p>
      <ul className="mt-1 space-y-1">
        {waysOut(model).map(({ words, add }) => (
          <li key={words}>
            <Button small busy={manual.busy} onClick={() => manual.together(add)}>
              {words}
            </Button>
          </li>
        ))}
      </ul>
    </Notice>
  );
}

export function Figures({ figures }: { readonly figures: readonly FigureWords[] }) {
  return (
    <dl>
      {figures.map(({ words, figure, remark }) => (
        <div key={words} className="grid grid-cols-[1fr_auto] gap-x-3 border-b border-line py-1.5">
          <dt>{words}</dt>
          <dd className="font-semibold tabular-nums">{figure}</dd>
          <dd className="col-span-2 text-sm text-ink-soft">{remark}</dd>
        </div>
      ))}
    </dl>
  );
}

/** How it stands, when no preview is shown. */
export function CurrentPanel({ model }: { readonly model: Model }) {
  const exchange = useExchange();
  const { view } = model;
  const leftOut = view.reviewers.filter(({ leftOut: reason }) => reason !== null);
  return (
    <section aria-label={say('allocationLabel')} className="space-y-3">
      <div>
        <h3 className="text-lg font-semibold">{view.applied ? say('applied') : say('nothingAllocatedYet')}</h3>
        <p className="text-sm text-ink-soft">
          {view.applied
            ? exchange.mayReview || view.begun
              ? say('reviewsAllocatedReviewersSeeTheirs', { pairs: model.pairs.length })
              : say('reviewsAllocatedReviewersSeeTheirsWhen', { pairs: model.pairs.length })
            : say('ofHaveHandedIn', { handedIn: view.handedIn, students: view.students })}
        </p>
      </div>
      {view.applied && <Figures figures={measuredFigures(model.measures(), view.wishes.mix)} />}
      {leftOut.length > 0 && (
        <p className="text-sm">
          <strong className="font-medium">{say('leftOut', { leftOut: leftOut.length })}</strong>{' '}
          <span className="text-ink-soft">{named(leftOut.map(({ label }) => labelWords(label)))}</span>
        </p>
      )}
    </section>
  );
}

export function Running({ job, onCancel }: { readonly job: JobView; readonly onCancel: () => void }) {
  const { words, percent } = progressWords(job.progress);
  return (
    <div role="status" className="space-y-2">
      <p>{say('doneSoFar', { words, percent })}</p>
      <progress value={percent} max={100} className="h-1.5 w-full accent-iodine" aria-label={say('howFarItIs')} />
      <Button small onClick={onCancel}>
        {say('cancel')}
      </Button>
    </div>
  );
}

/** What has happened since, and the one step that mends it. */
export function Suggestion({
  view,
  busy,
  onRepair,
}: {
  readonly view: AllocationView;
  readonly busy: boolean;
  readonly onRepair: () => void;
}) {
  const { suggestion } = view;
  if (suggestion === null) return null;
  const names = (labels: typeof suggestion.late) => named(labels.map(labelWords));
  return (
    <Notice tone="soon" title={say('somethingHasHappenedSince')}>
      <ul className="my-1 list-disc space-y-0.5 pl-4 text-sm">
        {suggestion.late.length > 0 && <li>{say('withoutTheirShareOfReviews', { names: names(suggestion.late) })}</li>}
        {suggestion.left.length > 0 && <li>{say('takeNoPartAnyMore', { names: names(suggestion.left) })}</li>}
        {suggestion.forbidden > 0 && <li>{say('pairsThatYouKeepApart', { forbidden: suggestion.forbidden })}</li>}
      </ul>
      <Button small busy={busy} onClick={onRepair}>
        {say('seeRepair')}
      </Button>
    </Notice>
  );
}

export function EarlyWarning() {
  const exchange = useExchange();
  const due = exchange.dates.draftsDue;
  if (due === null) return null;
  return (
    <Notice tone="soon" title={say('draftsCanStillComeIn')}>
      {say('theyAreDueWhoeverHands', { when: <When at={due} timeZone={exchange.course.timeZone} /> })}
    </Notice>
  );
}
