import { blandAltman, counted, spearman, type AgreementPair } from '@salt-circle/core';
import type { InsightsView } from '@salt-circle/contracts';
import { useMemo } from 'react';
import { useNavigate } from 'react-router';
import { labelWords } from '../../app/People.js';
import { useExchange } from '../../app/useExchange.js';
import { Figure } from './Figure.js';
import { scatter } from './options.js';
import { percent } from './percent.js';

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
        { x: `by ${whose}, percent`, y: 'by peers, percent' },
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
      head={['draft by', 'by peers, percent', `by ${whose}, percent`, 'difference']}
      rows={rows.map(({ author, mean, theirs }) => [
        labelWords(author),
        ...[percent(mean), percent(theirs), percent(mean - theirs)],
      ])}
    />
  );
}

/** What is usual (common practice, with no bound that everybody follows) is said beside the number. */
function agreementWords(pairs: readonly AgreementPair[], whose: string): string {
  const begin = `A point for each of ${counted(pairs.length, 'one draft', '# drafts')}; on the dashed line both give the same.`;
  const limits = blandAltman(pairs);
  if (limits === null) return `${begin} With one alone there is nothing to compare.`;
  const { difference, low, high } = limits;
  const apart = Math.abs(percent(difference));
  const side = difference > 0 ? 'more' : 'less';
  const mean =
    apart === 0
      ? `Peers and ${whose} give the same on average`
      : `Peers give ${apart} percentage points ${side} than ${whose} on average`;
  const rank = spearman(pairs);
  const ranks =
    rank === null
      ? ''
      : ` They put drafts into ${rank >= 0.7 ? 'much the same order' : rank >= 0.4 ? 'a similar order' : 'rather different orders'} (Spearman ${rank.toFixed(2)}; by common practice 0.7 is strong).`;
  return `${begin} ${mean}; for 95 drafts in 100 they differ by ${percent(low)} to ${percent(high)} points (Bland and Altman).${ranks}`;
}
