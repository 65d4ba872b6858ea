import type { FieldProblem, FormView, PlanView } from '@salt-circle/contracts';
import { useState } from 'react';
import { Button, Dialog, Notice } from '../../kit/index.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { saveQueue } from '../../app/store.js';
import { toDates } from '../../app/time/dates.js';
import { useNow } from '../../app/time/useNow.js';
import { useNarrow } from '../../app/useNarrow.js';
import { usePublishMutation } from './planApi.js';
import { planSummary, exactly } from '@salt-circle/core';
import type { Settings } from './settings.js';
import { useExchange } from '../../app/useExchange.js';
import { say } from '../../words/plan.js';

/** Pixels from which there is room beside the settings. */
const LARGE = 1024;

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
  const narrow = useNarrow(LARGE);
  const { kind, at } = plan.allocation;
  const account = planSummary(
    { ...settings, dates: toDates(settings.dates) },
    {
      students: plan.students,
      choices: plan.choices,
      form,
      allocation: { kind, at: at === null ? null : Date.parse(at) },
      inWords: (time) => exactly(time, course.timeZone, now),
    },
  );
  const open = plan.published ? 0 : unsaved.length + plan.missing.length;
  const inside = (
    <>
      <div className="space-y-2">
        {account.map((sentence) => (
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
          <Notice tone="done" title={say('published')}>
            {say('studentsSeeItInToday')}
          </Notice>
        </div>
      )}
    </>
  );
  // It stays in view while one edits: beside, or in a line at the bottom that opens.
  if (!narrow) {
    return (
      <aside className="border-l border-line bg-crust">
        <div className="sticky top-0 max-h-dvh overflow-y-auto px-5 py-5">
          <h2 className="mb-2 font-semibold">{say('inPlainWords')}</h2>
          {inside}
        </div>
      </aside>
    );
  }
  return (
    <aside className="sticky bottom-0 border-t border-edge bg-crust">
      <details>
        <summary className="cursor-pointer px-5 py-2.5">
          <h2 className="inline font-semibold">{say('inPlainWords')}</h2>
          <span className="ml-2 text-sm text-ink-soft">
            {open === 0
              ? say('sentences', { account: account.length })
              : say('thingsAreMissing', {
                  sentences: account.length,
                  open,
                  missing: (words) => <span className="text-copper">{words}</span>,
                })}
          </span>
        </summary>
        <div className="max-h-[60dvh] overflow-y-auto px-5 pb-4">{inside}</div>
      </details>
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
      <h2 className="mb-2 font-semibold">{say('beforeYouPublish')}</h2>
      {open.length === 0 ? (
        <p className="text-kelp">{say('nothingIsMissing')}</p>
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
          {say('publish')}
        </Button>
      </div>
      <Dialog
        open={asking}
        onClose={() => setAsking(false)}
        title={say('publishOf', { title: plan.title })}
        description={say('studentsWillSeeItIn', { students: plan.students })}
      >
        <div className="space-y-3">
          {error !== undefined && <ProblemNotice error={error} />}
          <Button look="primary" busy={isLoading} onClick={() => void go()}>
            {say('publishToStudents', { students: plan.students })}
          </Button>
        </div>
      </Dialog>
    </section>
  );
}
