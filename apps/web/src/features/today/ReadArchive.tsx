import type { ArchiveView, ReadArchiveRequest } from '@salt-circle/contracts';
import { listed } from '@salt-circle/core';
import { useState, type FormEvent } from 'react';
import { useNavigate } from 'react-router';
import { api } from '../../app/api.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { When } from '../../app/time/When.js';
import { FirstLook } from '../../app/uploading/FirstLook.js';
import { Button, Dialog, TextField } from '../../kit/index.js';
import { say } from '../../words/today.js';

const { usePreviewArchiveMutation, useReadArchiveMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    previewArchive: build.mutation<ArchiveView, string>({
      query: (uploadId) => ({ url: '/archives/preview', method: 'POST', body: { uploadId } }),
    }),
    readArchive: build.mutation<{ courseId: string; exchangeId: string }, ReadArchiveRequest>({
      query: (body) => ({ url: '/archives', method: 'POST', body }),
      invalidatesTags: ['Courses', 'Today'],
    }),
  }),
});

const OWN_ZONE = Intl.DateTimeFormat().resolvedOptions().timeZone;

/** An exchange from an archive, into a course that is made for it. */
export function ReadArchive() {
  const [open, setOpen] = useState(false);
  const [preview] = usePreviewArchiveMutation();
  return (
    <>
      <Button look="quiet" onClick={() => setOpen(true)}>
        {say('fromArchive')}
      </Button>
      <Dialog
        open={open}
        onClose={() => setOpen(false)}
        title={say('readExchangeFromArchive')}
        description={say('itComesIntoCourseOf')}
      >
        <FirstLook
          label={say('chooseArchiveOrDropIt')}
          accept=".zip"
          hint={say('zipThatWasMadeWith')}
          purpose={{ exchangeId: '', deliverableId: '', use: 'archive' }}
          look={(uploadId) => preview(uploadId).unwrap()}
        >
          {(uploadId, view, again) => <Found uploadId={uploadId} view={view} onAgain={again} />}
        </FirstLook>
      </Dialog>
    </>
  );
}

interface FoundProps {
  readonly uploadId: string;
  readonly view: ArchiveView;
  readonly onAgain: () => void;
}

function Found({ uploadId, view, onAgain }: FoundProps) {
  const navigate = useNavigate();
  const [courseTitle, setCourseTitle] = useState(view.courseTitle);
  const [read, { isLoading, error }] = useReadArchiveMutation();
  const { counts, staff } = view;
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const { data } = await read({ uploadId, courseTitle });
    if (data !== undefined) void navigate(`/exchanges/${data.exchangeId}`);
  };
  return (
    <form onSubmit={(event) => void submit(event)} className="space-y-4">
      <div>
        <p className="font-semibold">{view.title}</p>
        <p className="text-ink-soft">
          {view.people === 'aliases'
            ? view.drafts
              ? say('underAliasesWithoutNamesAs', { when: <When at={view.madeAt} timeZone={OWN_ZONE} /> })
              : say('underAliasesWithoutNamesWithout', { when: <When at={view.madeAt} timeZone={OWN_ZONE} /> })
            : view.drafts
              ? say('withNamesAsItWas', { when: <When at={view.madeAt} timeZone={OWN_ZONE} /> })
              : say('withNamesWithoutDraftsAs', { when: <When at={view.madeAt} timeZone={OWN_ZONE} /> })}
        </p>
        <ul className="mt-2 list-disc pl-5">
          <li>{say('students', { students: view.students })}</li>
          <li>{say('drafts', counts)}</li>
          <li>{view.you ? say('youWereInstructorInIt') : say('youBecomeInstructorOfCourse')}</li>
          {staff.length > 0 && <li>{say('wereOfStaffWhatThey', { names: listed(staff), count: staff.length })}</li>}
        </ul>
        {view.remarks.map((remark) => (
          <p key={remark} className="mt-2 text-copper">
            {remark}
          </p>
        ))}
      </div>
      <TextField
        label={say('titleOfNewCourse')}
        value={courseTitle}
        maxLength={200}
        onChange={({ target }) => setCourseTitle(target.value)}
      />
      {error !== undefined && <ProblemNotice error={error} />}
      <div className="flex flex-wrap gap-3">
        <Button look="primary" type="submit" busy={isLoading} disabled={courseTitle.trim() === ''}>
          {say('readIt')}
        </Button>
        <Button onClick={onAgain}>{say('anotherFile')}</Button>
      </div>
    </form>
  );
}
