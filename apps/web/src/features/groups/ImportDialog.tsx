import type { GroupSetView } from '@salt-circle/contracts';
import { useState } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { fileAsBase64 } from '../../app/readFile.js';
import { useCourse } from '../../app/useCourse.js';
import { Button, Dialog, FilePick, TextArea } from '../../kit/index.js';
import { useImportGroupsMutation } from './groupsApi.js';

/** Who is in which group, from a file or pasted rows, looked at before it is applied. */
export function ImportDialog({ set, onClose }: { readonly set: GroupSetView; readonly onClose: () => void }) {
  const course = useCourse();
  const [text, setText] = useState('');
  const [read, { data, error, isLoading }] = useImportGroupsMutation();
  const ask = async (source: { text: string | null; base64: string | null }, apply: boolean) => {
    const result = await read({ courseId: course.id, setId: set.id, ...source, apply });
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
      title={`Groups of “${set.title}” from a file`}
      description="The present groups of the set are replaced once you apply it."
    >
      <div className="space-y-3">
        <FilePick
          label="A CSV file"
          accept=".csv,.txt,.tsv"
          hint="A row per person with the columns group and email, or group and campus id, in any order."
          onFiles={([file]) => void fileAsBase64(file).then((base64) => ask({ text: null, base64 }, false))}
        />
        <TextArea
          label="Or pasted rows"
          placeholder="group, email"
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
          See what it would make
        </Button>
        {error !== undefined && <ProblemNotice error={error} />}
        {data !== undefined && (
          <>
            {wrong && (
              <ul role="alert" className="border-l-[3px] border-madder px-3 text-sm text-madder">
                {data.problems.map(({ sentence }) => (
                  <li key={sentence}>{sentence}</li>
                ))}
              </ul>
            )}
            <ul className="max-h-60 overflow-y-auto">
              {data.groups.map(({ title, members }) => (
                <li key={title}>
                  <strong>{title}</strong> <span className="text-ink-soft">{members.join(', ')}</span>
                </li>
              ))}
            </ul>
            {data.without.length > 0 && (
              <p className="text-saffron">
                In no group: {data.without.slice(0, 20).join(', ')}
                {data.without.length > 20 && ` and ${data.without.length - 20} others`}
              </p>
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
