import type { FormImportView } from '@salt-circle/contracts';
import { wordsBy } from '@salt-circle/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { FormPreview } from '../../app/form/FormPreview.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { fileAsBase64 } from '../../app/readFile.js';
import { useCourse } from '../../app/useCourse.js';
import { Button, Dialog, FilePick, Notice, Select } from '../../kit/index.js';
import { useReadFormFileMutation } from './libraryPageApi.js';
import { say } from '../../words/library.js';

const KIND_WORDS: Readonly<Record<FormImportView['kind'], string>> = wordsBy(say, {
  'form-file': 'formFileOfSaltCircle',
  rubric: 'rubricOfCaseStandard',
  table: 'tableOfCriteriaAndLevels',
});

/** A form from a file: what was understood is shown before anything is added. */
export function FormImportDialog({ onClose }: { readonly onClose: () => void }) {
  const course = useCourse();
  const navigate = useNavigate();
  const [source, setSource] = useState<{
    readonly name: string;
    readonly base64: string;
    readonly index: number;
  } | null>(null);
  const [read, { data, error, isLoading }] = useReadFormFileMutation();
  const ask = async (next: NonNullable<typeof source>, add: boolean) => {
    setSource(next);
    const result = await read({ courseId: course.id, text: null, ...next, add });
    const id = result.data?.addedId ?? null;
    if (id !== null) void navigate(`forms/${id}`);
  };
  const choose = async (file: File) => ask({ name: file.name, base64: await fileAsBase64(file), index: 0 }, false);
  return (
    <Dialog open wide onClose={onClose} title={say('readFormFromFile')} description={say('nothingIsAddedBeforeYou')}>
      <div className="space-y-4">
        <FilePick
          label={say('file')}
          accept=".json,.csv,.txt,.tsv"
          hint={say('formFileJsonCase1')}
          onFiles={([file]) => void choose(file)}
        />
        {error !== undefined && <ProblemNotice error={error} />}
        {data !== undefined && source !== null && (
          <>
            <p>
              {say('readAs', {
                title: data.title,
                kind: KIND_WORDS[data.kind],
                strong: (words) => <strong>{words}</strong>,
              })}
              {data.ignored.length > 0 && (
                <span className="text-saffron">
                  {' '}
                  {say('notUnderstoodAndLeftAside', { ignored: data.ignored.join(', ') })}
                </span>
              )}
            </p>
            {data.titles.length > 1 && (
              <Select
                label={say('whichRubric')}
                value={String(source.index)}
                options={data.titles.map((title, index) => [String(index), title] as const)}
                onChange={(index) => void ask({ ...source, index: Number(index) }, false)}
              />
            )}
            {data.problems.length > 0 && (
              <Notice tone="soon" title={say('whatDoesNotFit')}>
                <ul className="list-disc pl-5">
                  {data.problems.map(({ path, code, sentence }) => (
                    <li key={path + code}>{sentence}</li>
                  ))}
                </ul>
              </Notice>
            )}
            {data.form !== null && (
              <div className="max-h-80 overflow-y-auto border border-line p-3">
                <FormPreview form={data.form} />
              </div>
            )}
            <Button
              look="primary"
              disabled={data.form === null}
              busy={isLoading}
              onClick={() => void ask(source, true)}
            >
              {say('addItToLibrary')}
            </Button>
          </>
        )}
      </div>
    </Dialog>
  );
}
