import type { PartView } from '@salt-circle/contracts';
import { unturned, type Turn } from '@salt-circle/core';
import { useState, type MouseEvent } from 'react';
import { PicturePart } from '../../viewing/PicturePart.js';
import { pictureSize } from '../../viewing/PartViewer.js';
import { BarButton } from '../../viewing/ViewerBar.js';
import { BoxMarks, boxedAt, nextOf, type BoxedNote } from './BoxMarks.js';
import type { PartNotesProps } from './partNotes.js';
import { RegionDraw } from './RegionDraw.js';
import { say } from '../../../words/app.js';

export interface PictureNotesProps extends PartNotesProps {
  readonly part: PartView;
  /** Where its reading copy is. */
  readonly address: string;
}

/** A picture with the notes on its regions and points. */
export function PictureNotes({ part, address, notes, activeId, onChoose, onNote }: PictureNotesProps) {
  const [drawing, setDrawing] = useState<'no' | 'by-hand' | 'by-keys'>('no');
  const boxed = notes.flatMap(({ id, kind, place: { selector } }): BoxedNote[] =>
    selector.type === 'region' ? [{ id, kind, boxes: [selector], words: false, where: say('onPicture') }] : [],
  );
  const press = (event: MouseEvent<HTMLElement>, turn: Turn) => {
    if ((event.target as Element).closest('[data-place]')) return;
    const around = event.currentTarget.getBoundingClientRect();
    const shown = { x: (event.clientX - around.left) / around.width, y: (event.clientY - around.top) / around.height };
    const id = nextOf(boxedAt(boxed, unturned(shown, turn)), activeId);
    if (id !== undefined) onChoose(id);
  };
  return (
    <PicturePart
      address={address}
      name={part.name}
      {...pictureSize(part)}
      tools={
        onNote !== undefined && (
          <BarButton
            words={say('markRegion')}
            pressed={drawing !== 'no'}
            onPress={(byKey) => setDrawing(drawing !== 'no' ? 'no' : byKey ? 'by-keys' : 'by-hand')}
          />
        )
      }
      over={(turn) => (
        <div className="absolute inset-0" onClick={(event) => press(event, turn)}>
          <BoxMarks notes={boxed} activeId={activeId} onChoose={onChoose} />
          {drawing !== 'no' && onNote !== undefined && (
            <RegionDraw
              label={say('markRegionOnPicture')}
              turn={turn}
              byKeys={drawing === 'by-keys'}
              onPick={(kind, box) => onNote(kind, { type: 'region', page: null, ...box })}
              onCancel={() => setDrawing('no')}
            />
          )}
        </div>
      )}
    />
  );
}
