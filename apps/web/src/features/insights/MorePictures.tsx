import type { InsightsView } from '@salt-circle/contracts';
import { DRAFT_PARTS, peerScore, spearman } from '@salt-circle/core';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { labelWords } from '../../app/People.js';
import { kindWord } from '../../app/reading/noteKinds.js';
import { useExchange } from '../../app/useExchange.js';
import { Select } from '../../kit/index.js';
import { Figure } from './Figure.js';
import { groupMap, layers, scatter } from './options.js';
import { percent, percentCell } from './percent.js';
import type { Behind } from './ReviewsBehind.js';
import { say } from '../../words/insights.js';

interface Of {
  readonly view: InsightsView;
}

/** Items by section, or by the groups of a set. */
export function ByGroup({ view: { items, groupings, drafts } }: Of) {
  const [chosen, setChosen] = useState(0);
  const grouping = groupings[chosen];
  const made = useMemo(() => {
    if (grouping === undefined) return null;
    const names = [...new Set(Object.values(grouping.of))].sort((a, b) =>
      a.localeCompare(b, undefined, { numeric: true }),
    );
    const means = items.map((_, item) =>
      names.map((name) =>
        peerScore(
          drafts.filter(({ id }) => grouping.of[id] === name).flatMap((draft) => draft.items[item] ?? []),
          'mean',
        ),
      ),
    );
    const inPercent = means.map((row) => row.map((mean) => (mean === null ? null : percent(mean))));
    return {
      names,
      means,
      option: groupMap(
        items.map(({ title }) => title),
        names,
        inPercent,
      ),
    };
  }, [grouping, items, drafts]);
  if (grouping === undefined || made === null || items.length === 0) return null;
  const counts = made.names.map((name) => drafts.filter(({ id }) => grouping.of[id] === name).length);
  const what = say('whatDraftsReachOfScaleOf');
  return (
    <Figure
      question={grouping.title === 'section' ? say('howDoDraftsOfEach') : say('howDoDraftsOfEachGroup')}
      words={Math.min(...counts) < 5 ? `${what} ${say('someHaveFewerThanFive')}` : what}
      height={60 + items.length * 44}
      option={made.option}
      choice={
        groupings.length > 1 ? (
          <Select
            label={say('by')}
            value={String(chosen)}
            options={groupings.map(({ title }, index) => [String(index), title] as const)}
            onChange={(next) => setChosen(Number(next))}
          />
        ) : undefined
      }
      head={[say('item'), ...made.names.map((name, index) => say('groupCounted', { name, count: counts[index] ?? 0 }))]}
      rows={items.map(({ title }, item) => [title, ...(made.means[item] ?? []).map(percentCell)])}
    />
  );
}

const PARTS = Array.from({ length: DRAFT_PARTS }, (_, part) => `${part * 10}–${(part + 1) * 10}%`);

/** Where notes stand from the beginning of a draft to its end. */
export function AlongDrafts({
  view: { notes, reviews },
  onBehind,
}: Of & { readonly onBehind: (behind: Behind) => void }) {
  const option = useMemo(
    () =>
      layers(
        PARTS,
        notes.map(({ kind, counts }) => ({
          ...{ name: kindWord(kind), values: counts },
          colour: ({ keep: 'kelp', change: 'copper', ask: 'dusk', fix: 'slate' } as const)[kind],
        })),
        false,
      ),
    [notes],
  );
  const placed = notes.reduce((all, { counts }) => all + counts.reduce((sum, one) => sum + one, 0), 0);
  const elsewhere = notes.reduce((all, one) => all + one.elsewhere, 0);
  if (placed === 0) return null;
  return (
    <Figure
      question={say('whereAlongDraftsDoNotes')}
      words={
        elsewhere > 0
          ? say('fromBeginningOfPartTo', { placed, elsewhere })
          : say('fromBeginningOfPartToIts', { placed })
      }
      height={280}
      option={option}
      onPick={(part, series) => {
        const kind = notes[series]?.kind;
        onBehind({
          title: say('notesOfWay', { kindWord: kind === undefined ? '' : kindWord(kind), parts: PARTS[part] ?? '' }),
          reviews: reviews.filter(({ along }) => along.some(([one, at]) => one === kind && at === part)),
        });
      }}
      head={[say('kind'), ...PARTS, say('elsewhere')]}
      rows={notes.map(({ kind, counts, elsewhere: other }) => [kindWord(kind), ...counts, other])}
    />
  );
}

