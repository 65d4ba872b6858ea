import type { DraftReading, FeedbackView } from '@salt-circle/contracts';
import { counted } from '@salt-circle/core';
import { Fragment, useState, type ReactNode } from 'react';

interface VersionsProps<Of extends FeedbackView> {
  readonly feedback: Of;
  /** Shown until another one is chosen. */
  readonly first: DraftReading;
  /** @param where said beside counts, where there is more than one version */
  readonly children: (feedback: Of, draft: DraftReading, where: string) => ReactNode;
}

/**
 * Reviews are of one version, unless another one was handed in while some had begun: then all that is shown is of the version that
 * is chosen, text and reviews alike.
 */
export function Versions<Of extends FeedbackView>({ feedback, first, children }: VersionsProps<Of>) {
  const { drafts, reviews } = feedback;
  const [chosen, setChosen] = useState<number | null>(null);
  const draft = drafts.find(({ version }) => version === chosen) ?? first;
  const of = (version: number) => reviews.filter((review) => review.version === version);
  return (
    <>
      {drafts.length > 1 && (
        <div role="group" aria-label="Versions that were reviewed" className="flex flex-wrap gap-1.5 px-6 pt-4">
          {drafts.map(({ version }) => (
            <button
              key={version}
              type="button"
              aria-pressed={version === draft.version}
              onClick={() => setChosen(version)}
              className="rounded border border-edge bg-paper px-2.5 py-1 text-sm aria-pressed:border-iodine aria-pressed:bg-crust aria-pressed:font-semibold"
            >
              Version {version}{' '}
              <span className="font-normal text-ink-soft">{counted(of(version).length, '1 review', '# reviews')}</span>
            </button>
          ))}
        </div>
      )}
      <Fragment key={draft.version}>
        {children(
          { ...feedback, reviews: of(draft.version) },
          draft,
          drafts.length > 1 ? ` on version ${draft.version}` : '',
        )}
      </Fragment>
    </>
  );
}
