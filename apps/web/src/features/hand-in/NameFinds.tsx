import { wordsBy } from '@salt-circle/core';
import type { HiddenPassage, NameFindView } from '@salt-circle/contracts';
import { Button } from '../../kit/index.js';
import { say } from '../../words/hand-in.js';

export interface NameFindsProps {
  readonly finds: readonly NameFindView[];
  /** In documents; what was hidden in typed text is there to be changed. */
  readonly hidden: readonly HiddenPassage[];
  readonly kept: ReadonlySet<string>;
  readonly busy: boolean;
  readonly onHide: (find: NameFindView) => void;
  readonly onKeep: (find: NameFindView) => void;
  /** Leads to the place in the text below. */
  readonly onShow: (find: NameFindView) => void;
  readonly onShowAgain: (passage: HiddenPassage) => void;
}

/** The server sends so many letters from before and after, where there are as many. */
const AROUND = 40;

const WHAT = wordsBy(say, { name: 'name', email: 'addressWord', 'campus-id': 'campusId' });

/** Each place that may tell who wrote it, in its sentence, with what can be done about it. */
export function NameFinds({ finds, hidden, kept, busy, onHide, onKeep, onShow, onShowAgain }: NameFindsProps) {
  const open = finds.filter(({ removed }) => !removed);
  const removed = finds.filter((find) => find.removed);
  return (
    <section
      aria-label={say('placesThatMayTellWho')}
      className="border-l-[3px] border-saffron bg-saffron-ground px-3 py-2"
    >
      {open.length > 0 && (
        <>
          <h3 className="font-semibold">{say('placesMayTellReviewersWho', { open: open.length })}</h3>
          <ul>
            {open.map((find) => (
              <li
                key={find.key}
                className="flex flex-wrap items-center justify-between gap-3 border-t border-line py-1.5"
              >
                <p className="min-w-0 flex-1 text-sm">
                  <span className="text-ink-soft">
                    {say('foundIn', {
                      where: find.whereWords,
                      before: `${find.before.length === AROUND ? '…' : ''}${find.before}`,
                    })}
                  </span>
                  <button
                    type="button"
                    title={say('showItInTextBelow')}
                    onClick={() => onShow(find)}
                    className="font-semibold text-madder underline decoration-dashed"
                  >
                    {find.exact}
                  </button>
                  <span className="text-ink-soft">
                    {find.after}
                    {find.after.length === AROUND && '…'}
                  </span>{' '}
                  <span className="whitespace-nowrap text-ink-soft">
                    {find.certainty === 'perhaps'
                      ? say('perhapsYour', { what: WHAT[find.what] })
                      : say('your', { what: WHAT[find.what] })}
                  </span>
                </p>
                {kept.has(find.key) ? (
                  <span className="text-sm text-ink-soft">{say('kept')}</span>
                ) : (
                  <span className="flex gap-1">
                    {find.hideable ? (
                      <Button
                        small
                        disabled={busy}
                        aria-label={say('hide', { exact: find.exact })}
                        onClick={() => onHide(find)}
                      >
                        {say('hideIt')}
                      </Button>
                    ) : (
                      <span className="self-center text-sm text-ink-soft">{say('changeItInFileOr')}</span>
                    )}
                    <Button
                      small
                      disabled={busy}
                      aria-label={say('keep', { exact: find.exact })}
                      onClick={() => onKeep(find)}
                    >
                      {say('keepIt')}
                    </Button>
                  </span>
                )}
              </li>
            ))}
          </ul>
        </>
      )}
      {hidden.map((passage) => (
        <p
          key={`${passage.partId}:${passage.start}`}
          className="flex items-center justify-between gap-3 border-t border-line py-1.5 text-sm"
        >
          <span>
            {say('hiddenFromReviewersIn', {
              deliverable: passage.deliverable,
              strong: <strong>{passage.words}</strong>,
            })}
          </span>
          <Button
            small
            disabled={busy}
            aria-label={say('showAgain', { words: passage.words })}
            onClick={() => onShowAgain(passage)}
          >
            {say('showItAgain')}
          </Button>
        </p>
      ))}
      {removed.length > 0 && (
        <p className="pt-1 text-sm">
          {say('leftOutForReviewers', {
            what: [...new Set(removed.map(({ whereWords, exact }) => `${whereWords} (${exact})`))].join('; '),
          })}
        </p>
      )}
    </section>
  );
}
