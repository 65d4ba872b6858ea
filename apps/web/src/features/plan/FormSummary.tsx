import type { FormView } from '@salt-circle/contracts';
import { Link } from 'react-router';
import { buttonClass } from '../../kit/index.js';
import { formWords } from '@salt-circle/core';
import { say } from '../../words/plan.js';

export interface FormSummaryProps {
  readonly form: FormView | undefined;
  readonly readOnly: boolean;
}

/** The review form in one line, with the way to the builder. */
export function FormSummary({ form, readOnly }: FormSummaryProps) {
  const missing = form !== undefined && form.problems.length > 0;
  const words =
    form === undefined ? '…' : form.frozen === null ? formWords(form) : say('formIsFrozen', { form: formWords(form) });
  return (
    <section className="grid grid-cols-[1fr_auto] items-center gap-x-4 border-b border-line py-3 sm:grid-cols-[10rem_1fr_auto]">
      <h3 className="font-semibold">{say('reviewForm')}</h3>
      <p className={missing ? 'text-copper' : 'text-ink-soft'}>{words}</p>
      <Link to="form" className={buttonClass('plain', true)}>
        {(form !== undefined && form.frozen !== null) || readOnly ? say('lookAtIt') : say('buildIt')}
      </Link>
    </section>
  );
}
