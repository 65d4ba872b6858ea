import type { RosterApplied, RosterPreview } from '@salt-circle/contracts';
import { useState } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { fileAsBase64 } from '../../app/readFile.js';
import { useCourse } from '../../app/useCourse.js';
import { Button, Checkbox, Dialog, FilePick, Notice, Select, TextArea } from '../../kit/index.js';
import { useApplyRosterMutation, usePreviewRosterMutation, type RosterSource } from './peopleApi.js';
import { RosterChanges, RosterProblems } from './RosterChanges.js';
import { say } from '../../words/people.js';

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
    <Dialog open wide onClose={onClose} title={say('readRosterLabel')} description={say('nothingChangesBeforeYouHave')}>
      <div className="space-y-4">
        <FilePick
          label={say('file')}
          accept=".csv,.txt,.tsv,.zip"
          hint={say('csvWithHeaderRowName')}
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
                    label={
                      shown.missing.length === 1
                        ? say('dropStudentWhomRosterDoes')
                        : say('dropStudentsWhomRosterDoes', { missing: shown.missing.length })
                    }
                    checked={dropMissing}
                    onChange={({ target }) => setDropMissing(target.checked)}
                  />
                </p>
              )}
              {shown.add.length > 0 && (
                <p>
                  <Checkbox
                    label={say('inviteThoseWhoAreAdded')}
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
              {wrong ? say('mendWhatIsListedFirst') : say('apply')}
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
        label={start === '' ? say('orPastedRows') : say('rowsToBeMendedHere')}
        placeholder={say('nameEmailCampusIdSection')}
        value={text}
        spellCheck={false}
        onChange={({ target }) => setText(target.value)}
        className="max-h-48 w-full rounded border border-edge bg-paper px-2.5 py-1.5 font-mono text-sm"
      />
      <Button small busy={busy} disabled={text.trim() === ''} onClick={() => onRead(text)}>
        {start === '' ? say('seeWhatItWouldChange') : say('readAgain')}
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
        {say('read', { read: shown.read })}{' '}
        {shown.unknownColumns.length > 0 && (
          <span className="text-ink-soft">
            {say('columnsLeftAside', { unknownColumns: shown.unknownColumns.join(', ') })}
          </span>
        )}
      </p>
      {columns.length > 0 && shown.text !== null && (
        <Select
          label={say('columnToMixGroupsBy')}
          value={trait ?? ''}
          options={[['', say('none')], ...columns.map((one) => [one, one] as const)]}
          hint={say('whenGroupsAreMadeAutomatically')}
          onChange={(column) =>
            onChange({ ...source, text: shown.text, base64: null, traitColumn: column === '' ? null : column })
          }
        />
      )}
      {shown.classes.length > 1 && (
        <div role="group" aria-label={say('classes')}>
          <p className="font-medium">{say('classesWithSeveralEachBecomes')}</p>
          {shown.classes.map(({ id, title, about, students }) => (
            <p key={id}>
              <Checkbox
                label={
                  about === '' ? say('students', { title, students }) : say('studentsOf', { title, about, students })
                }
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
    <Dialog open onClose={onClose} title={say('rosterApplied')}>
      <Notice tone="done" title={say('addedUpdatedDropped', { added, updated, dropped })}>
        {invited > 0 && <p>{say('invitationsAreInOutbox', { invited })}</p>}
      </Notice>
      <Button look="primary" className="mt-4" onClick={onClose}>
        {say('close')}
      </Button>
    </Dialog>
  );
}
