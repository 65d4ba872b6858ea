import type { ImportedPair } from '@salt-circle/contracts';
import { useState } from 'react';
import { labelWords } from '../../app/People.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { fileAsBase64 } from '../../app/readFile.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, Dialog, FilePick, TextArea } from '../../kit/index.js';
import { useReadAllocationFileMutation } from './allocationApi.js';
import { counted } from './sentences.js';

/** An allocation from a file or pasted rows, looked at before it is applied. */
export function FileDialog({ onClose }: { readonly onClose: () => void }) {
  const exchange = useExchange();
  const [text, setText] = useState('');
  const [read, { data, error, isLoading }] = useReadAllocationFileMutation();
  const ask = async (source: { text: string | null; base64: string | null }, apply: boolean) => {
    const result = await read({ id: exchange.id, ...source, apply });
    if (result.data === undefined) return;
    setText(result.data.text);
    if (result.data.applied) onClose();
  };
  const wrong = data !== undefined && data.problems.length > 0;
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="An allocation from a file"
      description="Pairs that are not in the file are taken away, unless they have begun. You can undo it until a review has begun."
    >
      <div className="space-y-3">
        <FilePick
          label="A CSV file"
          accept=".csv,.txt,.tsv"
          hint="A row per review with the columns reviewer and draft (email or campus id; a group by its name) and, if you like, fixed (yes or no)."
          onFiles={([file]) => void fileAsBase64(file).then((base64) => ask({ text: null, base64 }, false))}
        />
        <TextArea
          label="Or pasted rows"
          placeholder="reviewer, draft, fixed"
          value={text}
          spellCheck={false}
          onChange={({ target }) => setText(target.value)}
        />
        <Button
          small
          busy={isLoading}
          disabled={text.trim() === ''}
          onClick={() => void ask({ text, base64: null }, false)}
        >
          See what it would do
        </Button>
        {error !== undefined && <ProblemNotice error={error} />}
        {data !== undefined && (
          <>
            {wrong && (
              <ul
                role="alert"
                className="max-h-52 overflow-y-auto border-l-[3px] border-madder px-3 text-sm text-madder"
              >
                {data.problems.map(({ row, sentence }) => (
                  <li key={`${row} ${sentence}`}>{row > 0 ? `Row ${row}: ${sentence}` : sentence}</li>
                ))}
              </ul>
            )}
            {!wrong && (
              <div className="space-y-1">
                <p>{counted(data.same, 'pair stays', 'pairs stay')} as it is.</p>
                <Pairs title="Come" pairs={data.added} />
                <Pairs title="Go" pairs={data.removed} />
                <Pairs title="Stay, because they have begun" pairs={data.kept} />
              </div>
            )}
            <Button
              look="primary"
              disabled={wrong}
              busy={isLoading}
              onClick={() => void ask({ text, base64: null }, true)}
            >
              {wrong ? 'Mend what is listed first' : 'Apply'}
            </Button>
          </>
        )}
      </div>
    </Dialog>
  );
}

function Pairs({ title, pairs }: { readonly title: string; readonly pairs: readonly ImportedPair[] }) {
  if (pairs.length === 0) return null;
  return (
    <details open={pairs.length <= 12}>
      <summary className="font-medium">
        {title}: {counted(pairs.length, 'pair', 'pairs')}
      </summary>
      <ul className="max-h-40 overflow-y-auto pl-4 text-sm">
        {pairs.map(({ reviewer, author }) => (
          <li key={`${labelWords(reviewer)} ${labelWords(author)}`}>
            {labelWords(reviewer)} reviews {labelWords(author)}
          </li>
        ))}
      </ul>
    </details>
  );
}
