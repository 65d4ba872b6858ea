import type { DraftReading } from '@salt-circle/contracts';
import { Button, Menu } from '../../kit/index.js';
import { ProblemNotice } from '../ProblemNotice.js';
import { useTake } from '../useTake.js';
import { say } from '../../words/app.js';

interface TakeAlongProps {
  /** Below which the files are: "/reviews/…", or the feedback of a draft. */
  readonly base: string;
  readonly draft: Pick<DraftReading, 'parts' | 'version'>;
  readonly small?: boolean;
  /** What was marked in such a file can be brought back here. */
  readonly onBring?: (() => void) | undefined;
}

/** The draft with what was written about it, as a file for other programs, or on paper. */
export function TakeAlong({ base, draft, small = false, onBring }: TakeAlongProps) {
  const { busy, problem, take } = useTake();
  const pages = draft.parts.filter(({ show }) => show === 'pdf');
  return (
    <div className="no-print">
      <Menu
        trigger={
          <Button small={small} busy={busy}>
            {say('takeAlong')}
          </Button>
        }
        groups={[
          [
            {
              words: say('textWithCommentsAndChanges'),
              onPick: () => void take(`${base}/draft.docx?version=${draft.version}`),
            },
            ...pages.map(({ id, name, deliverable }) => ({
              words: say('withNotesPdf', { deliverable: name === '' ? deliverable : name }),
              onPick: () => void take(`${base}/parts/${id}/notes.pdf`),
            })),
            { words: say('notesForProgramsJsonLd'), onPick: () => void take(`${base}/notes.jsonld`) },
          ],
          ...(onBring === undefined ? [] : [[{ words: say('bringMarkedFileBack'), onPick: onBring }]]),
          // The menu is gone before the page is printed.
          [{ words: say('print'), onPick: () => setTimeout(() => window.print(), 0) }],
        ]}
      />
      {problem !== null && <ProblemNotice error={problem} />}
    </div>
  );
}
