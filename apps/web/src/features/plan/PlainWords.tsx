import type { FieldProblem, PlanView } from '@salt-circle/contracts';
import { resolveDates } from '@salt-circle/core';
import { useState } from 'react';
import { Button, Dialog, Notice } from '../../kit/index.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { saveQueue } from '../../app/store.js';
import { toDates } from '../../app/time/dates.js';
import { useNow } from '../../app/time/useNow.js';
import { exactly } from '../../app/time/words.js';
import { usePublishMutation } from './planApi.js';
import type { Settings } from './settings.js';
import { useExchange } from '../../app/useExchange.js';

export interface PlainWordsProps {
  readonly settings: Settings;
  readonly plan: PlanView;
  readonly timeZone: string;
  readonly canPublish: boolean;
  readonly saveKey: string;
  /** What keeps the settings on the page from being saved. */
  readonly unsaved: readonly FieldProblem[];
}

/** The exchange, sentence by sentence, and what is missing before it can be published. */
export function PlainWords({ settings, plan, timeZone, canPublish, saveKey, unsaved }: PlainWordsProps) {
  const now = useNow();
  return (
    <aside className="border-l border-line bg-crust px-5 py-5">
      <h2 className="mb-2 font-semibold">In plain words</h2>
      <div className="space-y-2">
        {sentences(settings, plan.students, timeZone, now).map((sentence) => (
          <p key={sentence}>{sentence}</p>
        ))}
      </div>
      {!plan.published && <BeforePublishing plan={plan} canPublish={canPublish} saveKey={saveKey} unsaved={unsaved} />}
      {plan.published && (
        <div className="mt-5">
          <Notice tone="done" title="Published.">
            Students see it in Today. Dates can still be moved.
          </Notice>
        </div>
      )}
    </aside>
  );
}

function sentences(settings: Settings, students: number, timeZone: string, now: number): string[] {
  const dates = resolveDates(toDates(settings.dates));
  const count = students === 1 ? 'One student hands' : `${students} students hand`;
  const each = settings.reviewsPerStudent;
  const names =
    settings.names === 'open'
      ? 'Authors and reviewers see each other’s names.'
      : 'Nobody sees a name but you and your assistants: authors and reviewers know each other by an alias that stays the same.';
  if (dates === null) {
    return [
      `${count} in a typed draft; when, is not settled yet.`,
      `Each then reviews ${each} ${each === 1 ? 'draft' : 'drafts'} by others.`,
      names,
    ];
  }
  const at = (time: number) => exactly(time, timeZone, now);
  return [
    `${count} in a typed draft by ${at(dates.draftsDue)}. Writing opens ${at(dates.draftsOpen)}.`,
    `From ${at(dates.reviewsOpen)} to ${at(dates.reviewsDue)}, each who handed in reviews ${each} ${each === 1 ? 'draft' : 'drafts'} by others, and gets about as many reviews.`,
    names,
    dates.release === dates.reviewsDue
      ? `Authors read their feedback as soon as reviews are due, ${at(dates.release)}.`
      : `You can check the reviews until ${at(dates.release)}; then authors read their feedback.`,
  ];
}

function BeforePublishing({ plan, canPublish, saveKey, unsaved }: Omit<PlainWordsProps, 'settings' | 'timeZone'>) {
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
        description={`${plan.students} students will see it in Today. Names policy stays as it is from then on; dates can still be moved, and the form can change until the first draft is handed in.`}
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
