import type { DeskView, FlagView } from '@salt-circle/contracts';
import { useEffect, useEffectEvent } from 'react';
import { Link, useNavigate } from 'react-router';
import { isTyping, useWalk } from '../../../app/boards/Walk.js';
import { useReviewCheckQuery, useSaveCheckMutation } from '../../../app/moderation/checkApi.js';
import { flagWords } from '../../../app/moderation/flagWords.js';
import { selectSingleKeys } from '../../../app/layoutSlice.js';
import { ProblemNotice } from '../../../app/ProblemNotice.js';
import { useAppSelector } from '../../../app/store.js';
import { When } from '../../../app/time/When.js';
import { Button, Loading, StateMark } from '../../../kit/index.js';
import { LookAnswers } from './LookAnswers.js';
import { Withholding } from './Withholding.js';
import { say } from '../../../words/desk.js';

export interface CheckPanelProps {
  readonly desk: DeskView;
  /** Shows a note in its place. */
  readonly onNote: (id: string) => void;
}

/** For staff, beside the review: why it is to be looked at, who has, and keeping it from its author. */
export function CheckPanel({ desk, onNote }: CheckPanelProps) {
  const { data, error } = useReviewCheckQuery(desk.id, { refetchOnMountOrArgChange: true });
  const [save, saving] = useSaveCheckMutation();
  const navigate = useNavigate();
  const walk = useWalk();
  const singleKeys = useAppSelector(selectSingleKeys);
  const flags = data?.flags ?? null;
  const dismissed = (flags ?? []).filter((one) => one.dismissed).map(({ key }) => key);
  const mark = async (looked: boolean, keys: readonly string[] = dismissed) =>
    (await save({ reviewId: desk.id, looked, dismissed: keys })).error === undefined;
  const lookedAt = async () => {
    if (!(await mark(true))) return;
    if (walk?.after !== undefined) await navigate(walk.after.to);
  };
  const onKey = useEffectEvent((event: KeyboardEvent) => {
    const plain = !event.ctrlKey && !event.metaKey && !event.altKey && !event.defaultPrevented;
    if (flags === null || !singleKeys || !plain || isTyping(event.target)) return;
    if (event.key.toLowerCase() === 'l') void lookedAt();
  });
  useEffect(() => {
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, []);
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined || flags === null) return <Loading what={say('whatStandsOut')} />;
  const toggle = ({ key, dismissed: off }: FlagView) => {
    const keys = off ? dismissed.filter((one) => one !== key) : [...dismissed, key];
    void mark(data.looked !== null, keys);
  };
  return (
    <div className="space-y-5 py-3">
      <LookAnswers reviewId={desk.id} timeZone={desk.exchange.timeZone} onNote={onNote} />
      <section aria-label={say('whyToLook')}>
        <h3 className="mb-1 font-semibold">{say('whyToLook')}</h3>
        {flags.length === 0 ? (
          <p className="text-ink-soft">{say('nothingStandsOutInThis')}</p>
        ) : (
          <ul>
            {flags.map((one) => (
              <li key={one.key} className="flex items-baseline justify-between gap-3 border-b border-line py-1">
                <span className={one.dismissed ? 'text-ink-soft line-through' : 'text-copper'}>
                  {flagWords(one)}
                  {one.flag.code === 'same-text' && (
                    <>
                      {' '}
                      <Link to={`/reviews/${one.flag.reviewId}`} className="text-dusk underline">
                        {say('readThatOne')}
                      </Link>
                    </>
                  )}
                </span>
                {one.flag.code !== 'asked' && (
                  <Button small look="quiet" onClick={() => toggle(one)}>
                    {one.dismissed ? say('restoreFlag') : say('dismissFlag')}
                  </Button>
                )}
              </li>
            ))}
          </ul>
        )}
      </section>
      <p>
        <Link to={`/exchanges/${desk.exchange.id}/check/${desk.draft.draftId}`} className="text-dusk underline">
          {say('allReviewsOfThisDraft')}
        </Link>
      </p>
      <section aria-label={say('lookedAt')} className="space-y-2">
        {data.looked === null ? (
          <StateMark state="not-begun" word={say('notLookedAtYet')} wordHidden={false} />
        ) : (
          <p className="flex flex-wrap items-center gap-x-2">
            <StateMark state="done" word={say('lookedAtBy', { by: data.looked.by })} wordHidden={false} />
            <span className="text-sm text-ink-soft">
              <When at={data.looked.at} timeZone={desk.exchange.timeZone} />
            </span>
          </p>
        )}
        <div className="flex flex-wrap gap-2">
          <Button
            look="primary"
            busy={saving.isLoading}
            title={singleKeys ? 'L' : undefined}
            onClick={() => void lookedAt()}
          >
            {walk?.after === undefined ? say('lookedAt') : say('lookedAtNext')}
          </Button>
          {data.looked !== null && <Button onClick={() => void mark(false)}>{say('notLookedAtAfterAll')}</Button>}
        </div>
        {saving.error !== undefined && <ProblemNotice error={saving.error} />}
      </section>
      <KeepFromAuthor desk={desk} />
    </div>
  );
}

/** Of a review, the whole of it or its files; the rest is withheld where it stands. */
export function KeepFromAuthor({ desk }: { readonly desk: DeskView }) {
  return (
    <section aria-label={say('keepFromAuthor')} className="space-y-2">
      <h3 className="font-semibold">{say('keepFromAuthor')}</h3>
      <p className="text-sm text-ink-soft">{say('notesAndAnswersAreWithheld')}</p>
      {desk.files.map(({ id, name }) => (
        <div key={id} className="flex flex-wrap items-baseline gap-x-2">
          <span>{name}</span>
          <Withholding kind="file" targetId={id} />
        </div>
      ))}
      <Withholding kind="review" targetId="" large />
    </section>
  );
}
