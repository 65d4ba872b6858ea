import type { InsightsView } from '@salt-circle/contracts';
import { counted, explanationWords, listed, RELIABLE, SCALE_PARTS } from '@salt-circle/core';
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

const { useInsightsQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    insights: build.query<InsightsView, string>({
      query: (id) => `/exchanges/${id}/insights`,
      providesTags: ['Grades', 'Progress'],
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
  if (data === undefined) return <Loading what="the insights" />;
  return (
    <div className="space-y-8 px-5 py-5">
      <h2 className="text-xl font-semibold">Insights</h2>
      {data.days.length === 0 ? (
        <Empty title="No review has been submitted yet.">
          <p>Once there are some, this page says where drafts are strong and weak, and who reads them how.</p>
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
      <Against question="Do peers give what the staff gives?" whose="the staff" drafts={view.drafts} other={byStaff} />
      <Against
        question="Do authors see their drafts as their peers do?"
        whose="the authors themselves"
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
      title: `${items[item]?.title ?? ''}: ${part * 20} to ${(part + 1) * 20}%`,
      reviews: reviews.filter(({ levels }) => inPart(levels[item])),
    });
  };
  return (
    <Figure
      onPick={pick}
      question="Where are drafts strong and weak, and what is read differently?"
      words={
        apart.length === 0
          ? 'Answers by where on their scale they are, from the lowest fifth to the highest. Press a field for the reviews behind it.'
          : `Answers by where on their scale they are. Different people read ${listed(apart)} differently (alpha below ${ALIKE}): look at the words of the levels. Alpha is low, too, where all drafts are alike. Press a field for the reviews behind it.`
      }
      height={60 + items.length * 44}
      option={option}
      head={[
        'item',
        ...Array.from({ length: SCALE_PARTS }, (_, part) => `${part * 20} to ${(part + 1) * 20}%`),
        'mean, percent',
        'alpha',
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
        { at: 'adjusted', other: 'plain mean' },
      ),
    [rows],
  );
  const few = view.drafts.length < FEW ? ` With fewer than ${FEW} drafts, do not rely on it.` : '';
  return (
    <Figure
      question="What are the drafts worth, and how sure is that?"
      words={`A full point is the score with the severity of reviewers taken out, a ring the plain mean. The bar holds the worth of the draft 95 times in 100: what overlaps is no difference. ${reliabilityWords(view)}${view.problem ?? ''}${few}`}
      height={heightOf(rows.length)}
      option={option}
      onPick={(index) => void navigate(`/exchanges/${exchange.id}/check/${rows[index]?.id ?? ''}`)}
      head={[
        'draft by',
        'adjusted, percent',
        'from',
        'to',
        'plain mean',
        'reviews',
        'reviewers who give less',
        'who give more',
        'reviews for half the interval',
        'own review of staff',
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

/** How far scores tell drafts apart, and what it would take. */
function reliabilityWords({ reliability }: InsightsView): string {
  if (reliability === null) return '';
  const { single, reviews, together, needed } = reliability;
  const more =
    needed === null
      ? ''
      : needed <= reviews
        ? ` By common practice that is enough to tell drafts apart (${RELIABLE}).`
        : ` For ${RELIABLE}, which is common practice, it would take ${Math.ceil(needed)} a draft.`;
  return `One review alone is ${single.toFixed(2)} reliable, of 1; ${Number(reviews.toFixed(1))} together are ${together.toFixed(2)} (Spearman and Brown).${more} `;
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
        { at: 'severity', other: '' },
      ),
    [rows],
  );
  const exchange = useExchange();
  const navigate = useNavigate();
  const sure = rows.filter(({ low, high }) => low > 0 || high < 0).length;
  return (
    <Figure
      question="Who gives less, and who more, than others do for the same drafts?"
      words={`In percentage points less than others; below 0 is more. ${sure === 0 ? 'Nobody differs for sure.' : counted(sure, 'One differs for sure: the bar leaves 0 out.', '# differ for sure: their bars leave 0 out.')}`}
      height={heightOf(rows.length)}
      option={option}
      onPick={(index) => void navigate(`/exchanges/${exchange.id}/grades/${rows[index]?.id ?? ''}`)}
      head={['reviewer', 'severity, percentage points', 'from', 'to', 'reviews']}
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
      question="When were reviews submitted?"
      words="By day of the course’s calendar."
      height={220}
      option={option}
      onPick={(index) => {
        const day = days[index]?.day ?? '';
        onBehind({ title: day, reviews: reviews.filter((review) => review.day === day) });
      }}
      head={['day', 'reviews']}
      rows={days.map(({ day, reviews }) => [day, reviews])}
    />
  );
}
