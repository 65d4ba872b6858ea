import type { NoteView } from '@salt-circle/contracts';
import { scoreWords, type Completeness, type FormScore, type ReviewForm } from '@salt-circle/core';
import type { ReactNode } from 'react';
import { Tabs } from '../../kit/index.js';
import { FormPanel, type FormPanelProps } from './FormPanel.js';
import type { AnswersState } from '../../app/form/useAnswers.js';
import { say } from '../../words/desk.js';

export type PanelTab = 'form' | 'notes' | 'check' | 'earlier';
export type View = 'draft' | PanelTab;

export interface DeskPanelProps {
  readonly form: ReviewForm;
  readonly editable: boolean;
  readonly answers: AnswersState;
  readonly state: Completeness;
  readonly score: FormScore | null;
  readonly savePrefix: string;
  /** In the order of their places. */
  readonly notes: readonly NoteView[];
  /** Shows a note in its place. */
  readonly onNote: (id: string) => void;
  readonly files: FormPanelProps['files'];
  readonly card: (id: string) => ReactNode;
  /** Below the form. */
  readonly foot: ReactNode | null;
  /** For staff: why to look at it. */
  readonly check: ReactNode | null;
  /** Of a second round: what was said in the first. */
  readonly earlier: ReactNode | null;
  readonly tab: PanelTab;
  readonly onTab: (tab: PanelTab) => void;
}

/** The form, and all notes as a list. */
export function DeskPanel(props: DeskPanelProps) {
  return (
    <div className="h-full min-h-0 px-5 pt-1">
      <Tabs
        fill
        label={say('review')}
        value={props.tab}
        onChange={(next) => props.onTab(next as PanelTab)}
        aside={<ScoreSoFar {...props} />}
        tabs={panelTabs(props)}
      />
    </div>
  );
}

function ScoreSoFar({ form, score, editable }: Pick<DeskPanelProps, 'form' | 'score' | 'editable'>) {
  if (score === null) return null;
  return (
    <span className="text-sm text-ink-soft">
      {editable ? say('soFar', { score: scoreWords(form, score) }) : scoreWords(form, score)}
    </span>
  );
}

function panelTabs({
  form,
  editable,
  answers,
  state,
  notes,
  files,
  savePrefix,
  card,
  check,
  earlier,
  foot,
  onNote,
}: DeskPanelProps) {
  return [
    ...(check === null ? [] : [{ key: 'check', words: say('check'), content: check }]),
    {
      key: 'form',
      words: say('form'),
      content: (
        <>
          <FormPanel
            form={form}
            notes={notes}
            onNote={onNote}
            files={files}
            answers={answers.answers}
            state={state}
            editable={editable}
            savePrefix={savePrefix}
            onChange={answers.change}
            onReplace={answers.replace}
          />
          {foot}
        </>
      ),
    },
    {
      key: 'notes',
      words: say('notes', { notes: notes.length }),
      content: (
        <div className="space-y-3 py-3">
          {notes.length === 0 && (
            <p className="text-ink-soft">{editable ? say('selectPassageInDraftOr') : say('noNotesOnThisDraft')}</p>
          )}
          <ul className="space-y-3">
            {notes.map(({ id }) => (
              <li key={id}>{card(id)}</li>
            ))}
          </ul>
        </div>
      ),
    },
    ...(earlier === null ? [] : [{ key: 'earlier', words: say('earlier'), content: earlier }]),
  ];
}

export interface OneViewProps extends DeskPanelProps {
  readonly view: View;
  readonly onView: (view: View) => void;
  readonly draft: ReactNode;
}

/** On a telephone: draft, form or notes, by a switch. */
export function OneView({ view, onView, draft, ...panel }: OneViewProps) {
  return (
    <div className="h-full px-2">
      <Tabs
        fill
        label={say('draftFormOrNotes')}
        value={view}
        onChange={(next) => onView(next as View)}
        tabs={[{ key: 'draft', words: say('draftLabel'), content: draft }, ...panelTabs(panel)]}
      />
    </div>
  );
}
