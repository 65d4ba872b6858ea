import type { Problem, ProgressRow } from '@salt-circle/contracts';
import type { Deliverable } from '@salt-circle/core';
import { useState } from 'react';
import { Button, Dialog, FilePick, RichText, TextField } from '../../kit/index.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { endingsOf } from '../../app/uploading/endings.js';
import { UploadRows } from '../../app/uploading/UploadRows.js';
import { useUploads } from '../../app/uploading/useUploads.js';
import { useExchange } from '../../app/useExchange.js';
import { useHandInForMutation } from './draftsApi.js';
import { say } from '../../words/tracking.js';

/** Hands in for a student: what the student has saved, and what came by another way. Whatever the dates say. */
export function HandInForDialog({ row, onClose }: { readonly row: ProgressRow; readonly onClose: () => void }) {
  const exchange = useExchange();
  const [title, setTitle] = useState('');
  const [problem, setProblem] = useState<Problem | null>(null);
  const [handIn, { isLoading }] = useHandInForMutation();
  const [texts, setTexts] = useState<Readonly<Record<string, string>>>({});
  const places = exchange.deliverables.filter(({ kind }) => kind === 'file' || kind === 'recording');
  // What the student has saved is handed in as it stands; only where there is nothing, a text can be put in.
  const typed = row.draft.state === 'none' ? exchange.deliverables.filter(({ kind }) => kind === 'text') : [];
  const go = async () => {
    const result = await handIn({
      exchangeId: exchange.id,
      participantId: row.id,
      title: title === '' ? null : title,
      texts: Object.entries(texts).map(([deliverableId, html]) => ({ deliverableId, html })),
    });
    if (result.error === undefined) onClose();
    else setProblem(result.error as Problem);
  };
  return (
    <Dialog
      open
      onClose={onClose}
      wide
      title={say('handInFor', { name: row.person.name ?? say('thisStudent') })}
      description={say('whatIsSavedAndWhat')}
    >
      <div className="space-y-4">
        {row.draft.state === 'none' && (
          <TextField
            label={say('titleIfDraftHasNone')}
            value={title}
            maxLength={200}
            onChange={({ target }) => setTitle(target.value)}
          />
        )}
        {typed.map(({ id, title: words }) => (
          <div key={id}>
            <p className="mb-1 font-medium">{say('pastedIfItCameBy', { words })}</p>
            <div className="rounded border border-edge bg-salt px-3 pb-2">
              <RichText
                label={words}
                html={texts[id] ?? ''}
                onChange={(html) => setTexts((all) => ({ ...all, [id]: html }))}
              />
            </div>
          </div>
        ))}
        {places.map((deliverable) => (
          <AddFiles key={deliverable.id} deliverable={deliverable} participantId={row.id} />
        ))}
        {problem !== null && <ProblemNotice error={problem} />}
        <Button look="primary" busy={isLoading} onClick={() => void go()}>
          {say('handInWhatIsThere')}
        </Button>
      </div>
    </Dialog>
  );
}

interface AddFilesProps {
  readonly deliverable: Deliverable;
  readonly participantId: string;
}

function AddFiles({ deliverable, participantId }: AddFilesProps) {
  const exchange = useExchange();
  const uploads = useUploads({ exchangeId: exchange.id, deliverableId: deliverable.id, participantId });
  const [added, setAdded] = useState<readonly string[]>([]);
  const families = deliverable.kind === 'recording' ? (['audio', 'video'] as const) : deliverable.families;
  const add = async (files: readonly File[]) => {
    for (const file of files) if (await uploads.add([file])) setAdded((all) => [...all, file.name]);
  };
  return (
    <div className="space-y-2">
      <FilePick
        multiple
        label={say('addToIfSomethingCame', { title: deliverable.title })}
        accept={endingsOf(families)}
        hint={say('upToMbEach', { maxMegabytes: deliverable.maxMegabytes })}
        onFiles={(files) => void add(files)}
      />
      <UploadRows uploads={uploads} />
      {added.length > 0 && <p role="status">{say('added', { added: added.join(', ') })}</p>}
    </div>
  );
}
