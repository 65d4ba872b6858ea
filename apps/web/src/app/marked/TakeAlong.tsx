import type { DraftReading } from '@salt-circle/contracts';
import { Button, Menu } from '../../kit/index.js';
import { ProblemNotice } from '../ProblemNotice.js';
import { useTake } from '../useTake.js';

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
            Take along…
          </Button>
        }
        groups={[
          [
            {
              words: 'Text with comments and changes (DOCX)',
              onPick: () => void take(`${base}/draft.docx?version=${draft.version}`),
            },
            ...pages.map(({ id, name, deliverable }) => ({
              words: `${name === '' ? deliverable : name} with notes (PDF)`,
              onPick: () => void take(`${base}/parts/${id}/notes.pdf`),
            })),
            { words: 'Notes for programs (JSON-LD)', onPick: () => void take(`${base}/notes.jsonld`) },
          ],
          ...(onBring === undefined ? [] : [[{ words: 'Bring a marked file back…', onPick: onBring }]]),
          // The menu is gone before the page is printed.
          [{ words: 'Print…', onPick: () => setTimeout(() => window.print(), 0) }],
        ]}
      />
      {problem !== null && <ProblemNotice error={problem} />}
    </div>
  );
}
