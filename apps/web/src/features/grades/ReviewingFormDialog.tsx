import type { GradesView } from '@salt-circle/contracts';
import { counted } from '@salt-circle/core';
import { useState } from 'react';
import { useLibraryQuery } from '../../app/libraryApi.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, Checkbox, Dialog, Loading, Select } from '../../kit/index.js';
import { useChooseReviewingFormMutation } from './gradesApi.js';

/** What is not a form of the library. */
const KEEP = 'keep';
const READY = 'ready';

/** By what form reviewing is marked: the ready one, or one of the library. */
export function ReviewingFormDialog({ view, onClose }: { readonly view: GradesView; readonly onClose: () => void }) {
  const exchange = useExchange();
  const { data } = useLibraryQuery(exchange.course.id);
  const [form, setForm] = useState(KEEP);
  const [each, setEach] = useState(view.reviewingEach);
  const [choose, { isLoading, error }] = useChooseReviewingFormMutation();
  if (data === undefined) return <Loading what="the library" />;
  const forms = data.entries.filter(({ kind }) => kind === 'form');
  const marked = view.rows.filter(
    ({ work }) => work.reviewing.state === 'done' || work.reviewing.state === 'half',
  ).length;
  const changes = form !== KEEP || each !== view.reviewingEach;
  const go = async () => {
    const formId = form === KEEP ? {} : { formId: form === READY ? null : form };
    const done = await choose({ exchangeId: exchange.id, each, ...formId });
    if (done.error === undefined) onClose();
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title="Form for marking the reviewing"
      description="It is taken over as it is now; what is changed in the library later changes nothing here."
    >
      <div className="space-y-4">
        <Select
          label="Form"
          value={form}
          options={[
            [KEEP, `as it is: ${view.reviewingForm.map(({ title }) => title).join(', ')}`],
            [READY, 'the ready one: places, what to do, fairness'],
            ...forms.map(({ id, title }) => [id, title] as const),
          ]}
          onChange={setForm}
        />
        <div>
          <Checkbox
            label="Fill it in for each review; the mean counts"
            checked={each}
            onChange={({ target }) => setEach(target.checked)}
          />
        </div>
        {changes && marked > 0 && (
          <p className="text-copper">
            {counted(marked, '1 person has marks', '# people have marks')} by the form as it is. They are kept, but
            count only once it is like this again.
          </p>
        )}
        {error !== undefined && <ProblemNotice error={error} />}
        <Button look="primary" busy={isLoading} disabled={!changes} onClick={() => void go()}>
          Keep
        </Button>
      </div>
    </Dialog>
  );
}
