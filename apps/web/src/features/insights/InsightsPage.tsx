import type { InsightsView } from '@salt-circle/contracts';
import { explanationWords, listed, RELIABLE, SCALE_PARTS } from '@salt-circle/core';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { api } from '../../app/api.js';
import { labelWords } from '../../app/People.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useExchange } from '../../app/useExchange.js';
import { Empty, Loading } from '../../kit/index.js';
import { Figure } from './Figure.js';
import { Against } from './Against.js';
import { AlongDrafts, ByGroup, Uptake, WordsAndTime } from './MorePictures.js';
import { dayBars, heatMap, heightOf, intervals } from './options.js';
import { percent } from './percent.js';
import { ReviewsBehind, type Behind } from './ReviewsBehind.js';
import { say } from '../../words/insights.js';
import { changedHere } from '../../app/changes/freshness.js';

const { useInsightsQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    insights: build.query<InsightsView, string>({
      query: (id) => `/exchanges/${id}/insights`,
      providesTags: changedHere(['Grades', 'Progress'], 'grades', 'reviews', 'drafts'),
    }),
  }),
});

/** Fewer drafts than this say little of severity. Ours; common practice has no bound. */
const FEW = 10;
/** Below this, people read an item differently. Common practice: 0.67 for tentative conclusions (Krippendorff). */
const ALIKE = 0.67;

/** What the reviews of an exchange say together, a question each. */
export function InsightsPage() {
  const exchange = useExchange();
  const [provisional, setProvisional] = useState(false);
  const { data, error } = useInsightsQuery(exchange.id, {
    refetchOnMountOrArgChange: true,
    pollingInterval: provisional ? 20_000 : 0,
  });
  if (data !== undefined && data.provisional !== provisional) setProvisional(data.provisional);
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what={say('insights')} />;
  return (
    <div className="space-y-8 px-5 py-5">
      <h2 className="text-xl font-semibold">{say('insightsLabel')}</h2>
      {data.days.length === 0 ? (
        <Empty title={say('noReviewHasBeenSubmittedYet')}>
          <p>{say('onceThereAreSomeThis')}</p>
        </Empty>
      ) : (
        <Pictures view={data} />
      )}
    </div>
  );
}

type Draft = InsightsView['drafts'][number];
const byStaff = ({ staff }: Draft) => staff;
const byThemselves = ({ self }: Draft) => self;

function Pictures({ view }: { readonly view: InsightsView }) {
  const [behind, setBehind] = useState<Behind | null>(null);
  return (
    <>
      {view.items.length > 0 && <Items view={view} onBehind={setBehind} />}
      {view.provisional && (
        <p role="status" className="text-copper">
          {view.problem}
        </p>
      )}
      <ByGroup view={view} />
      {view.drafts.length > 0 && <Drafts view={view} />}
      <Against question={say('doPeersGiveWhatStaff')} whose={say('staff')} drafts={view.drafts} other={byStaff} />
      <Against
        question={say('doAuthorsSeeTheirDrafts')}
        whose={say('authorsThemselves')}
        drafts={view.drafts}
        other={byThemselves}
      />
      {view.reviewers.length > 0 && <Severity view={view} />}
      <AlongDrafts view={view} onBehind={setBehind} />
      {view.reviews.length > 0 && <WordsAndTime view={view} />}
      <Uptake view={view} />
      <Days view={view} onBehind={setBehind} />
      <ReviewsBehind behind={behind} onClose={() => setBehind(null)} />
    </>
  );
}

interface WithBehind {
  readonly view: InsightsView;
  /** Shows the reviews behind what was pressed. */
  readonly onBehind: (behind: Behind) => void;
}

function readApart(items: InsightsView['items']): string[] {
  return items.filter(({ alpha }) => alpha !== null && alpha < ALIKE).map(({ title }) => `“${title}”`);
}

function Items({ view: { items, reviews }, onBehind }: WithBehind) {
  const option = useMemo(() => heatMap(items), [items]);
  const apart = readApart(items);
  const pick = (index: number) => {
    const [item, part] = [Math.floor(index / SCALE_PARTS), index % SCALE_PARTS];
    const inPart = (share: number | null | undefined) =>
      share != null && Math.min(SCALE_PARTS - 1, Math.floor(share * SCALE_PARTS)) === part;
    onBehind({
      title: say('to', { title: items[item]?.title ?? '', part: part * 20, part2: (part + 1) * 20 }),
      reviews: reviews.filter(({ levels }) => inPart(levels[item])),
    });
  };
  return (
    <Figure
      onPick={pick}
      question={say('whereAreDraftsStrongAnd')}
      words={
        apart.length === 0
          ? say('answersByWhereOnTheir')
          : say('answersByWhereOnTheirScale', { apart: listed(apart), alike: ALIKE })
      }
      height={60 + items.length * 44}
      option={option}
      head={[
        say('item'),
        ...Array.from({ length: SCALE_PARTS }, (_, part) => say('toOf', { part: part * 20, part2: (part + 1) * 20 })),
        say('meanPercent'),
        say('alpha'),
      ]}
      rows={items.map(({ title, counts, mean, alpha }) => [
        title,
        ...counts,
        mean === null ? '' : percent(mean),
        alpha === null ? '' : Number(alpha.toFixed(2)),
      ])}
    />
  );
}

