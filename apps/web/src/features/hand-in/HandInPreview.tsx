import type { HandInCheck, NameFindView } from '@salt-circle/contracts';
import { useEffect, useMemo, useRef, useState } from 'react';
import { DraftText } from '../../app/reading/DraftText.js';
import type { Passage } from '../../app/reading/passages.js';
import { ReadingParts } from '../../app/viewing/ReadingParts.js';
import { findPassages } from './findPassages.js';
import { say } from '../../words/hand-in.js';

const NO_PASSAGES: readonly Passage[] = [];
/** Nothing stands beside the text here. */
const ignored = () => {};

export interface HandInPreviewProps {
  readonly exchangeId: string;
  readonly check: HandInCheck;
  /** The name to be shown in its place. */
  readonly shown: NameFindView | null;
}

/** The draft as reviewers will see it, with what may tell a name marked. */
export function HandInPreview({ exchangeId, check: { finds, reading }, shown }: HandInPreviewProps) {
  const [partId, setPartId] = useState<string | null>(null);
  const [followed, setFollowed] = useState<NameFindView | null>(null);
  const frame = useRef<HTMLDivElement>(null);
  const passages = useMemo(() => findPassages(finds), [finds]);
  // The part in which the name stands comes first, so that its mark is there to be scrolled to.
  if (shown !== followed) {
    setFollowed(shown);
    if (shown?.partId != null) setPartId(shown.partId);
  }
  useEffect(() => {
    if (shown === null) return;
    const mark = frame.current?.querySelector(`mark[data-note="${shown.key}"]`);
    (mark ?? frame.current)?.scrollIntoView({ block: 'center' });
  }, [shown, partId]);
  return (
    <div ref={frame} className="max-h-[55vh] overflow-y-auto border border-line p-4">
      <h3 className="mb-3 font-serif text-xl font-semibold">
        {reading.title === '' ? <span className="text-madder">{say('noTitleYet')}</span> : reading.title}
      </h3>
      <ReadingParts
        reading={reading}
        exchangeId={exchangeId}
        partId={partId}
        onPart={setPartId}
        renderPart={({ id, html }) =>
          html === null ? null : (
            <DraftText
              html={html}
              passages={passages.get(id) ?? NO_PASSAGES}
              activeId={shown?.key ?? null}
              onActivate={ignored}
              onLayout={ignored}
            />
          )
        }
      />
    </div>
  );
}
