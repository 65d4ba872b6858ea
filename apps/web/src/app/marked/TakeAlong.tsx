import type { DraftReading, Problem } from '@salt-circle/contracts';
import { useState } from 'react';
import { Button, Menu } from '../../kit/index.js';
import { ownFetch } from '../ownFetch.js';
import { ProblemNotice } from '../ProblemNotice.js';
import { fileNameOf, saveAs } from '../saveAs.js';

interface TakeAlongProps {
  /** Below which the files are: "/reviews/…", or the feedback of a draft. */
  readonly base: string;
  readonly draft: Pick<DraftReading, 'parts' | 'version'>;
  readonly small?: boolean;
}

const NO_CONNECTION: Problem = {
  code: 'unexpected',
  sentence: 'There is no connection, so the file was not made.',
  whatToDo: 'Try again once there is one.',
  fields: [],
};

/** The draft with what was written about it, as a file for other programs, or on paper. */
export function TakeAlong({ base, draft, small = false }: TakeAlongProps) {
  const [making, setMaking] = useState(false);
  const [problem, setProblem] = useState<Problem | null>(null);
  const take = async (path: string, fallback: string) => {
    setMaking(true);
    setProblem(null);
    try {
      const response = await ownFetch(`/api${base}/${path}`, 'GET');
      if (response.ok) saveAs(fileNameOf(response, fallback), await response.blob());
      else setProblem((await response.json()) as Problem);
    } catch {
      setProblem(NO_CONNECTION);
    }
    setMaking(false);
  };
  const pages = draft.parts.filter(({ show }) => show === 'pdf');
  return (
    <div className="no-print">
      <Menu
        trigger={
          <Button small={small} busy={making}>
            Take along…
          </Button>
        }
        groups={[
          [
            {
              words: 'Text with comments and changes (DOCX)',
              onPick: () => void take(`draft.docx?version=${draft.version}`, 'draft.docx'),
            },
            ...pages.map(({ id, name, deliverable }) => ({
              words: `${name === '' ? deliverable : name} with notes (PDF)`,
              onPick: () => void take(`parts/${id}/notes.pdf`, 'notes.pdf'),
            })),
            { words: 'Notes for programs (JSON-LD)', onPick: () => void take('notes.jsonld', 'notes.jsonld') },
          ],
          // The menu is gone before the page is printed.
          [{ words: 'Print…', onPick: () => setTimeout(() => window.print(), 0) }],
        ]}
      />
      {problem !== null && <ProblemNotice error={problem} />}
    </div>
  );
}
