import type { DeskView } from '@salt-circle/contracts';
import { useState } from 'react';
import { Button, Dialog, Prose } from '../../kit/index.js';
import { Attachments } from '../../app/attachments/Attachments.js';
import { DeskHelp } from './DeskHelp.js';
import { say } from '../../words/desk.js';

/** What is at hand in the bar: guide, brief and keys. */
export function DeskTools({ exchange }: Pick<DeskView, 'exchange'>) {
  const [reading, setReading] = useState<'guide' | 'brief' | null>(null);
  const guided = exchange.guideHtml !== '' || exchange.attachments.some(({ place }) => place === 'guide');
  return (
    <>
      {guided && (
        <Button look="quiet" small onClick={() => setReading('guide')}>
          {say('guide')}
        </Button>
      )}
      <Button look="quiet" small onClick={() => setReading('brief')}>
        {say('brief')}
      </Button>
      <DeskHelp />
      <Dialog
        open={reading !== null}
        onClose={() => setReading(null)}
        title={reading === 'guide' ? say('howToReview') : say('whatAuthorsWereAsked')}
        wide
      >
        <Prose html={reading === 'guide' ? exchange.guideHtml : exchange.briefHtml} />
        <Attachments exchangeId={exchange.id} attachments={exchange.attachments} place={reading ?? 'brief'} />
      </Dialog>
    </>
  );
}
