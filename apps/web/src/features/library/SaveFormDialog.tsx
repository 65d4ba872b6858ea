import type { LibraryCard } from '@salt-circle/contracts';
import { formLosses, type FormLosses } from '@salt-circle/core';
import { useLibraryFormQuery } from '../../app/libraryApi.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useCourse } from '../../app/useCourse.js';
import { buttonClass, Dialog, Loading } from '../../kit/index.js';

export function formFileAddress(courseId: string, id: string, format: string): string {
  return `/api/courses/${courseId}/library/forms/${id}/files/${format}`;
}

const WORDS: Readonly<Record<FormLosses['settings'][number], string>> = {
  kind: 'that a range is one: its bands become levels, each with the most points of the band',
  guidance: 'the guidance of items',
  optional: 'which items may be left unanswered',
  comment: 'where a comment is asked for, or none is wanted',
  weight: 'the weights of items',
  'minimum-words': 'the least number of words',
  overall: 'what is asked of the overall comment',
  notes: 'how many notes on the draft are asked for',
  'score-by-weights': 'that the score goes by weights',
};

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
    <Dialog open onClose={onClose} title={`Save “${entry.title}” as ${as === 'csv' ? 'a table' : 'a CASE 1.1 rubric'}`}>
      <div className="space-y-3">
        {error !== undefined && <ProblemNotice error={error} />}
        {data === undefined && error === undefined && <Loading what="the form" />}
        {data !== undefined && <Losses losses={formLosses(data, as)} />}
        <a
          className={buttonClass('primary')}
          href={formFileAddress(course.id, entry.id, as)}
          onClick={onClose}
          download
        >
          Save the file
        </a>
      </div>
    </Dialog>
  );
}

function Losses({ losses: { items, settings } }: { readonly losses: FormLosses }) {
  if (items.length + settings.length === 0) return <p>The file holds all of the form.</p>;
  return (
    <div>
      <p>The file leaves out:</p>
      <ul className="list-disc pl-5">
        {items.map((title, index) => (
          <li key={index}>the item “{title}”</li>
        ))}
        {settings.map((setting) => (
          <li key={setting}>{WORDS[setting]}</li>
        ))}
      </ul>
      <p className="mt-2 text-ink-soft">A form file (JSON) holds all of it, and can be read back.</p>
    </div>
  );
}
