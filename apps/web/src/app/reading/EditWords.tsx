import type { ProposedEdit, Selector } from '@salt-circle/core';
import { say } from '../../words/app.js';

interface EditWordsProps {
  readonly edit: ProposedEdit;
  readonly selector: Selector;
}

/** What a note proposes to do with its passage: old words struck through, new ones underlined, the rest in words. */
export function EditWords({ edit, selector }: EditWordsProps) {
  const passage = selector.type === 'text' || selector.type === 'passage' ? selector.quote.exact : '';
  const old = <del className="text-ink-soft decoration-madder">{passage}</del>;
  switch (edit.type) {
    case 'insert':
      return (
        <p className="whitespace-pre-wrap">
          {say(edit.side === 'before' ? 'putBeforeIt' : 'putAfterIt', { words: <New words={edit.text} /> })}
        </p>
      );
    case 'delete':
      return <p>{say('takeOut', { old })}</p>;
    case 'replace':
      return (
        <p className="whitespace-pre-wrap">
          {old} <New words={edit.text} />
        </p>
      );
    case 'move':
      return (
        <p>
          {say(edit.side === 'before' ? 'moveToBefore' : 'moveToAfter', {
            place: <q className="text-ink-soft">{edit.to.quote.exact.slice(0, 80)}</q>,
          })}
        </p>
      );
    case 'split':
      return <p>{say('beginParagraphHere')}</p>;
    case 'join':
      return <p>{say('joinThisParagraphWithNext')}</p>;
  }
}

function New({ words }: { readonly words: string }) {
  return <ins className="text-kelp decoration-kelp">{words}</ins>;
}