function Drafts({ view }: { readonly view: InsightsView }) {
  const exchange = useExchange();
  const navigate = useNavigate();
  const rows = useMemo(() => view.drafts.toSorted((a, b) => a.adjusted - b.adjusted), [view.drafts]);
  const option = useMemo(
    () =>
      intervals(
        rows.map((row) => ({
          ...{ name: labelWords(row.author), at: percent(row.adjusted), other: percent(row.mean), words: company(row) },
          ...{ low: percent(row.low), high: percent(row.high) },
        })),
        { at: say('adjusted'), other: say('plainMean') },
      ),
    [rows],
  );
  const few = view.drafts.length < FEW ? [say('withFewerThanDraftsDo', { few: FEW })] : [];
  return (
    <Figure
      question={say('whatAreDraftsWorthAnd')}
      words={[
        say('fullPointIsScoreWith'),
        ...reliabilityWords(view),
        ...(view.problem === null ? [] : [view.problem]),
        ...few,
      ].join(' ')}
      height={heightOf(rows.length)}
      option={option}
      onPick={(index) => void navigate(`/exchanges/${exchange.id}/check/${rows[index]?.id ?? ''}`)}
      head={[
        say('draftBy'),
        say('adjustedPercent'),
        say('from'),
        say('toWord'),
        say('plainMean'),
        say('reviews'),
        say('reviewersWhoGiveLess'),
        say('whoGiveMore'),
        say('reviewsForHalfInterval'),
        say('ownReviewOfStaff'),
      ]}
      rows={rows.map(({ author, adjusted, low, high, mean, reviews, less, more, forHalf, staff }) => [
        labelWords(author),
        ...[percent(adjusted), percent(low), percent(high), percent(mean), reviews, less, more, forHalf ?? ''],
        staff === null ? '' : percent(staff),
      ])}
    />
  );
}

/** How the score of a draft came about. */
function company({ reviews: reviewers, less, more, forHalf }: Draft): string {
  return explanationWords({ reviewers, less, more, forHalf });
}

/** How far scores tell drafts apart, and what it would take, in sentences. */
function reliabilityWords({ reliability }: InsightsView): string[] {
  if (reliability === null) return [];
  const { single, reviews, together, needed } = reliability;
  const found = say('oneReviewAloneIsReliable', {
    single: single.toFixed(2),
    reviews: Number(reviews.toFixed(1)),
    together: together.toFixed(2),
  });
  if (needed === null) return [found];
  return [
    found,
    needed <= reviews
      ? say('byCommonPracticeThatIs', { reliable: RELIABLE })
      : say('forWhichIsCommonPractice', { reliable: RELIABLE, needed: Math.ceil(needed) }),
  ];
}

function Severity({ view }: { readonly view: InsightsView }) {
  const rows = useMemo(() => view.reviewers.toSorted((a, b) => a.severity - b.severity), [view.reviewers]);
  const option = useMemo(
    () =>
      intervals(
        rows.map(({ person, severity, low, high }) => ({
          ...{ name: labelWords(person), at: percent(severity), other: null, words: '' },
          ...{ low: percent(low), high: percent(high) },
        })),
        { at: say('severityWord'), other: '' },
      ),
    [rows],
  );
  const exchange = useExchange();
  const navigate = useNavigate();
  const sure = rows.filter(({ low, high }) => low > 0 || high < 0).length;
  return (
    <Figure
      question={say('whoGivesLessAndWho')}
      words={sure === 0 ? say('inPercentagePointsLessThan') : say('inPercentagePointsLessThanOthers', { sure })}
      height={heightOf(rows.length)}
      option={option}
      onPick={(index) => void navigate(`/exchanges/${exchange.id}/grades/${rows[index]?.id ?? ''}`)}
      head={[say('reviewer'), say('severityPercentagePoints'), say('from'), say('toWord'), say('reviews')]}
      rows={rows.map(({ person, severity, low, high, reviews }) => [
        labelWords(person),
        ...[percent(severity), percent(low), percent(high), reviews],
      ])}
    />
  );
}

function Days({ view: { days, reviews }, onBehind }: WithBehind) {
  const option = useMemo(() => dayBars(days), [days]);
  return (
    <Figure
      question={say('whenWereReviewsSubmitted')}
      words={say('byDayOfCoursesCalendar')}
      height={220}
      option={option}
      onPick={(index) => {
        const day = days[index]?.day ?? '';
        onBehind({ title: day, reviews: reviews.filter((review) => review.day === day) });
      }}
      head={[say('day'), say('reviews')]}
      rows={days.map(({ day, reviews }) => [day, reviews])}
    />
  );
}
