import type { FieldProblem, FormView, PlanView } from '@salt-circle/contracts';
import { useState } from 'react';
import { Button, Dialog, Notice } from '../../kit/index.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { saveQueue } from '../../app/store.js';
import { useNow } from '../../app/time/useNow.js';
import { usePublishMutation } from './planApi.js';
import { sentences } from './sentences.js';
import type { Settings } from './settings.js';
import { useExchange } from '../../app/useExchange.js';

export interface PlainWordsProps {
  readonly settings: Settings;
  readonly plan: PlanView;
  readonly form: FormView | null;
  readonly canPublish: boolean;
  readonly saveKey: string;
  /** What keeps the settings on the page from being saved. */
  readonly unsaved: readonly FieldProblem[];
}

/** The exchange, sentence by sentence, and what is missing before it can be published. */
export function PlainWords({ settings, plan, form, canPublish, saveKey, unsaved }: PlainWordsProps) {
  const now = useNow();
  const { course } = useExchange();
  const around = { students: plan.students, choices: plan.choices, form, timeZone: course.timeZone, now };
  return (
    <aside className="border-l border-line bg-crust px-5 py-5">
      <h2 className="mb-2 font-semibold">In plain words</h2>
      <div className="space-y-2">
        {sentences(settings, around).map((sentence) => (
          <p key={sentence}>{sentence}</p>
        ))}
      </div>
      {plan.remarks.length > 0 && (
        <ul className="mt-4 space-y-1.5 border-l-[3px] border-saffron pl-3 text-sm">
          {plan.remarks.map(({ path, sentence }) => (
            <li key={path}>{sentence}</li>
          ))}
        </ul>
      )}
      {!plan.published && <BeforePublishing plan={plan} canPublish={canPublish} saveKey={saveKey} unsaved={unsaved} />}
      {plan.published && (
        <div className="mt-5">
          <Notice tone="done" title="Published.">
            Students see it in Today. Dates can still be moved, with a notice.
          </Notice>
        </div>
      )}
    </aside>
  );
}

function BeforePublishing({ plan, canPublish, saveKey, unsaved }: Omit<PlainWordsProps, 'settings' | 'form'>) {
  const exchange = useExchange();
  const [publish, { isLoading, error }] = usePublishMutation();
  const [asking, setAsking] = useState(false);
  const open = [...unsaved, ...plan.missing];
  const go = async () => {
    if (!(await saveQueue.flush(saveKey))) return;
    const result = await publish(exchange.id);
    if (result.error === undefined) setAsking(false);
  };
  return (
    <section className="mt-5 border-t border-line pt-4">
      <h2 className="mb-2 font-semibold">Before you publish</h2>
      {open.length === 0 ? (
        <p className="text-kelp">Nothing is missing.</p>
      ) : (
        <ul className="space-y-1.5">
          {open.map((one) => (
            <li
              key={one.path + one.code}
              className={`text-sm ${unsaved.includes(one) ? 'text-madder' : 'text-copper'}`}
            >
              {one.sentence}
            </li>
          ))}
        </ul>
      )}
      <div className="mt-4">
        <Button look="primary" disabled={open.length > 0 || !canPublish} onClick={() => setAsking(true)}>
          Publish…
        </Button>
      </div>
      <Dialog
        open={asking}
        onClose={() => setAsking(false)}
        title={`Publish “${plan.title}”?`}
        description={`${plan.students} students will see it in Today, and are told by mail. Whether names are hidden, who takes part and how they hand in stay as they are from then on; dates can still be moved, and the form can change until the first draft is handed in.`}
      >
        <div className="space-y-3">
          {error !== undefined && <ProblemNotice error={error} />}
          <Button look="primary" busy={isLoading} onClick={() => void go()}>
            Publish to {plan.students} students
          </Button>
        </div>
      </Dialog>
    </section>
  );
}
