import type { ArchiveView, ReadArchiveRequest } from '@salt-circle/contracts';
import { counted, listed } from '@salt-circle/core';
import { useState, type FormEvent } from 'react';
import { useNavigate } from 'react-router';
import { api } from '../../app/api.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { When } from '../../app/time/When.js';
import { FirstLook } from '../../app/uploading/FirstLook.js';
import { Button, Dialog, TextField } from '../../kit/index.js';

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
        From an archive…
      </Button>
      <Dialog
        open={open}
        onClose={() => setOpen(false)}
        title="Read an exchange from an archive"
        description="It comes into a course of its own. Nobody is let in or told: each student’s place waits, as after a roster."
      >
        <FirstLook
          label="Choose the archive, or drop it here"
          accept=".zip"
          hint="The ZIP that was made with “Take along as an archive…”."
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
          {view.people === 'aliases' ? 'Under aliases, without names' : 'With names'}
          {view.drafts ? '' : ', without the drafts'}, as it was <When at={view.madeAt} timeZone={OWN_ZONE} />
        </p>
        <ul className="mt-2 list-disc pl-5">
          <li>
            {counted(view.students, '1 student', '# students')}
            {view.students > 0 && ', each with a place that waits'}
          </li>
          <li>
            {counted(counts.drafts, '1 draft', '# drafts')}, {counted(counts.reviews, '1 review', '# reviews')},{' '}
            {counted(counts.notes, '1 note', '# notes')}, {counted(counts.files, '1 file', '# files')}
          </li>
          <li>
            {view.you ? 'You were an instructor in it, and are so here.' : 'You become the instructor of the course.'}
          </li>
          {staff.length > 0 && (
            <li>
              {listed(staff)} {counted(staff.length, 'was', 'were')} of the staff: what they did is kept, and whether
              they are of the staff here you say in the course.
            </li>
          )}
        </ul>
        {view.remarks.map((remark) => (
          <p key={remark} className="mt-2 text-copper">
            {remark}
          </p>
        ))}
      </div>
      <TextField
        label="Title of the new course"
        value={courseTitle}
        maxLength={200}
        onChange={({ target }) => setCourseTitle(target.value)}
      />
      {error !== undefined && <ProblemNotice error={error} />}
      <div className="flex flex-wrap gap-3">
        <Button look="primary" type="submit" busy={isLoading} disabled={courseTitle.trim() === ''}>
          Read it
        </Button>
        <Button onClick={onAgain}>Another file</Button>
      </div>
    </form>
  );
}
