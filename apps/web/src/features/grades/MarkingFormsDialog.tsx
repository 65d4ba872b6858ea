import type { GradesView } from '@salt-circle/contracts';
import { counted, type FormItem, type GradingWork } from '@salt-circle/core';
import { useState } from 'react';
import { useLibraryQuery } from '../../app/libraryApi.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, Checkbox, Dialog, Loading, Select } from '../../kit/index.js';
import { useChooseMarkingFormsMutation } from './gradesApi.js';

/** What is not a form of the library. */
const KEEP = 'keep';
const NONE = 'none';

/** By what forms staff mark drafts and reviewing. */
export function MarkingFormsDialog({ view, onClose }: { readonly view: GradesView; readonly onClose: () => void }) {
  const exchange = useExchange();
  const { data } = useLibraryQuery(exchange.course.id);
  const [draft, setDraft] = useState(KEEP);
  const [reviewing, setReviewing] = useState(KEEP);
  const [each, setEach] = useState(view.reviewingEach);
  const [choose, { isLoading, error }] = useChooseMarkingFormsMutation();
  if (data === undefined) return <Loading what="the library" />;
  const forms = data.entries.filter(({ kind }) => kind === 'form').map(({ id, title }) => [id, title] as const);
  const changesReviewing = reviewing !== KEEP || each !== view.reviewingEach;
  const go = async () => {
    const done = await choose({
      ...{ exchangeId: exchange.id, each },
      ...(draft === KEEP ? {} : { draftFormId: idOf(draft) }),
      ...(reviewing === KEEP ? {} : { reviewingFormId: idOf(reviewing) }),
    });
    if (done.error === undefined) onClose();
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title="Forms for marking"
      description="A form is taken over as it is now; what is changed in the library later changes nothing here."
    >
      <div className="space-y-4">
        <Select
          label="For drafts"
          value={draft}
          options={[
            ...(view.draftForm === null
              ? [[KEEP, 'the form of this exchange, as for the peers'] as const]
              : [
                  [KEEP, asItIs(view.draftForm)] as const,
                  [NONE, 'the form of this exchange, as for the peers'] as const,
                ]),
            ...forms,
          ]}
          onChange={setDraft}
        />
        {draft !== KEEP && <Begun view={view} work="draft" kept="stay with the form that they were marked by" />}
        <Select
          label="For reviewing"
          value={reviewing}
          options={[
            [KEEP, asItIs(view.reviewingForm)],
            [NONE, 'the ready one: places, what to do, fairness'],
            ...forms,
          ]}
          onChange={setReviewing}
        />
        <div>
          <Checkbox
            label="Fill it in for each review; the mean counts"
            checked={each}
            onChange={({ target }) => setEach(target.checked)}
          />
        </div>
        {changesReviewing && (
          <Begun view={view} work="reviewing" kept="have marks that are kept, but count only once it is as now again" />
        )}
        {error !== undefined && <ProblemNotice error={error} />}
        <Button
          look="primary"
          busy={isLoading}
          disabled={draft === KEEP && !changesReviewing}
          onClick={() => void go()}
        >
          Keep
        </Button>
      </div>
    </Dialog>
  );
}

interface BegunProps {
  readonly view: GradesView;
  readonly work: GradingWork;
  /** What becomes of what is marked already. */
  readonly kept: string;
}

function Begun({ view, work, kept }: BegunProps) {
  const marked = view.rows.filter((row) => row.work[work].state === 'done' || row.work[work].state === 'half').length;
  if (marked === 0) return null;
  const people = work === 'draft' ? counted(marked, '1 draft', '# drafts') : counted(marked, '1 person', '# people');
  return (
    <p className="text-copper">
      Marked so far: {people}, which {kept}.
    </p>
  );
}

function asItIs(items: readonly FormItem[]): string {
  return `as it is: ${items.map(({ title }) => title).join(', ')}`;
}

function idOf(chosen: string): string | null {
  return chosen === NONE ? null : chosen;
}
