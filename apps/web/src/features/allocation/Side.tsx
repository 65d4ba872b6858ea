import type { AllocationView, PreviewView, WishesView } from '@salt-circle/contracts';
import { useState } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useNow } from '../../app/time/useNow.js';
import { When } from '../../app/time/When.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, Dialog, Notice } from '../../kit/index.js';
import { useApplyPreviewMutation, useDropPreviewMutation } from './allocationApi.js';
import type { Model } from './model.js';
import { Alone, CurrentPanel, EarlyWarning, PreviewPanel, Running, Suggestion } from './Panel.js';
import { outcomeWords, scheduleWords } from './sentences.js';
import type { ManualChanges } from './useManualChanges.js';
import type { Previewing } from './usePreview.js';
import { Wishes } from './Wishes.js';
import { say } from '../../words/allocation.js';

interface SideProps {
  readonly view: AllocationView;
  readonly model: Model;
  readonly manual: ManualChanges;
  readonly previewing: Previewing;
  readonly wishes: WishesView;
  readonly onWishes: (wishes: WishesView) => void;
  readonly onLook: (kind: 'new' | 'repair', seed: number | null) => void;
  readonly onShow: (preview: PreviewView | null) => void;
}

/** Beside the board: how good it is, what can be done, what is wished, and when it runs. */
export function Side({ view, model, manual, previewing, wishes, onWishes, onLook, onShow }: SideProps) {
  const exchange = useExchange();
  const now = useNow();
  const { preview, running, problem } = previewing;
  const due = exchange.dates.draftsDue;
  const early = due !== null && now < Date.parse(due) && view.schedule.kind !== 'nightly';
  return (
    <aside className="space-y-4 border-l border-line bg-crust px-5 py-4">
      {preview === null ? (
        <CurrentPanel model={model} />
      ) : (
        <PreviewPanel
          preview={preview}
          model={model}
          {...(preview.kind === 'new' && !view.begun ? { onSeed: (seed: number) => onLook('new', seed) } : {})}
        />
      )}
      {problem !== null && <ProblemNotice error={problem} />}
      {preview === null && view.kept !== null && (
        <Notice tone="waiting" title={say('plannedRunAppliedNothing')}>
          <p className="text-sm">
            {say('ofReviewsCouldBePlaced', {
              reached: view.kept.quality.placed.reached,
              asked: view.kept.quality.placed.asked,
            })}
          </p>
          <Button small onClick={() => onShow(view.kept)}>
            {say('lookAtItsPreview')}
          </Button>
        </Notice>
      )}
      {preview === null && <Suggestion view={view} busy={running !== null} onRepair={() => onLook('repair', null)} />}
      {preview === null && <Alone model={model} manual={manual} />}
      {early && view.handedIn < view.students && <EarlyWarning />}
      <Actions view={view} preview={preview} busy={running !== null} onLook={onLook} onShow={onShow} />
      {/* Below what is pressed: buttons that move by themselves are missed. */}
      {running !== null && <Running job={running} onCancel={previewing.cancel} />}
      <hr className="border-line" />
      {exchange.published && !view.begun && (
        <Wishes
          view={view}
          wishes={wishes}
          planFixed={exchange.course.role === 'instructor' ? null : say('whatStudentsHaveBeenTold')}
          onChange={onWishes}
        />
      )}
      <Schedule view={view} />
    </aside>
  );
}

function Actions({
  view,
  preview,
  busy,
  onLook,
  onShow,
}: Pick<SideProps, 'view' | 'onLook' | 'onShow'> & {
  readonly preview: PreviewView | null;
  readonly busy: boolean;
}) {
  const exchange = useExchange();
  const [apply, applying] = useApplyPreviewMutation();
  const [drop] = useDropPreviewMutation();
  const [asking, setAsking] = useState(false);
  const put = async () => {
    if (preview === null) return;
    const result = await apply({ id: exchange.id, previewId: preview.id });
    setAsking(false);
    if (result.error === undefined) onShow(null);
  };
  const replaces = view.applied && preview?.kind === 'new';
  const nothing = preview !== null && preview.kind !== 'new' && preview.added.length + preview.removed.length === 0;
  return (
    <>
      {applying.error !== undefined && <ProblemNotice error={applying.error} />}
      <div className="flex flex-wrap gap-2">
        {preview !== null && !nothing && (
          <Button look="primary" busy={applying.isLoading} onClick={() => (replaces ? setAsking(true) : void put())}>
            {preview.kind === 'new'
              ? replaces
                ? say('applyReviews', { pairs: preview.pairs.length })
                : say('applyReviewsOf', { pairs: preview.pairs.length })
              : say('applyRepair')}
          </Button>
        )}
        {!view.begun && (
          <Button
            look={preview === null ? 'primary' : 'plain'}
            busy={busy}
            disabled={!exchange.published}
            onClick={() => onLook('new', null)}
          >
            {preview === null ? (view.applied ? say('previewAnother') : say('previewAllocation')) : say('tryAnother')}
          </Button>
        )}
        {view.begun && preview === null && view.suggestion === null && (
          <Button busy={busy} onClick={() => onLook('repair', null)}>
            {say('previewRepair')}
          </Button>
        )}
        {preview !== null && (
          <Button
            look="quiet"
            onClick={() => {
              void drop({ id: exchange.id, previewId: preview.id });
              onShow(null);
            }}
          >
            {say('dropPreview')}
          </Button>
        )}
      </div>
      {view.begun && preview === null && <p className="text-sm text-ink-soft">{say('reviewingHasBegunSoNothing')}</p>}
      <Dialog
        open={asking}
        onClose={() => setAsking(false)}
        title={say('replaceAllocation')}
        description={say('whatIsAllocatedNowIs')}
      >
        <Button look="primary" busy={applying.isLoading} onClick={() => void put()}>
          {say('apply')}
        </Button>
      </Dialog>
    </>
  );
}

function Schedule({ view }: { readonly view: AllocationView }) {
  const exchange = useExchange();
  const { next, last } = view.schedule;
  const zone = exchange.course.timeZone;
  return (
    <section aria-label={say('when')} className="text-sm">
      <h3 className="text-base font-semibold">{say('when')}</h3>
      <p>{say('asSentence', { parts: scheduleWords(view.schedule) })}</p>
      {next !== null && <p className="text-ink-soft">{say('next', { when: <When at={next} timeZone={zone} /> })}</p>}
      {last !== null && (
        <p className="text-ink-soft">
          {say('lastRun', { when: <When at={last.at} timeZone={zone} />, outcomeWords: outcomeWords(last.outcome) })}
        </p>
      )}
    </section>
  );
}
