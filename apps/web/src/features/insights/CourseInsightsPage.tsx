import type { CourseInsightsView } from '@salt-circle/contracts';
import { peerScore } from '@salt-circle/core';
import { useMemo, useState } from 'react';
import { api } from '../../app/api.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useCourse } from '../../app/useCourse.js';
import { buttonClass, Empty, Loading, Select } from '../../kit/index.js';
import { Figure } from './Figure.js';
import { lines } from './options.js';
import { percent, percentCell } from './percent.js';
import { say } from '../../words/insights.js';
import { changedHere } from '../../app/changes/freshness.js';

const { useCourseInsightsQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    courseInsights: build.query<CourseInsightsView, string>({
      query: (id) => `/courses/${id}/insights`,
      providesTags: changedHere(['Grades'], 'grades', 'reviews', 'drafts'),
    }),
  }),
});

/** How people, and items of the same name, come along from exchange to exchange. */
export function CourseInsightsPage() {
  const course = useCourse();
  const { data, error } = useCourseInsightsQuery(course.id, { refetchOnMountOrArgChange: true });
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what={say('insights')} />;
  const reviewed = data.exchanges.filter(({ reviews }) => reviews > 0);
  return (
    <div className="space-y-8 px-5 py-5">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <h2 className="text-xl font-semibold">{say('fromExchangeToExchange')}</h2>
        {course.role === 'instructor' && (
          <a className={buttonClass('plain')} href={`/api/courses/${course.id}/results.zip`} download>
            {say('allResultsAsTablesZip')}
          </a>
        )}
      </div>
      {reviewed.length === 0 ? (
        <Empty title={say('noReviewHasBeenSubmitted')}>
          <p>{say('onceExchangesHaveSomeThis')}</p>
        </Empty>
      ) : (
        <>
          <Growth view={data} />
          <ItemsOverTime view={data} />
        </>
      )}
    </div>
  );
}

const ALL = '';

function Growth({ view: { exchanges, people } }: { readonly view: CourseInsightsView }) {
  const [chosen, setChosen] = useState(ALL);
  const titles = exchanges.map(({ title }) => title);
  const means = useMemo(
    () =>
      exchanges.map((_, at) =>
        peerScore(
          people.flatMap(({ scores }) => scores[at] ?? []),
          'mean',
        ),
      ),
    [exchanges, people],
  );
  const one = people.find(({ id }) => id === chosen);
  const option = useMemo(() => {
    const inPercent = (scores: ReadonlyArray<number | null>) =>
      scores.map((score) => (score === null ? null : percent(score)));
    return lines(
      exchanges.map(({ title }) => title),
      [
        ...(one === undefined ? [] : [{ name: one.name, values: inPercent(one.scores) }]),
        { name: say('allOnAverage'), values: inPercent(means) },
      ],
    );
  }, [exchanges, one, means]);
  return (
    <Figure
      question={say('howDoesSomebodyComeAlong')}
      words={say('scoresOfPeersForDrafts')}
      height={300}
      option={option}
      choice={
        <Select
          label={say('student')}
          value={chosen}
          options={[[ALL, say('allOnAverage')], ...people.map(({ id, name }) => [id, name] as const)]}
          onChange={setChosen}
        />
      }
      head={[say('studentWord'), ...titles, say('reviewsSubmittedOfThoseGiven')]}
      rows={[
        [say('allOnAverage'), ...means.map(percentCell), ''],
        ...people.map(({ name, scores, given }) => {
          const all = given.flatMap((part) => part ?? []);
          const sum = (key: 'submitted' | 'of') => all.reduce((total, part) => total + part[key], 0);
          return [
            name,
            ...scores.map(percentCell),
            all.length === 0 ? '' : say('of', { sum: sum('submitted'), sum2: sum('of') }),
          ];
        }),
      ]}
    />
  );
}

/** Lines that can still be told apart. */
const MOST = 8;

function ItemsOverTime({ view: { exchanges } }: { readonly view: CourseInsightsView }) {
  const rows = useMemo(() => {
    const titles = [...new Set(exchanges.flatMap(({ items }) => items.map(({ title }) => title)))];
    return titles
      .map((title) => ({
        title,
        means: exchanges.map(({ items }) => items.find((item) => item.title === title)?.mean ?? null),
      }))
      .sort((a, b) => b.means.filter((mean) => mean !== null).length - a.means.filter((mean) => mean !== null).length);
  }, [exchanges]);
  const option = useMemo(
    () =>
      lines(
        exchanges.map(({ title }) => title),
        rows.slice(0, MOST).map(({ title, means }) => ({
          name: title,
          values: means.map((mean) => (mean === null ? null : percent(mean))),
        })),
      ),
    [exchanges, rows],
  );
  if (rows.length === 0) return null;
  const what = say('whatDraftsReachOfScale');
  return (
    <Figure
      question={say('howDoItemsComeAlong')}
      words={rows.length > MOST ? `${what} ${say('inMostExchangesAreDrawn', { most: MOST })}` : what}
      height={340}
      option={option}
      head={[say('item'), ...exchanges.map(({ title }) => title)]}
      rows={rows.map(({ title, means }) => [title, ...means.map(percentCell)])}
    />
  );
}
