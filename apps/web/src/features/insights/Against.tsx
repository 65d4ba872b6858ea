import { blandAltman, spearman, type AgreementPair } from '@salt-circle/core';
import type { InsightsView } from '@salt-circle/contracts';
import { useMemo } from 'react';
import { useNavigate } from 'react-router';
import { labelWords } from '../../app/People.js';
import { useExchange } from '../../app/useExchange.js';
import { Figure } from './Figure.js';
import { scatter } from './options.js';
import { percent } from './percent.js';
import { say } from '../../words/insights.js';

interface AgainstProps {
  readonly question: string;
  /** Who else scored: "the staff". */
  readonly whose: string;
  readonly drafts: InsightsView['drafts'];
  readonly other: (draft: InsightsView['drafts'][number]) => number | null;
}

/** Scores of peers against what somebody else gives the same drafts; nothing where nobody did. */
export function Against({ question, whose, drafts, other }: AgainstProps) {
  const exchange = useExchange();
  const navigate = useNavigate();
  const rows = useMemo(
    () =>
      drafts
        .flatMap((draft) => {
          const theirs = other(draft);
          return theirs === null ? [] : [{ ...draft, theirs }];
        })
        .sort((a, b) => b.mean - b.theirs - (a.mean - a.theirs)),
    [drafts, other],
  );
  const option = useMemo(
    () =>
      scatter(
        rows.map(({ author, mean, theirs }) => ({
          ...{ name: labelWords(author), x: percent(theirs), y: percent(mean), words: '' },
        })),
        { x: say('byPercent', { whose }), y: say('byPeersPercent') },
        true,
      ),
    [rows, whose],
  );
  if (rows.length === 0) return null;
  return (
    <Figure
      question={question}
      words={agreementWords(
        rows.map(({ mean, theirs }): AgreementPair => [mean, theirs]),
        whose,
      )}
      height={380}
      option={option}
      onPick={(index, series) => {
        if (series === 0) void navigate(`/exchanges/${exchange.id}/check/${rows[index]?.id ?? ''}`);
      }}
      head={[say('draftBy'), say('byPeersPercent'), say('byPercent', { whose }), say('difference')]}
      rows={rows.map(({ author, mean, theirs }) => [
        labelWords(author),
        ...[percent(mean), percent(theirs), percent(mean - theirs)],
      ])}
    />
  );
}

/** What is usual (common practice, with no bound that everybody follows) is said beside the number. */
function agreementWords(pairs: readonly AgreementPair[], whose: string): string {
  const begin = say('pointForEachOfDrafts', { pairs: pairs.length });
  const limits = blandAltman(pairs);
  if (limits === null) return `${begin} ${say('withOneAloneThereIs')}`;
  const { difference, low, high } = limits;
  const apart = Math.abs(percent(difference));
  const span = { whose, low: percent(low), high: percent(high) };
  const mean =
    apart === 0
      ? say('peersAndGiveSameOn', span)
      : say('peersGivePercentagePointsThan', { ...span, apart, side: difference > 0 ? 'more' : 'less' });
  const rank = spearman(pairs);
  if (rank === null) return `${begin} ${mean}`;
  const key =
    rank >= 0.7 ? 'theyPutDraftsIntoMuch' : rank >= 0.4 ? 'theyPutDraftsIntoSimilar' : 'theyPutDraftsIntoRather';
  return `${begin} ${mean} ${say(key, { rank: rank.toFixed(2) })}`;
}
