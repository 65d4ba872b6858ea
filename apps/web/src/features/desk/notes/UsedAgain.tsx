import type { OwnRemarkView } from '@salt-circle/contracts';
import { LIMITS } from '@salt-circle/contracts/plain';
import { useState } from 'react';
import { api } from '../../../app/api.js';
import { Button, Dialog, TextArea, TextField } from '../../../kit/index.js';
import { ProblemNotice } from '../../../app/ProblemNotice.js';
import { say } from '../../../words/desk.js';

const { useOwnRemarksQuery, useChangeRemarkMutation, useRemoveRemarkMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    ownRemarks: build.query<OwnRemarkView[], void>({
      query: () => '/own-remarks',
      providesTags: ['OwnRemarks'],
    }),
    changeRemark: build.mutation<null, Pick<OwnRemarkView, 'id' | 'title' | 'body'>>({
      query: ({ id, ...body }) => ({ url: `/own-remarks/${id}`, method: 'PUT', body }),
      invalidatesTags: ['OwnRemarks'],
    }),
    removeRemark: build.mutation<null, string>({
      query: (id) => ({ url: `/own-remarks/${id}`, method: 'DELETE' }),
      invalidatesTags: ['OwnRemarks'],
    }),
  }),
});

/** As many as are offered while one types. */
const OFFERED = 3;
/** Letters after which remarks are offered. */
const TYPED = 3;

/** Whether a remark has all the words that were typed, each at the beginning of one of its own. */
export function fitsTyped({ title, body }: Pick<OwnRemarkView, 'title' | 'body'>, typed: string): boolean {
  const own = `${title} ${body}`.toLowerCase().split(/[^\p{L}\p{N}]+/u);
  const wanted = typed
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter((word) => word !== '');
  return wanted.every((word) => own.some((one) => one.startsWith(word)));
}

interface UsedAgainProps {
  readonly typed: string;
  /** Puts a copy of a remark into the note. */
  readonly onUse: (body: string) => void;
}

/** One's own remarks of earlier reviews: offered while one types, all of them in a dialog, where they are edited too. */
export function UsedAgain({ typed, onUse }: UsedAgainProps) {
  const { data = [] } = useOwnRemarksQuery();
  const [open, setOpen] = useState(false);
  if (data.length === 0) return null;
  const short = typed.trim();
  const offered =
    short.length >= TYPED && short.length <= 40
      ? data.filter((one) => one.body !== short && fitsTyped(one, short)).slice(0, OFFERED)
      : [];
  return (
    <div className="mt-1">
      {offered.length > 0 && (
        <ul aria-label={say('earlierRemarksOfYoursThat')} className="space-y-0.5">
          {offered.map((one) => (
            <li key={one.id}>
              <button
                type="button"
                className="min-h-6 text-left text-dusk hover:underline"
                onClick={() => onUse(one.body)}
              >
                {one.title}
              </button>
            </li>
          ))}
        </ul>
      )}
      <button type="button" className="min-h-6 text-ink-soft underline" onClick={() => setOpen(true)}>
        {say('useEarlierRemark')}
      </button>
      <Dialog open={open} onClose={() => setOpen(false)} title={say('yourEarlierRemarks')} wide>
        <RemarkList
          remarks={data}
          onUse={(body) => {
            setOpen(false);
            onUse(body);
          }}
        />
      </Dialog>
    </div>
  );
}

interface RemarkListProps {
  readonly remarks: readonly OwnRemarkView[];
  readonly onUse: (body: string) => void;
}

function RemarkList({ remarks, onUse }: RemarkListProps) {
  const [search, setSearch] = useState('');
  const [editing, setEditing] = useState<string | null>(null);
  const [remove, removing] = useRemoveRemarkMutation();
  const found = remarks.filter((one) => fitsTyped(one, search));
  return (
    <div className="space-y-3">
      <p className="text-ink-soft">{say('whatYouWroteInNotes')}</p>
      <TextField label={say('find')} value={search} onChange={({ target }) => setSearch(target.value)} />
      {removing.error !== undefined && <ProblemNotice error={removing.error} />}
      {found.length === 0 && <p className="text-ink-soft">{say('noneOfYourRemarksHas')}</p>}
      <ul className="max-h-[50vh] divide-y divide-line overflow-y-auto">
        {found.map((one) => (
          <li key={one.id} className="py-2">
            {editing === one.id ? (
              <RemarkEditor remark={one} onDone={() => setEditing(null)} />
            ) : (
              <>
                <p className="font-medium">{one.title}</p>
                {one.body !== one.title && <p className="whitespace-pre-wrap">{one.body}</p>}
                <p className="text-sm text-ink-soft">{say('usedIn', { course: one.courseTitle, uses: one.uses })}</p>
                <div className="mt-1 flex gap-2">
                  <Button small look="primary" onClick={() => onUse(one.body)}>
                    {say('useIt')}
                  </Button>
                  <Button small onClick={() => setEditing(one.id)}>
                    {say('edit')}
                  </Button>
                  <Button small onClick={() => void remove(one.id)}>
                    {say('remove')}
                  </Button>
                </div>
              </>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}

function RemarkEditor({ remark, onDone }: { readonly remark: OwnRemarkView; readonly onDone: () => void }) {
  const [title, setTitle] = useState(remark.title);
  const [body, setBody] = useState(remark.body);
  const [change, changing] = useChangeRemarkMutation();
  const save = async () => {
    const { error } = await change({ id: remark.id, title: title.trim(), body: body.trim() });
    if (error === undefined) onDone();
  };
  return (
    <div className="space-y-2">
      <TextField
        label={say('name')}
        value={title}
        maxLength={LIMITS.title}
        onChange={({ target }) => setTitle(target.value)}
      />
      <TextArea
        label={say('remark')}
        value={body}
        maxLength={LIMITS.noteBody}
        rows={3}
        onChange={({ target }) => setBody(target.value)}
      />
      {changing.error !== undefined && <ProblemNotice error={changing.error} />}
      <div className="flex gap-2">
        <Button small look="primary" busy={changing.isLoading} onClick={() => void save()}>
          {say('save')}
        </Button>
        <Button small onClick={onDone}>
          {say('leaveItAsItWas')}
        </Button>
      </div>
    </div>
  );
}
