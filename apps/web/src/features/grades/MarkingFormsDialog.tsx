import type { GradesView } from '@salt-circle/contracts';
import { type FormItem, type GradingWork } from '@salt-circle/core';
import { useState } from 'react';
import { useLibraryQuery } from '../../app/libraryApi.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, Checkbox, Dialog, Loading, Select } from '../../kit/index.js';
import { useChooseMarkingFormsMutation } from './gradesApi.js';
import { say } from '../../words/grades.js';

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
  if (data === undefined) return <Loading what={say('library')} />;
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
    <Dialog open onClose={onClose} title={say('formsForMarkingLabel')} description={say('formIsTakenOverAs')}>
      <div className="space-y-4">
        <Select
          label={say('forDrafts')}
          value={draft}
          options={[
            ...(view.draftForm === null
              ? [[KEEP, say('formOfThisExchangeAs')] as const]
              : [[KEEP, asItIs(view.draftForm)] as const, [NONE, say('formOfThisExchangeAs')] as const]),
            ...forms,
          ]}
          onChange={setDraft}
        />
        {draft !== KEEP && <Begun view={view} work="draft" />}
        <Select
          label={say('forReviewing')}
          value={reviewing}
          options={[[KEEP, asItIs(view.reviewingForm)], [NONE, say('readyOnePlacesWhatTo')], ...forms]}
          onChange={setReviewing}
        />
        <div>
          <Checkbox label={say('fillItInForEach')} checked={each} onChange={({ target }) => setEach(target.checked)} />
        </div>
        {changesReviewing && <Begun view={view} work="reviewing" />}
        {error !== undefined && <ProblemNotice error={error} />}
        <Button
          look="primary"
          busy={isLoading}
          disabled={draft === KEEP && !changesReviewing}
          onClick={() => void go()}
        >
          {say('save')}
        </Button>
      </div>
    </Dialog>
  );
}

interface BegunProps {
  readonly view: GradesView;
  readonly work: GradingWork;
}

/** What becomes of what is marked already. */
function Begun({ view, work }: BegunProps) {
  const marked = view.rows.filter((row) => row.work[work].state === 'done' || row.work[work].state === 'half').length;
  if (marked === 0) return null;
  return <p className="text-copper">{say(work === 'draft' ? 'markedSoFarWhich' : 'markedKept', { marked })}</p>;
}

function asItIs(items: readonly FormItem[]): string {
  return say('asItIs', { items: items.map(({ title }) => title).join(', ') });
}

function idOf(chosen: string): string | null {
  return chosen === NONE ? null : chosen;
}
