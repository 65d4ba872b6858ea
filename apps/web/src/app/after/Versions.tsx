import type { DraftReading, FeedbackView } from '@salt-circle/contracts';
import { Fragment, useState, type ReactNode } from 'react';
import { say } from '../../words/app.js';

interface VersionsProps<Of extends FeedbackView> {
  readonly feedback: Of;
  /** Shown until another one is chosen. */
  readonly first: DraftReading;
  /** @param version which one it is of, where there is more than one */
  readonly children: (feedback: Of, draft: DraftReading, version: number | null) => ReactNode;
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
        <div role="group" aria-label={say('versionsThatWereReviewed')} className="flex flex-wrap gap-1.5 px-6 pt-4">
          {drafts.map(({ version }) => (
            <button
              key={version}
              type="button"
              aria-pressed={version === draft.version}
              onClick={() => setChosen(version)}
              className="rounded border border-edge bg-paper px-2.5 py-1 text-sm aria-pressed:border-iodine aria-pressed:bg-crust aria-pressed:font-semibold"
            >
              {say('versionReviews', {
                version,
                of: of(version).length,
                span: (words) => <span className="font-normal text-ink-soft">{words}</span>,
              })}
            </button>
          ))}
        </div>
      )}
      <Fragment key={draft.version}>
        {children({ ...feedback, reviews: of(draft.version) }, draft, drafts.length > 1 ? draft.version : null)}
      </Fragment>
    </>
  );
}
