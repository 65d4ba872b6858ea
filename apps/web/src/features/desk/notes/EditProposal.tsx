import { LIMITS } from '@salt-circle/contracts/plain';
import {
  describeTextAnchor,
  editTyped,
  passageAfter,
  type ProposedEdit,
  type Selector,
  type TextRange,
} from '@salt-circle/core';
import { useState } from 'react';
import { paragraphsOf } from '../../../app/reading/ByParagraph.js';
import { say } from '../../../words/desk.js';

interface EditProposalProps {
  readonly selector: Extract<Selector, { type: 'text' | 'passage' }>;
  readonly edit: ProposedEdit | null;
  /** Plain text of the part; empty for what has none, such as pages. */
  readonly text: string;
  readonly onChange: (edit: ProposedEdit | null) => void;
  readonly onClose: () => void;
}

/** A small editor over the passage: one types how it should read; paragraphs and places are changed by a press. */
export function EditProposal({ selector, edit, text, onChange, onClose }: EditProposalProps) {
  const passage = selector.quote.exact;
  const [typed, setTyped] = useState(() => (edit === null ? passage : passageAfter(passage, edit)));
  const type = (words: string) => {
    setTyped(words);
    onChange(editTyped(passage, words));
  };
  const press = (next: ProposedEdit) => {
    setTyped(passageAfter(passage, next));
    onChange(next);
  };
  return (
    <div role="group" aria-label={say('proposedEdit')} className="mt-1 space-y-1.5 border-t border-line pt-1.5">
      <label className="block">
        <span className="text-ink-soft">{say('howItShouldRead')}</span>
        <textarea
          rows={2}
          maxLength={LIMITS.noteBody}
          value={typed}
          onChange={({ target }) => type(target.value)}
          className="field-sizing-content block max-h-60 w-full resize-none rounded border border-edge bg-paper px-1.5 py-1 font-serif"
        />
      </label>
      <div className="flex flex-wrap gap-1">
        <Act words={say('takeItOut')} chosen={edit?.type === 'delete'} onPress={() => press({ type: 'delete' })} />
        <Act words={say('beginParagraph')} chosen={edit?.type === 'split'} onPress={() => press({ type: 'split' })} />
        <Act words={say('joinWithNext')} chosen={edit?.type === 'join'} onPress={() => press({ type: 'join' })} />
      </div>
      {selector.type === 'text' && text !== '' && (
        <MoveTo text={text} edit={edit} own={selector.position} onMove={press} />
      )}
      <div className="flex gap-3">
        <button type="button" className="min-h-6 text-dusk underline" onClick={onClose}>
          {say('close')}
        </button>
        {edit !== null && (
          <button
            type="button"
            className="min-h-6 text-ink-soft underline"
            onClick={() => {
              setTyped(passage);
              onChange(null);
            }}
          >
            {say('noEdit')}
          </button>
        )}
      </div>
    </div>
  );
}

interface ActProps {
  readonly words: string;
  readonly chosen: boolean;
  readonly onPress: () => void;
}

function Act({ words, chosen, onPress }: ActProps) {
  return (
    <button
      type="button"
      aria-pressed={chosen}
      onClick={onPress}
      className="min-h-6 rounded border border-line px-1.5 hover:border-edge aria-pressed:border-iodine aria-pressed:bg-crust"
    >
      {words}
    </button>
  );
}

interface MoveToProps {
  readonly text: string;
  readonly edit: ProposedEdit | null;
  /** Where the passage is. */
  readonly own: TextRange;
  readonly onMove: (edit: ProposedEdit) => void;
}

/** To before a paragraph, or to after the last one. */
function MoveTo({ text, edit, own, onMove }: MoveToProps) {
  const paragraphs = paragraphsOf(text).filter(({ start, end }) => end <= own.start || start >= own.end);
  const last = paragraphs.at(-1);
  const chosen =
    edit?.type === 'move'
      ? edit.side === 'after'
        ? 'end'
        : String(paragraphs.findIndex(({ start }) => start === edit.to.position.start))
      : '';
  const move = (to: string) => {
    const paragraph = to === 'end' ? last : paragraphs[Number(to)];
    if (paragraph === undefined || to === '') return;
    onMove({
      type: 'move',
      side: to === 'end' ? 'after' : 'before',
      to: describeTextAnchor(text, to === 'end' ? paragraph : headOf(text, paragraph)),
    });
  };
  return (
    <label className="flex items-center gap-1.5 text-ink-soft">
      {say('moveItTo')}
      <select
        value={chosen}
        onChange={({ target }) => move(target.value)}
        className="min-w-0 flex-1 rounded border border-line bg-paper px-1 py-0.5 text-ink"
      >
        <option value="">{say('whereItIs')}</option>
        {paragraphs.map(({ start, end }, index) => (
          <option key={start} value={String(index)}>
            {say('before', { text: text.slice(start, Math.min(end, start + 40)) })}
          </option>
        ))}
        {last !== undefined && <option value="end">{say('end')}</option>}
      </select>
    </label>
  );
}

/** UTF-16 code units by which a paragraph is known: enough to find it again, and no long quote. */
const HEAD = 120;

function headOf(text: string, { start, end }: TextRange): TextRange {
  if (end - start <= HEAD) return { start, end };
  // No pair of surrogates is cut.
  const cut = /[\uD800-\uDBFF]/.test(text[start + HEAD - 1] as string) ? start + HEAD - 1 : start + HEAD;
  return { start, end: cut };
}
