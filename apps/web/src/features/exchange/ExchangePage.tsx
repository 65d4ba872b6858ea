import { exactly } from '@salt-circle/core';
import { Outlet, useLocation, useParams } from 'react-router';
import { Loading, Ruler } from '../../kit/index.js';
import { useExchangeQuery } from '../../app/api.js';
import { Page } from '../../app/frame/Page.js';
import { usePolling } from '../../app/changes/useChanges.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useAt } from '../../app/time/useAt.js';
import { useNow } from '../../app/time/useNow.js';
import { rulerSegments } from './segments.js';
import { say } from '../../words/exchange.js';

/** An exchange opens under its timeline; the workspace of the chosen stage is below. */
export function ExchangePage() {
  const { exchangeId = '' } = useParams();
  const { pathname } = useLocation();
  const now = useNow();
  const {
    data: exchange,
    error,
    refetch,
  } = useExchangeQuery(exchangeId, {
    refetchOnMountOrArgChange: true,
    pollingInterval: usePolling(30_000),
  });
  useAt(exchange?.next?.at ?? null, now, refetch);
  if (exchange === undefined) {
    return (
      <Page title={say('exchange')}>
        {error === undefined ? <Loading what={say('exchangeWord')} /> : <ProblemNotice error={error} />}
      </Page>
    );
  }
  const { course } = exchange;
  return (
    <Page crumbs={[{ words: course.title, to: `/courses/${course.id}` }]} title={exchange.title}>
      <Ruler
        segments={rulerSegments(exchange, pathname, now)}
        now={now}
        nowWords={exactly(now, course.timeZone, now)}
      />
      <Outlet key={exchange.id} context={exchange} />
    </Page>
  );
}
