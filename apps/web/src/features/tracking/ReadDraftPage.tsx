import type { DraftReadingView, VersionView } from '@salt-circle/contracts';
import { useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import { Button, Loading } from '../../kit/index.js';
import { Walk } from '../../app/boards/Walk.js';
import { Person } from '../../app/People.js';
import { usePolling } from '../../app/changes/useChanges.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { When } from '../../app/time/When.js';
import { useExchange } from '../../app/useExchange.js';
import { originalAddress, partAddress } from '../../app/viewing/address.js';
import { ReadingParts } from '../../app/viewing/ReadingParts.js';
import { VersionDialog } from '../../app/viewing/VersionDialog.js';
import { lateInWords } from '@salt-circle/core';
import { useDraftReadingQuery, useStaffCopyAgainMutation, useStaffVersionQuery } from './draftsApi.js';
import { say } from '../../words/tracking.js';

/** A handed-in draft, to read, with what it consists of and its earlier versions. */
export function ReadDraftPage() {
  const exchange = useExchange();
  const { draftId = '' } = useParams();
  const [polling, setPolling] = useState(0);
  const { data, error } = useDraftReadingQuery({ exchangeId: exchange.id, draftId }, { pollingInterval: polling });
  const making = data?.parts.some(({ copy }) => copy?.state === 'waiting') ?? false;
  const often = usePolling(2_000);
  useEffect(() => setPolling(making ? often : 0), [making, often]);
  if (error !== undefined && data === undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what={say('draftWord')} />;
  return (
    <article className="mx-auto max-w-4xl px-5 py-6">
      <Walk />
      <p className="text-ink-soft">
        <Link to="../drafts" relative="path" className="text-dusk underline">
          {say('allDrafts')}
        </Link>{' '}
        /{' '}
        {say('versionWordsHandedIn', {
          author: <Person label={data.author} />,
          version: data.version,
          words: data.words,
          when: <When at={data.handedInAt} timeZone={exchange.course.timeZone} />,
        })}
      </p>
      {data.late !== null && <p className="text-madder">{lateInWords(data.late)}</p>}
      <h2 className="my-4 font-serif text-2xl font-semibold">{data.title}</h2>
      <Originals draft={data} />
      <ReadingParts reading={data} exchangeId={exchange.id} tall />
    </article>
  );
}

/** What was handed in, as it came, and what was handed in before. */
function Originals({ draft }: { readonly draft: DraftReadingView }) {
  const exchange = useExchange();
  const [again] = useStaffCopyAgainMutation();
  const [reading, setReading] = useState<number | null>(null);
  const files = draft.parts.filter(({ original }) => original);
  const { draftId, versions } = draft;
  const useVersion = (number: number | null): VersionView | undefined => {
    const { data } = useStaffVersionQuery(
      { exchangeId: exchange.id, draftId, number: number ?? 0 },
      { skip: number === null },
    );
    return number === null ? undefined : data;
  };
  return (
    <div className="mb-4 space-y-2 text-sm">
      {files.length > 0 && (
        <p>
          <span className="text-ink-soft">{say('asHandedIn')} </span>
          {files.map((part, index) => (
            <span key={part.id}>
              {index > 0 && ', '}
              <a
                href={originalAddress(partAddress({ exchangeId: exchange.id, draftId, partId: part.id }))}
                className="text-dusk underline"
              >
                {part.name}
              </a>
              {part.copy?.state === 'failed' && (
                <Button
                  small
                  className="ml-1"
                  onClick={() => void again({ exchangeId: exchange.id, draftId, partId: part.id })}
                >
                  {say('makeCopyAgain')}
                </Button>
              )}
            </span>
          ))}
        </p>
      )}
      {versions.length > 1 && (
        <p>
          <span className="text-ink-soft">{say('versions')} </span>
          {versions.map(({ number, withdrawn }) => (
            <button key={number} type="button" className="mr-2 text-dusk underline" onClick={() => setReading(number)}>
              {withdrawn ? say('takenBack', { number }) : number}
            </button>
          ))}
        </p>
      )}
      {reading !== null && (
        <VersionDialog
          number={reading}
          versions={versions}
          exchangeId={exchange.id}
          useVersion={useVersion}
          onClose={() => setReading(null)}
        />
      )}
    </div>
  );
}
