import { useState, type ReactNode } from 'react';
import { Button, Dialog, FilePick, TextArea } from '../kit/index.js';
import { ProblemNotice } from './ProblemNotice.js';
import { fileAsBase64 } from './readFile.js';
import { say } from '../words/app.js';

export interface RowsSource {
  readonly text: string | null;
  readonly base64: string | null;
}

/** What every reading of rows answers with. */
export interface RowsRead {
  readonly problems: ReadonlyArray<{ readonly sentence: string }>;
  readonly text: string;
  readonly applied: boolean;
}

export interface RowsDialogProps<Read extends RowsRead> {
  readonly title: string;
  readonly description: string;
  /** Which columns, for the file; and the first row, for what is pasted. */
  readonly hint: string;
  readonly header: string;
  readonly lookLabel: string;
  readonly read: (source: RowsSource, apply: boolean) => Promise<Read | undefined>;
  readonly data: Read | undefined;
  readonly error: unknown;
  readonly busy: boolean;
  readonly onClose: () => void;
  /** What it would do. Shown also beside problems, where `data` says so. */
  readonly children: (data: Read) => ReactNode;
}

/** Rows of a CSV file, or pasted ones, looked at before they are applied. With a single mistake nothing is. */
export function RowsDialog<Read extends RowsRead>({
  title,
  description,
  hint,
  header,
  lookLabel,
  read,
  data,
  error,
  busy,
  onClose,
  children,
}: RowsDialogProps<Read>) {
  const [text, setText] = useState('');
  const ask = async (source: RowsSource, apply: boolean) => {
    const answer = await read(source, apply);
    if (answer === undefined) return;
    setText(answer.text);
    if (answer.applied) onClose();
  };
  const wrong = data !== undefined && data.problems.length > 0;
  return (
    <Dialog open wide onClose={onClose} title={title} description={description}>
      <div className="space-y-3">
        <FilePick
          label={say('csvFile')}
          accept=".csv,.txt,.tsv"
          hint={hint}
          onFiles={([file]) => void fileAsBase64(file).then((base64) => ask({ text: null, base64 }, false))}
        />
        <TextArea
          label={say('orPastedRows')}
          placeholder={header}
          value={text}
          spellCheck={false}
          onChange={({ target }) => setText(target.value)}
        />
        <Button small busy={busy} disabled={text.trim() === ''} onClick={() => void ask({ text, base64: null }, false)}>
          {lookLabel}
        </Button>
        {error !== undefined && <ProblemNotice error={error} />}
        {data !== undefined && (
          <>
            {wrong && (
              <ul
                role="alert"
                className="max-h-52 overflow-y-auto border-l-[3px] border-madder px-3 text-sm text-madder"
              >
                {data.problems.map(({ sentence }) => (
                  <li key={sentence}>{sentence}</li>
                ))}
              </ul>
            )}
            {children(data)}
            <Button look="primary" disabled={wrong} busy={busy} onClick={() => void ask({ text, base64: null }, true)}>
              {wrong ? say('mendWhatIsListedFirst') : say('apply')}
            </Button>
          </>
        )}
      </div>
    </Dialog>
  );
}
