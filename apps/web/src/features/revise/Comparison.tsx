import type { RevisionView } from '@salt-circle/contracts';
import type { VersionPart } from '@salt-circle/core';
import { useState } from 'react';
import { Loading, Notice } from '../../kit/index.js';
import { ReadingParts } from '../../app/viewing/ReadingParts.js';
import type { ComparedVersions } from '../../app/viewing/useVersions.js';
import type { PartPair } from './versions.js';
import { say } from '../../words/revise.js';

interface ComparisonProps {
  readonly view: RevisionView;
  readonly pairs: readonly PartPair[];
  readonly compared: ComparedVersions;
  readonly exchangeId: string;
}

const waysToCompare = () =>
  [
    ['one', say('asOneText')],
    ['two', say('sideBySide')],
    ['read', say('toRead')],
  ] as const;

/** The version that was reviewed and the revision, as one text, side by side, or the revision alone. */
export function Comparison({ view, pairs, compared, exchangeId }: ComparisonProps) {
  const [way, setWay] = useState<ReturnType<typeof waysToCompare>[number][0]>('one');
  const texts = pairs.filter((one) => one.texts !== null);
  return (
    <section aria-label={say('whatChangedSinceItWas')} className="min-w-0 px-6 py-5">
      <div className="mb-3 flex flex-wrap items-baseline justify-between gap-3">
        <h2 className="text-lg font-semibold">{say('whatChangedSinceItWas')}</h2>
        <div role="group" aria-label={say('shown')} className="no-print flex gap-3 text-sm">
          {waysToCompare().map(([key, words]) => (
            <button
              key={key}
              type="button"
              aria-pressed={way === key}
              className="min-h-6 text-ink-soft aria-pressed:font-semibold aria-pressed:text-ink aria-pressed:underline"
              onClick={() => setWay(key)}
            >
              {words}
            </button>
          ))}
        </div>
      </div>
      {way === 'read' && view.revision !== null ? (
        <ReadingParts reading={view.revision} exchangeId={exchangeId} tall />
      ) : compared.state === 'working' ? (
        <Loading what={say('comparison')} />
      ) : compared.state === 'given-up' ? (
        <Notice tone="waiting">{say('theseTextsAreTooLong')}</Notice>
      ) : (
        <>
          <Key />
          {texts.map(({ key, title }, index) => (
            <section key={key} aria-label={title} className="mb-6">
              {pairs.length > 1 && <h3 className="mb-1 text-sm font-medium text-ink-soft">{title}</h3>}
              {way === 'one' ? (
                <AsOne parts={compared.texts[index] ?? []} />
              ) : (
                <SideBySide parts={compared.texts[index] ?? []} />
              )}
            </section>
          ))}
        </>
      )}
      {way !== 'read' && <OtherParts pairs={pairs} />}
    </section>
  );
}

function Key() {
  return (
    <p className="mb-2 text-sm text-ink-soft">
      {say('keyOfMarks', {
        out: (words) => <del className="text-madder">{words}</del>,
        in: (words) => <ins className="bg-kelp/10 text-kelp">{words}</ins>,
        moved: (words) => <span className="border-b-2 border-dotted border-dusk">{words}</span>,
      })}
    </p>
  );
}

const PLAIN = 'prose-reading font-serif whitespace-pre-wrap';

function AsOne({ parts }: { readonly parts: readonly VersionPart[] }) {
  if (parts.length === 0) return <p className="text-ink-soft">{say('thereIsNoText')}</p>;
  return (
    <div className={PLAIN}>
      {parts.map((part, index) => (
        <Piece key={index} part={part} />
      ))}
    </div>
  );
}

/** A moved passage is read where it stands now; where it stood, there is a mark. */
function Piece({ part: { text, change, move } }: { readonly part: VersionPart }) {
  if (change === 'same') return <span>{text}</span>;
  if (move !== null) {
    return change === 'in' ? (
      <span className="border-b-2 border-dotted border-dusk">
        {text}
        <span className="font-sans text-sm text-ink-soft"> {say('movedHere')} </span>
      </span>
    ) : (
      <del className="text-ink-soft decoration-dusk decoration-dotted">{text}</del>
    );
  }
  return change === 'in' ? (
    <ins className="bg-kelp/10 text-kelp">{text}</ins>
  ) : (
    <del className="text-madder">{text}</del>
  );
}

function SideBySide({ parts }: { readonly parts: readonly VersionPart[] }) {
  return (
    <div className="grid grid-cols-2 gap-6">
      {(['out', 'in'] as const).map((side) => (
        <div key={side} className="min-w-0">
          <h4 className="text-sm text-ink-soft">{side === 'out' ? say('asItWasReviewed') : say('now')}</h4>
          <div className={PLAIN}>
            {parts
              .filter(({ change }) => change === 'same' || change === side)
              .map((part, index) => (
                <Piece key={index} part={part} />
              ))}
          </div>
        </div>
      ))}
    </div>
  );
}

/** Files, recordings and links are told by name: whether they are the same, other ones, new or gone. */
function OtherParts({ pairs }: { readonly pairs: readonly PartPair[] }) {
  const others = pairs.filter(({ texts }) => texts === null);
  if (others.length === 0) return null;
  return (
    <ul className="mt-4 space-y-1 border-t border-line pt-3">
      {others.map(({ key, title, before, after }) => (
        <li key={key}>
          {say('named', {
            title: <span className="font-medium">{title}</span>,
            words: otherWords(before, after),
          })}
        </li>
      ))}
    </ul>
  );
}

function otherWords(before: PartPair['before'], after: PartPair['after']): string {
  if (after === null) return say('isNotInRevision', { name: before?.name ?? '' });
  if (before === null) return say('isNew', { name: after.name });
  const same =
    before.digest === null ? before.url === after.url && before.name === after.name : before.digest === after.digest;
  return same ? say('asItWas', { name: after.name }) : say('anotherOneThanWasReviewed', { name: after.name });
}
