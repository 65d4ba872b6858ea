import type { ProposedEdit, Selector } from '@salt-circle/core';

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
          {edit.side === 'before' ? 'Put before it: ' : 'Put after it: '}
          <New words={edit.text} />
        </p>
      );
    case 'delete':
      return <p>Take out: {old}</p>;
    case 'replace':
      return (
        <p className="whitespace-pre-wrap">
          {old} <New words={edit.text} />
        </p>
      );
    case 'move':
      return (
        <p>
          {edit.side === 'before' ? 'Move to before ' : 'Move to after '}
          <q className="text-ink-soft">{edit.to.quote.exact.slice(0, 80)}</q>
        </p>
      );
    case 'split':
      return <p>Begin a paragraph here.</p>;
    case 'join':
      return <p>Join this paragraph with the next one.</p>;
  }
}

function New({ words }: { readonly words: string }) {
  return <ins className="text-kelp decoration-kelp">{words}</ins>;
}
