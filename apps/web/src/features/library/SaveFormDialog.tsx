import type { LibraryCard } from '@salt-circle/contracts';
import { formLosses, type FormLosses, wordsBy } from '@salt-circle/core';
import { useLibraryFormQuery } from '../../app/libraryApi.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useCourse } from '../../app/useCourse.js';
import { buttonClass, Dialog, Loading } from '../../kit/index.js';
import { say } from '../../words/library.js';

export function formFileAddress(courseId: string, id: string, format: string): string {
  return `/api/courses/${courseId}/library/forms/${id}/files/${format}`;
}

const WORDS: Readonly<Record<FormLosses['settings'][number], string>> = wordsBy(say, {
  kind: 'thatARangeIsOne',
  guidance: 'guidanceOfItems',
  optional: 'whichItemsMayBeLeft',
  comment: 'whereCommentIsAskedFor',
  weight: 'weightsOfItems',
  'minimum-words': 'leastNumberOfWords',
  overall: 'whatIsAskedOfOverall',
  notes: 'howManyNotesOnDraft',
  'score-by-weights': 'thatScoreGoesByWeights',
});

export interface SaveFormDialogProps {
  readonly entry: LibraryCard;
  readonly as: 'case' | 'csv';
  readonly onClose: () => void;
}

/** Before a form is saved as a file that cannot hold all of it: what that file leaves out. */
export function SaveFormDialog({ entry, as, onClose }: SaveFormDialogProps) {
  const course = useCourse();
  const { data, error } = useLibraryFormQuery(
    { courseId: course.id, id: entry.id },
    { refetchOnMountOrArgChange: true },
  );
  return (
    <Dialog
      open
      onClose={onClose}
      title={
        as === 'csv' ? say('saveAsTable', { title: entry.title }) : say('saveAsCase11Rubric', { title: entry.title })
      }
    >
      <div className="space-y-3">
        {error !== undefined && <ProblemNotice error={error} />}
        {data === undefined && error === undefined && <Loading what={say('form')} />}
        {data !== undefined && <Losses losses={formLosses(data, as)} />}
        <a
          className={buttonClass('primary')}
          href={formFileAddress(course.id, entry.id, as)}
          onClick={onClose}
          download
        >
          {say('saveFile')}
        </a>
      </div>
    </Dialog>
  );
}

function Losses({ losses: { items, settings } }: { readonly losses: FormLosses }) {
  if (items.length + settings.length === 0) return <p>{say('fileHoldsAllOfForm')}</p>;
  return (
    <div>
      <p>{say('fileLeavesOut')}</p>
      <ul className="list-disc pl-5">
        {items.map((title, index) => (
          <li key={index}>{say('item', { title })}</li>
        ))}
        {settings.map((setting) => (
          <li key={setting}>{WORDS[setting]}</li>
        ))}
      </ul>
      <p className="mt-2 text-ink-soft">{say('formFileJsonHoldsAll')}</p>
    </div>
  );
}
