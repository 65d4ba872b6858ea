import { counted } from '@salt-circle/core';
import type { RosterApplied, RosterPreview } from '@salt-circle/contracts';
import { useState } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { fileAsBase64 } from '../../app/readFile.js';
import { useCourse } from '../../app/useCourse.js';
import { Button, Checkbox, Dialog, FilePick, Notice, Select, TextArea } from '../../kit/index.js';
import { useApplyRosterMutation, usePreviewRosterMutation, type RosterSource } from './peopleApi.js';
import { RosterChanges, RosterProblems } from './RosterChanges.js';

const BLANK: RosterSource = { text: null, base64: null, traitColumn: null, classIds: [] };

/** A roster, read and looked at before it is applied. */
export function RosterDialog({ onClose }: { readonly onClose: () => void }) {
  const course = useCourse();
  const [source, setSource] = useState<RosterSource>(BLANK);
  const [preview, previewing] = usePreviewRosterMutation();
  const [apply, applying] = useApplyRosterMutation();
  const [dropMissing, setDropMissing] = useState(false);
  const [invite, setInvite] = useState(false);
  const shown = previewing.data;
  const look = (next: RosterSource) => {
    setSource(next);
    applying.reset();
    void preview({ courseId: course.id, source: next });
  };
  const choose = async (file: File) => look({ ...BLANK, base64: await fileAsBase64(file) });
  const wrong = shown?.problems.some(({ warning }) => !warning) === true;
  const go = async () => {
    if (shown === undefined) return;
    await apply({ courseId: course.id, source, dropMissing, invite, fingerprint: shown.fingerprint });
  };
  if (applying.data !== undefined) return <Done applied={applying.data} onClose={onClose} />;
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="Read a roster"
      description="Nothing changes before you have seen what it would do."
    >
      <div className="space-y-4">
        <FilePick
          label="A file"
          accept=".csv,.txt,.tsv,.zip"
          hint="CSV with a header row: name, email, and perhaps campus id, section and role, in any order. Or a OneRoster 1.2 bundle (ZIP)."
          onFiles={([file]) => void choose(file)}
        />
        <PasteBox
          key={shown?.text ?? ''}
          start={shown?.text ?? ''}
          busy={previewing.isLoading}
          onRead={(text) => look({ ...BLANK, text, traitColumn: source.traitColumn })}
        />
        {previewing.error !== undefined && <ProblemNotice error={previewing.error} />}
        {shown !== undefined && previewing.error === undefined && (
          <>
            <Understood shown={shown} source={source} onChange={look} />
            <RosterProblems problems={shown.problems} />
            <RosterChanges shown={shown} />
            <div className="space-y-1">
              {shown.missing.length > 0 && (
                <p>
                  <Checkbox
                    label={`Drop ${shown.missing.length === 1 ? 'the student' : `the ${shown.missing.length} students`} whom the roster does not name (their work is kept)`}
                    checked={dropMissing}
                    onChange={({ target }) => setDropMissing(target.checked)}
                  />
                </p>
              )}
              {shown.add.length > 0 && (
                <p>
                  <Checkbox
                    label="Invite those who are added by mail"
                    checked={invite}
                    onChange={({ target }) => setInvite(target.checked)}
                  />
                </p>
              )}
            </div>
            {applying.error !== undefined && <ProblemNotice error={applying.error} />}
            <Button
              look="primary"
              className="sticky bottom-0"
              disabled={wrong || previewing.isLoading}
              busy={applying.isLoading}
              onClick={() => void go()}
            >
              {wrong ? 'Mend what is listed first' : 'Apply'}
            </Button>
          </>
        )}
      </div>
    </Dialog>
  );
}

interface PasteBoxProps {
  readonly start: string;
  readonly busy: boolean;
  readonly onRead: (text: string) => void;
}

function PasteBox({ start, busy, onRead }: PasteBoxProps) {
  const [text, setText] = useState(start);
  return (
    <div className="space-y-2">
      <TextArea
        label={start === '' ? 'Or pasted rows' : 'The rows, to be mended here'}
        placeholder={'name, email, campus id, section'}
        value={text}
        spellCheck={false}
        onChange={({ target }) => setText(target.value)}
        className="max-h-48 w-full rounded border border-edge bg-paper px-2.5 py-1.5 font-mono text-sm"
      />
      <Button small busy={busy} disabled={text.trim() === ''} onClick={() => onRead(text)}>
        {start === '' ? 'See what it would change' : 'Read again'}
      </Button>
    </div>
  );
}

interface UnderstoodProps {
  readonly shown: RosterPreview;
  readonly source: RosterSource;
  readonly onChange: (source: RosterSource) => void;
}

/** What the file was taken for, and what of it can be chosen. */
function Understood({ shown, source, onChange }: UnderstoodProps) {
  const trait = source.traitColumn;
  const columns = trait === null ? shown.unknownColumns : [trait, ...shown.unknownColumns];
  const chosen = source.classIds.length === 0 ? shown.classes.map(({ id }) => id) : source.classIds;
  const toggle = (id: string, on: boolean) => {
    const next = on ? [...chosen, id] : chosen.filter((one) => one !== id);
    if (next.length > 0) onChange({ ...source, classIds: next });
  };
  return (
    <div className="space-y-2 border-t border-line pt-3">
      <p>
        Read: {shown.read}{' '}
        {shown.unknownColumns.length > 0 && (
          <span className="text-ink-soft">Columns left aside: {shown.unknownColumns.join(', ')}.</span>
        )}
      </p>
      {columns.length > 0 && shown.text !== null && (
        <Select
          label="Column to mix groups by"
          value={trait ?? ''}
          options={[['', 'none'], ...columns.map((one) => [one, one] as const)]}
          hint="When groups are made automatically, its values can be spread over them."
          onChange={(column) =>
            onChange({ ...source, text: shown.text, base64: null, traitColumn: column === '' ? null : column })
          }
        />
      )}
      {shown.classes.length > 1 && (
        <div role="group" aria-label="Classes">
          <p className="font-medium">Classes; with several, each becomes a section</p>
          {shown.classes.map(({ id, title, about, students }) => (
            <p key={id}>
              <Checkbox
                label={`${title} (${about === '' ? '' : `${about}, `}${students} students)`}
                checked={chosen.includes(id)}
                onChange={({ target }) => toggle(id, target.checked)}
              />
            </p>
          ))}
        </div>
      )}
    </div>
  );
}

function Done({ applied, onClose }: { readonly applied: RosterApplied; readonly onClose: () => void }) {
  const { added, updated, dropped, invited } = applied;
  return (
    <Dialog open onClose={onClose} title="Roster applied">
      <Notice tone="done" title={`${added} added, ${updated} updated, ${dropped} dropped.`}>
        {invited > 0 && <p>{counted(invited, '1 invitation is', '# invitations are')} in the outbox.</p>}
      </Notice>
      <Button look="primary" className="mt-4" onClick={onClose}>
        Close
      </Button>
    </Dialog>
  );
}
