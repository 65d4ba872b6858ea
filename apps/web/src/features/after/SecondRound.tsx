import type { Problem, SecondRoundRequest } from '@salt-circle/contracts';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { useMakeRoundMutation, useRoundsQuery } from '../../app/after/afterApi.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { DateInput } from '../../app/time/DateInput.js';
import { readLocal, toLocal } from '../../app/time/localDate.js';
import { useNow } from '../../app/time/useNow.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, Checkbox, Dialog, Select, TextField } from '../../kit/index.js';
import { say } from '../../words/after.js';

const DAY = 24 * 3_600_000;

/** Days that reviewing once more is given, unless somebody says otherwise. */
const USUAL_DAYS = 7;

interface SecondRoundProps {
  /** Drafts with a revision. */
  readonly revised: number;
  readonly instructor: boolean;
}

/** Exchanges that were made from the revisions of this one, and making one. */
export function SecondRound({ revised, instructor }: SecondRoundProps) {
  const exchange = useExchange();
  const { data: rounds = [] } = useRoundsQuery(exchange.id);
  const [open, setOpen] = useState(false);
  return (
    <>
      {rounds.map(({ id, title }) => (
        <Link key={id} to={`/exchanges/${id}/reviews`} className="self-center text-dusk underline">
          {title}
        </Link>
      ))}
      {instructor && revised > 0 && <Button onClick={() => setOpen(true)}>{say('secondRound')}</Button>}
      {open && <SecondRoundDialog revised={revised} onClose={() => setOpen(false)} />}
    </>
  );
}

function SecondRoundDialog({ revised, onClose }: { readonly revised: number; readonly onClose: () => void }) {
  const exchange = useExchange();
  const navigate = useNavigate();
  const now = useNow();
  const { timeZone } = exchange.course;
  const [make, { isLoading }] = useMakeRoundMutation();
  const [problem, setProblem] = useState<Problem | null>(null);
  const [asked, setAsked] = useState<SecondRoundRequest>(() => ({
    title: say('secondRoundOf', { title: exchange.title }),
    reviewers: 'same',
    earlierShown: false,
    reviewsDue: inDays(USUAL_DAYS, now, timeZone),
    release: null,
  }));
  const set = (part: Partial<SecondRoundRequest>) => setAsked({ ...asked, ...part });
  const problemAt = (end: string) => problem?.fields.find(({ path }) => path.endsWith(end))?.sentence;
  const go = async () => {
    const result = await make({ exchangeId: exchange.id, ...asked });
    if (result.error !== undefined) return setProblem(result.error as Problem);
    const to = asked.reviewers === 'same' ? 'reviews' : 'allocation';
    void navigate(`/exchanges/${result.data.id}/${to}`);
  };
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={say('reviewRevisionsOnceMore')}
      description={say('allRevisionsAreTakenOver', { revised })}
    >
      <div className="space-y-4">
        <TextField
          label={say('title')}
          value={asked.title}
          maxLength={200}
          problem={problemAt('title')}
          onChange={({ target }) => set({ title: target.value })}
        />
        <Select
          label={say('reviewedBy')}
          value={asked.reviewers}
          options={[
            ['same', say('sameReviewersWhoeverSubmittedReview')],
            ['others', say('othersAllocateThemOnBoard')],
          ]}
          onChange={(value) => set({ reviewers: value as SecondRoundRequest['reviewers'] })}
        />
        <Checkbox
          label={say('reviewersReadAllEarlierFeedback')}
          checked={asked.earlierShown}
          onChange={({ target }) => set({ earlierShown: target.checked })}
        />
        <DateInput
          label={say('reviewsDue')}
          value={asked.reviewsDue}
          timeZone={timeZone}
          hint=""
          problem={problemAt('reviewsDue')}
          onChange={(value) => set({ reviewsDue: value ?? '' })}
        />
        <DateInput
          label={say('release')}
          value={asked.release}
          timeZone={timeZone}
          hint={say('blankAsSoonAsReviews')}
          problem={problemAt('release')}
          onChange={(release) => set({ release })}
        />
        {problem !== null && <ProblemNotice error={problem} />}
        <Button look="primary" busy={isLoading} disabled={asked.reviewsDue === ''} onClick={() => void go()}>
          {asked.reviewers === 'same' ? say('openSecondRound') : say('openItAndAllocate')}
        </Button>
      </div>
    </Dialog>
  );
}

/** The end of a day of the course, so many days from `now` (milliseconds). */
function inDays(days: number, now: number, timeZone: string): string {
  const at = new Date(now + days * DAY).toISOString();
  const reading = readLocal(`${toLocal(at, timeZone).slice(0, 10)}T23:59`, timeZone);
  return reading.kind === 'once' ? reading.iso : at;
}
