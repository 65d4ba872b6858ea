import type { DraftReading, PartView } from '@salt-circle/contracts';
import { useState, type ReactNode } from 'react';
import { partAddress } from './address.js';
import { PartViewer } from './PartViewer.js';
import { partLabel, partWords } from './partWords.js';
import { say } from '../../words/app.js';

export interface ReadingPartsProps {
  readonly reading: DraftReading;
  readonly exchangeId: string;
  /** Shows parts in a way of its own; null for a part that is shown as usual. */
  readonly renderPart?: (part: PartView, address: string) => ReactNode;
  /** The part to show, where something else than the row of names chooses as well. */
  readonly partId?: string | null;
  readonly onPart?: (id: string) => void;
  /** What is said of a part beside its name. */
  readonly remark?: (part: PartView) => string;
  /** Stands between the names and the part. */
  readonly above?: ReactNode;
  /** Pages and pictures take most of the window, where nothing stands beside them. */
  readonly tall?: boolean;
}

function paged({ show, copy }: PartView): boolean {
  return (show === 'pdf' || show === 'picture') && copy?.state === 'ready';
}

/** All parts of a draft: one at a time, with a row of names to choose from where there are several. */
export function ReadingParts({
  reading,
  exchangeId,
  renderPart,
  partId,
  onPart,
  remark = () => '',
  above,
  tall = false,
}: ReadingPartsProps) {
  const { parts, draftId } = reading;
  const [chosen, setChosen] = useState<string | null>(null);
  const part = parts.find(({ id }) => id === (partId === undefined ? chosen : partId)) ?? parts[0];
  if (part === undefined) return <p className="text-ink-soft">{say('thereIsNothingInIt')}</p>;
  const address = partAddress({ exchangeId, draftId, partId: part.id });
  return (
    <div>
      {reading.context !== '' && (
        <p className="mb-3 max-w-prose border-l-[3px] border-dusk bg-crust px-3 py-1.5 text-sm whitespace-pre-wrap">
          <span className="font-semibold">{say('fromAuthor')} </span>
          {reading.context}
        </p>
      )}
      {parts.length > 1 && (
        <div role="group" aria-label={say('partsOfThisDraft')} className="mb-3 flex flex-wrap gap-1.5">
          {parts.map((one) => (
            <button
              key={one.id}
              type="button"
              aria-pressed={one.id === part.id}
              onClick={() => (onPart ?? setChosen)(one.id)}
              className="rounded border border-edge bg-paper px-2.5 py-1 text-left text-sm aria-pressed:border-iodine aria-pressed:bg-crust aria-pressed:font-semibold"
            >
              {partLabel(one, parts)}{' '}
              <span className="font-normal text-ink-soft">
                {[partWords(one), remark(one)].filter((words) => words !== '').join(', ')}
              </span>
            </button>
          ))}
        </div>
      )}
      {above}
      <div key={part.id} className={paged(part) ? (tall ? 'h-[calc(100vh-15rem)]' : 'h-[60vh]') : ''}>
        {renderPart?.(part, address) ?? <PartViewer part={part} address={address} />}
      </div>
    </div>
  );
}
