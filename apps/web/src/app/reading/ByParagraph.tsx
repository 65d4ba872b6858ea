import type { NoteKind } from '@salt-circle/contracts';
import type { TextRange } from '@salt-circle/core';
import { useState } from 'react';
import { Button, Dialog, Select } from '../../kit/index.js';
import { kindsOfNotes, KIND_TEXT } from './noteKinds.js';
import { say } from '../../words/app.js';

interface ByParagraphProps {
  readonly textOf: () => string;
  readonly onNote: (kind: NoteKind, text: string, range: TextRange) => void;
}

/**
 * A note on a paragraph without selecting one: for those whose screen reader takes the single keys, or who select by voice. In
 * sight once it has the focus; on a telephone always, where selecting is hardest.
 */
export function ByParagraph({ textOf, onNote }: ByParagraphProps) {
  const [text, setText] = useState<string | null>(null);
  const [chosen, setChosen] = useState('0');
  const paragraphs = text === null ? [] : paragraphsOf(text);
  const leave = (kind: NoteKind) => {
    const range = paragraphs[Number(chosen)];
    setText(null);
    if (text !== null && range !== undefined) onNote(kind, text, range);
  };
  return (
    <div className="mb-2 @2xl:sr-only @2xl:focus-within:not-sr-only">
      <Button
        small
        onClick={() => {
          setChosen('0');
          setText(textOf());
        }}
      >
        {say('addNoteOnParagraph')}
      </Button>
      <Dialog open={text !== null} onClose={() => setText(null)} title={say('addNoteOnParagraphLabel')}>
        <div className="space-y-4">
          <Select
            label={say('paragraph')}
            value={chosen}
            options={paragraphs.map(({ start, end }, index) => [
              String(index),
              `${index + 1}: ${shortened((text ?? '').slice(start, end))}`,
            ])}
            onChange={setChosen}
          />
          <div role="group" aria-label={say('kindOfNote')} className="flex flex-wrap gap-2">
            {kindsOfNotes().map(({ kind, word, hint }) => (
              <Button key={kind} title={hint} onClick={() => leave(kind)}>
                <span className={KIND_TEXT[kind]}>{word}</span>
              </Button>
            ))}
          </div>
        </div>
      </Dialog>
    </div>
  );
}

/** Lines of a text that say something; in a text taken from a page, each is a heading, a paragraph, an entry or a cell. */
export function paragraphsOf(text: string): TextRange[] {
  const found: TextRange[] = [];
  let start = 0;
  for (const line of text.split('\n')) {
    const words = line.trim();
    if (words !== '')
      found.push({ start: start + line.indexOf(words), end: start + line.indexOf(words) + words.length });
    start += line.length + 1;
  }
  return found;
}

function shortened(text: string): string {
  return text.length <= 70 ? text : `${text.slice(0, 69)}…`;
}
