import type { AllocationPreviewView } from '@salt-circle/contracts';
import { labelWords } from '../../app/People.js';
import { Notice } from '../../kit/index.js';

/** How good a previewed allocation is, in figures and sentences. */
export function Quality({
  preview,
  reviewsEach,
}: {
  readonly preview: AllocationPreviewView;
  readonly reviewsEach: number;
}) {
  const { quality, shortfalls, leftOut } = preview;
  const { asked, placed, fewestPerDraft: fewest, mostPerDraft: most, mutualPairs } = quality;
  return (
    <section>
      <h3 className="font-semibold">How good it is</h3>
      <dl>
        <Figure
          words="Placed"
          figure={`${placed} of ${asked}`}
          remark={placed === asked ? 'all that was asked' : 'there are too few drafts of others'}
        />
        <Figure
          words="Reviews per draft"
          figure={fewest === most ? `${most} each` : `${fewest} to ${most}`}
          remark="as even as can be"
        />
        <Figure
          words="Pairs who review each other"
          figure={String(mutualPairs)}
          remark={mutualPairs === 0 ? 'none' : 'try another for fewer'}
        />
      </dl>
      {shortfalls.length > 0 && (
        <Notice
          tone="waiting"
          title={`${shortfalls.length} of those who handed in get fewer than ${reviewsEach} drafts.`}
        >
          There are not enough drafts of others. Wait for more, or ask for fewer reviews on the Plan page.
        </Notice>
      )}
      {leftOut.length > 0 && (
        <p className="mt-3 text-sm">
          <strong>Left out, not handed in ({leftOut.length}):</strong>{' '}
          <span className="text-ink-soft">{leftOut.map(labelWords).join(', ')}</span>
        </p>
      )}
    </section>
  );
}

function Figure({
  words,
  figure,
  remark,
}: {
  readonly words: string;
  readonly figure: string;
  readonly remark: string;
}) {
  return (
    <div className="border-b border-line py-2">
      <div className="flex justify-between gap-3">
        <dt>{words}</dt>
        <dd className="font-semibold">{figure}</dd>
      </div>
      <dd className="text-sm text-ink-soft">{remark}</dd>
    </div>
  );
}
