import type { NoteView, PersonLabel } from '@salt-circle/contracts';
import type { AnchorMatch, Selector } from '@salt-circle/core';
import type { ReactNode } from 'react';
import { labelWords } from '../People.js';
import { EditWords } from './EditWords.js';
import { KIND_EDGE, KIND_TEXT, kindWord } from './noteKinds.js';
import { say } from '../../words/app.js';

export interface NoteTextProps {
  readonly note: Pick<NoteView, 'kind' | 'body' | 'place' | 'edit'>;
  readonly match?: AnchorMatch | undefined;
  readonly by?: PersonLabel | undefined;
  /** Where it stands, in words; empty where its passage says it. */
  readonly where?: string;
  readonly active?: boolean;
  /** Repeats the passage, where the note does not stand beside it. */
  readonly quoted?: boolean;
  readonly onActivate?: () => void;
  /** By which its passage points to it; a note that is shown twice has one. */
  readonly domId?: string | undefined;
  /** What is attached to it. */
  readonly attached?: ReactNode;
  /** It stands in something that is pressed as a whole. */
  readonly inside?: boolean;
}

/** A note to read: its kind, who left it, what it says. */
export function NoteText({
  note,
  match,
  by,
  where = '',
  active = false,
  quoted = false,
  onActivate,
  domId,
  attached,
  inside = false,
}: NoteTextProps) {
  const { kind, body, place, edit } = note;
  return (
    <div
      id={domId}
      role="comment"
      className={`border-l-[3px] px-2.5 py-1 text-sm ${KIND_EDGE[kind]} ${active ? 'bg-paper outline outline-line' : ''} ${onActivate === undefined ? '' : 'cursor-pointer'}`}
      onClick={inside ? undefined : onActivate}
    >
      <p className={`font-semibold ${KIND_TEXT[kind]}`}>
        {onActivate === undefined || inside ? (
          kindWord(kind)
        ) : (
          <button type="button" className="min-h-6" title={say('showItsPassage')} onClick={onActivate}>
            {kindWord(kind)}
          </button>
        )}
        {by !== undefined && <span className="font-normal text-ink-soft"> {labelWords(by)}</span>}
      </p>
      <PassageState match={match} selector={place.selector} where={where} quoted={quoted} />
      {edit !== null && <EditWords edit={edit} selector={place.selector} />}
      {body !== '' && <p className="whitespace-pre-wrap">{body}</p>}
      {body === '' && edit === null && <p className="text-ink-soft">{say('withoutRemark')}</p>}
      {attached !== undefined && <div onClick={(event) => event.stopPropagation()}>{attached}</div>}
    </div>
  );
}

export interface PassageStateProps {
  readonly match: AnchorMatch | undefined;
  readonly selector: Selector;
  readonly where: string;
  readonly quoted: boolean;
}

/** Where a note stands; a passage in its own words, when it stands elsewhere, was changed or is gone. */
export function PassageState({ match, selector, where, quoted }: PassageStateProps) {
  if (selector.type !== 'text') {
    return (
      <>
        {where !== '' && <p className="text-ink-soft">{where}</p>}
        {selector.type === 'passage' && (
          <p>
            <q className="text-ink-soft">{shortened(selector.quote.exact)}</q>
          </p>
        )}
      </>
    );
  }
  const passage = <q className="text-ink-soft">{shortened(selector.quote.exact)}</q>;
  if (match?.found === 'gone') {
    return <p className="text-copper">{say('thisPassageIsNoLonger', { passage })}</p>;
  }
  if (match?.found === 'changed') {
    return (
      <p className="text-copper">
        {match.certainty === 'sure'
          ? say('passageWasChangedItRead', { passage })
          : say('perhapsThisPassageItRead', { passage })}
      </p>
    );
  }
  if (match?.certainty === 'perhaps') {
    return <p className="text-copper">{say('perhapsHereWhatStoodAround', { passage })}</p>;
  }
  if (!quoted) return null;
  return (
    <p className="text-ink-soft">
      {where !== '' && `${where}: `}
      {passage}
    </p>
  );
}

function shortened(text: string): string {
  const line = text.replace(/\s+/g, ' ');
  return line.length <= 120 ? line : `${line.slice(0, 80)} … ${line.slice(-30)}`;
}