/** How much is written, and how long that takes; by notes where time is not measured. */
export function WordsAndTime({ view: { reviews } }: Of) {
  const navigate = useNavigate();
  const timed = reviews.some(({ minutes }) => minutes !== null && minutes > 0);
  const y = timed ? say('minutesAtWork') : say('notes');
  const rows = useMemo(() => reviews.toSorted((a, b) => a.words - b.words), [reviews]);
  const option = useMemo(
    () =>
      scatter(
        rows.map(({ person, author, words, notes, minutes }) => ({
          name: say('on', { labelWords: labelWords(person), labelWords2: labelWords(author) }),
          x: words,
          y: timed ? Math.round((minutes ?? 0) * 10) / 10 : notes,
          words: timed ? say('notesCounted', { notes }) : '',
        })),
        { x: say('wordsHead'), y },
        false,
      ),
    [rows, timed, y],
  );
  const middle = rows[rows.length >> 1]?.words ?? 0;
  const rank = spearman(rows.map(({ words, notes, minutes }) => [words, timed ? (minutes ?? 0) : notes]));
  return (
    <Figure
      question={timed ? say('howMuchIsWrittenAnd') : say('howMuchIsWrittenAndHow')}
      words={[
        say('pointForEachReviewHalf', { middle }),
        ...(rank === null
          ? []
          : [say(timed ? 'moreTime' : 'moreNotes', { how: howOften(rank), rank: rank.toFixed(2) })]),
      ].join(' ')}
      height={320}
      option={option}
      onPick={(index) => void navigate(`/reviews/${rows[index]?.id ?? ''}`)}
      head={[say('reviewer'), say('draftBy'), say('wordsHead'), say('notes'), ...(timed ? [say('minutes')] : [])]}
      rows={rows.map(({ person, author, words, notes, minutes }) => [
        ...[labelWords(person), labelWords(author), words, notes],
        ...(timed ? [Math.round((minutes ?? 0) * 10) / 10] : []),
      ])}
    />
  );
}

/** @param rank of Spearman; common practice, with no bound that everybody follows */
function howOften(rank: number): string {
  return rank >= 0.7 ? 'always' : rank >= 0.4 ? 'mostly' : rank >= 0.2 ? 'sometimes' : 'hardly';
}

const fatesOfRemarks = () =>
  [
    ['done', say('changed'), 'kelp'],
    ['toDo', say('willBeChanged'), 'dusk'],
    ['wont', say('willNotBe'), 'copper'],
    ['undecided', say('notDecided'), 'slate'],
  ] as const;

/** What authors make of remarks. */
export function Uptake({ view: { uptake } }: Of) {
  const exchange = useExchange();
  const navigate = useNavigate();
  const kinds = useMemo(
    () => uptake.map(({ kind }) => (kind === 'next' ? say('nextSteps') : kindWord(kind))),
    [uptake],
  );
  const option = useMemo(
    () =>
      layers(
        kinds,
        fatesOfRemarks().map(([fate, name, colour]) => ({ name, colour, values: uptake.map((one) => one[fate]) })),
        true,
      ),
    [kinds, uptake],
  );
  const remarks = uptake.reduce((sum, one) => sum + one.remarks, 0);
  if (remarks === 0) return null;
  const done = uptake.reduce((sum, one) => sum + one.done, 0);
  return (
    <Figure
      question={say('whatDoAuthorsMakeOf')}
      words={say('ofRemarksThatAskedFor', { remarks, done })}
      height={70 + uptake.length * 44}
      option={option}
      onPick={() => void navigate(`/exchanges/${exchange.id}/after`)}
      head={[say('kind'), say('remarks'), ...fatesOfRemarks().map(([, name]) => name)]}
      rows={uptake.map((one, index) => [
        kinds[index] ?? '',
        one.remarks,
        ...fatesOfRemarks().map(([fate]) => one[fate]),
      ])}
    />
  );
}
