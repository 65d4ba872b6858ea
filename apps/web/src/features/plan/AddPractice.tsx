import { LIMITS, type PracticeDraftRequest } from '@salt-circle/contracts';
import { skipToken } from '@reduxjs/toolkit/query';
import { useState } from 'react';
import { useCourseQuery } from '../../app/api.js';
import { useAddPracticeMutation } from '../../app/practice/practiceApi.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useProgressQuery } from '../../app/progressApi.js';
import { endingsOf } from '../../app/uploading/endings.js';
import { UploadRows } from '../../app/uploading/UploadRows.js';
import { useSending } from '../../app/uploading/useUploads.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, Dialog, FilePick, RichText, Select, TextArea, TextField } from '../../kit/index.js';

const FAMILIES = ['pdf', 'document', 'plain-text', 'image', 'audio', 'video'] as const;

/** A new practice draft: typed or pasted, a file, or a draft that its author agreed to give. */
export function AddPractice({ onClose }: { readonly onClose: () => void }) {
  const exchange = useExchange();
  const [title, setTitle] = useState('');
  const [from, setFrom] = useState<PracticeDraftRequest['from']>('text');
  const [html, setHtml] = useState('');
  const [draftId, setDraftId] = useState('');
  const [consent, setConsent] = useState('');
  const [add, { isLoading, error }] = useAddPracticeMutation();
  const send = async (more: Partial<PracticeDraftRequest>) => {
    await add({ exchangeId: exchange.id, request: { title, from, ...more } }).unwrap();
    onClose();
  };
  // The problem stands in the dialog.
  const keep = (more: Partial<PracticeDraftRequest>) => void send(more).catch(() => {});
  const purpose = { exchangeId: exchange.id, deliverableId: 'practice', use: 'attachment' } as const;
  const uploads = useSending(purpose, (uploadId) => send({ uploadId }));
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="Add a practice draft"
      description="Students see it once its key is submitted: your own review of it, with the same form."
    >
      <div className="space-y-4">
        <TextField
          label="Title"
          value={title}
          maxLength={LIMITS.title}
          onChange={({ target }) => setTitle(target.value)}
        />
        <Select
          label="Made from"
          value={from}
          options={[
            ['text', 'A text, typed or pasted here'],
            ['file', 'A file'],
            ['draft', 'A draft of this course, with its author’s consent'],
          ]}
          onChange={(next) => setFrom(next as PracticeDraftRequest['from'])}
        />
        {from === 'text' && (
          <div className="rounded border border-edge bg-salt px-3 pb-2">
            <RichText label="Text of the practice draft" html={html} onChange={setHtml} />
          </div>
        )}
        {from === 'file' && (
          <>
            <FilePick
              label={title.trim() === '' ? 'Give it a title, then choose a file' : 'Choose a file, or drop it here'}
              accept={endingsOf(FAMILIES)}
              hint={`Up to ${LIMITS.attachmentMegabytes} MB. Students get a reading copy without what the file says of its maker.`}
              onFiles={(files) => void uploads.add(files.slice(0, 1))}
            />
            <UploadRows uploads={uploads} />
          </>
        )}
        {from === 'draft' && (
          <FromDraft
            draftId={draftId}
            consent={consent}
            onDraft={(id, named) => {
              setDraftId(id);
              if (title === '') setTitle(named);
            }}
            onConsent={setConsent}
          />
        )}
        {error !== undefined && from !== 'file' && <ProblemNotice error={error} />}
        {from !== 'file' && (
          <Button
            look="primary"
            busy={isLoading}
            onClick={() => keep(from === 'text' ? { html } : { draftId, consent })}
          >
            Add it
          </Button>
        )}
      </div>
    </Dialog>
  );
}

interface FromDraftProps {
  readonly draftId: string;
  readonly consent: string;
  readonly onDraft: (id: string, title: string) => void;
  readonly onConsent: (words: string) => void;
}

/** A draft that was handed in for one of the course’s exchanges. */
function FromDraft({ draftId, consent, onDraft, onConsent }: FromDraftProps) {
  const exchange = useExchange();
  const [source, setSource] = useState('');
  const { data: course } = useCourseQuery(exchange.course.id);
  const { data: progress } = useProgressQuery(source === '' ? skipToken : source);
  // A group’s draft stands in a row for each of its members.
  const drafts = new Map(
    (progress?.rows ?? []).flatMap(({ draft, person }) =>
      draft.id === null ? [] : [[draft.id, [draft.title, draft.group ?? person.name ?? ''] as const] as const],
    ),
  );
  return (
    <>
      <Select
        label="Exchange"
        value={source}
        options={[
          ['', 'Choose an exchange'],
          ...(course?.exchanges ?? [])
            .filter(({ published }) => published)
            .map(({ id, title }) => [id, title] as const),
        ]}
        onChange={setSource}
      />
      {source !== '' && progress !== undefined && (
        <Select
          label="Draft"
          value={draftId}
          options={[
            ['', drafts.size === 0 ? 'Nobody has handed in there' : 'Choose a draft'],
            ...[...drafts].map(([id, [title, who]]) => [id, `${title}, by ${who}`] as const),
          ]}
          onChange={(id) => onDraft(id, drafts.get(id)?.[0] ?? '')}
        />
      )}
      <TextArea
        label="How the author agreed, and when"
        value={consent}
        maxLength={LIMITS.guidance}
        hint="Kept on record with the practice draft. The author’s name is hidden wherever it is found for sure; read the draft through before you write its key."
        onChange={({ target }) => onConsent(target.value)}
      />
    </>
  );
}
