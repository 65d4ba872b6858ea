import type { PracticeDraftRequest } from '@salt-circle/contracts';
import { LIMITS } from '@salt-circle/contracts/plain';
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
import { say } from '../../words/plan.js';

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
    <Dialog open wide onClose={onClose} title={say('addPracticeDraft')} description={say('studentsSeeItOnceIts')}>
      <div className="space-y-4">
        <TextField
          label={say('title')}
          value={title}
          maxLength={LIMITS.title}
          onChange={({ target }) => setTitle(target.value)}
        />
        <Select
          label={say('madeFrom')}
          value={from}
          options={[
            ['text', say('textTypedOrPastedHere')],
            ['file', say('file')],
            ['draft', say('draftOfThisCourseWith')],
          ]}
          onChange={(next) => setFrom(next as PracticeDraftRequest['from'])}
        />
        {from === 'text' && (
          <div className="rounded border border-edge bg-salt px-3 pb-2">
            <RichText label={say('textOfPracticeDraft')} html={html} onChange={setHtml} />
          </div>
        )}
        {from === 'file' && (
          <>
            <FilePick
              label={title.trim() === '' ? say('giveItTitleThenChoose') : say('chooseFileOrDropIt')}
              accept={endingsOf(FAMILIES)}
              hint={say('upToMbStudentsGet', { attachmentMegabytes: LIMITS.attachmentMegabytes })}
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
            {say('addIt')}
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
        label={say('exchange')}
        value={source}
        options={[
          ['', say('chooseExchange')],
          ...(course?.exchanges ?? [])
            .filter(({ published }) => published)
            .map(({ id, title }) => [id, title] as const),
        ]}
        onChange={setSource}
      />
      {source !== '' && progress !== undefined && (
        <Select
          label={say('draft')}
          value={draftId}
          options={[
            ['', drafts.size === 0 ? say('nobodyHasHandedInThere') : say('chooseDraft')],
            ...[...drafts].map(([id, [title, who]]) => [id, say('by', { title, who })] as const),
          ]}
          onChange={(id) => onDraft(id, drafts.get(id)?.[0] ?? '')}
        />
      )}
      <TextArea
        label={say('howAuthorAgreedAndWhen')}
        value={consent}
        maxLength={LIMITS.guidance}
        hint={say('keptOnRecordWithPractice')}
        onChange={({ target }) => onConsent(target.value)}
      />
    </>
  );
}
