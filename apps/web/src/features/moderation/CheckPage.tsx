import { useState } from 'react';
import { Button, Empty, Loading, type BoardSort } from '../../kit/index.js';
import { usePolling } from '../../app/changes/useChanges.js';
import { useQueueQuery } from '../../app/moderation/checkApi.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useExchange } from '../../app/useExchange.js';
import { BoundsDialog } from './BoundsDialog.js';
import { ReleasePanel } from './ReleasePanel.js';
import { QueueTable } from './QueueTable.js';
import { SHOWN, type Shown } from './shown.js';
import { say } from '../../words/moderation.js';

/** Look through what reviewers wrote, those with flags first; then release it to the authors. */
export function CheckPage() {
  const exchange = useExchange();
  const polling = { refetchOnMountOrArgChange: true, pollingInterval: usePolling(20_000) };
  const { data: queue, error } = useQueueQuery(exchange.id, polling);
  const [shown, setShown] = useState<Shown | 'all' | null>(null);
  const [sort, setSort] = useState<BoardSort>({ key: 'flags', down: false });
  const [setting, setSetting] = useState(false);
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (queue === undefined) return <Loading what={say('reviews')} />;
  const { rows } = queue;
  const count = (key: Shown) => rows.filter(SHOWN[key].holds).length;
  // As long as something is to be looked at, that is what the page begins with.
  const now = shown ?? (count('open') > 0 ? 'open' : 'all');
  const seen = now === 'all' ? rows : rows.filter(SHOWN[now].holds);
  return (
    <div className="grid flex-1 grid-cols-1 lg:grid-cols-[1fr_20rem]">
      <div className="min-w-0 px-5 py-5">
        <div className="mb-3 flex flex-wrap items-center justify-between gap-3">
          <h2 className="text-xl font-semibold">
            {say('submittedReviews', {
              span: <span className="text-base font-normal text-ink-soft">{rows.length}</span>,
            })}
          </h2>
          <div className="flex flex-wrap gap-2" role="group" aria-label={say('showOnly')}>
            {(Object.keys(SHOWN) as Shown[]).map((key) => (
              <Button
                key={key}
                aria-pressed={now === key}
                className="aria-pressed:border-iodine aria-pressed:bg-crust"
                onClick={() => setShown(now === key ? 'all' : key)}
              >
                {SHOWN[key].words()} {count(key)}
              </Button>
            ))}
            {exchange.course.role === 'instructor' && (
              <Button onClick={() => setSetting(true)}>{say('flaggingRulesOpen')}</Button>
            )}
          </div>
        </div>
        {rows.length === 0 ? (
          <Empty title={say('noReviewHasBeenSubmitted')}>
            <p>{say('onceReviewersSubmitYouCan')}</p>
          </Empty>
        ) : (
          <QueueTable rows={seen} sort={sort} onSort={setSort} />
        )}
        {rows.length > 0 && seen.length === 0 && (
          <p className="py-4 text-ink-soft">{say('noneOf', { rows: rows.length })}</p>
        )}
      </div>
      <ReleasePanel />
      {setting && <BoundsDialog bounds={queue.bounds} onClose={() => setSetting(false)} />}
    </div>
  );
}
