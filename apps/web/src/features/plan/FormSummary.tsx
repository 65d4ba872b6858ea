import { formMaximum } from '@salt-circle/core';
import { Link } from 'react-router';
import { buttonClass } from '../../kit/index.js';
import { usePlanFormQuery } from './planApi.js';

/** The review form in one line, with the way to the builder. */
export function FormSummary({ exchangeId, readOnly }: { readonly exchangeId: string; readonly readOnly: boolean }) {
  const { data: form } = usePlanFormQuery(exchangeId, { refetchOnMountOrArgChange: true });
  const points = form === undefined ? null : formMaximum(form);
  const words =
    form === undefined
      ? '…'
      : form.items.length === 0
        ? 'No items yet: reviewers would have nothing to fill in'
        : `${form.items.length === 1 ? '1 item' : `${form.items.length} items`}, ${points === null ? 'no points' : `${points} points`}${form.frozen ? '; frozen since the first hand-in' : ''}`;
  return (
    <section className="grid grid-cols-[1fr_auto] items-center gap-x-4 border-b border-line py-3 sm:grid-cols-[10rem_1fr_auto]">
      <h3 className="font-semibold">Review form</h3>
      <p className={form?.items.length === 0 ? 'text-copper' : 'text-ink-soft'}>{words}</p>
      <Link to="form" className={buttonClass('plain', true)}>
        {form?.frozen === true || readOnly ? 'Look at it' : 'Build it'}
      </Link>
    </section>
  );
}
