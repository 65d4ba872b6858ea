import { wordsBy, listed } from '@salt-circle/core';
import type { ReleaseRow } from '@salt-circle/contracts';
import { LIMITS } from '@salt-circle/contracts/plain';
import { useState } from 'react';
import { useReleasePeopleMutation } from '../../app/moderation/checkApi.js';
import { labelWords } from '../../app/People.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, Checkbox, Dialog, Select, TextArea, TextField } from '../../kit/index.js';
import { say } from '../../words/moderation.js';

interface ReleasePeopleProps {
  readonly rows: readonly ReleaseRow[];
  readonly onClose: () => void;
}

type How = ReleaseRow['how'];

const HOW: Readonly<Record<How, string>> = wordsBy(say, {
  early: 'theyReadItNowBefore',
  held: 'itIsHeldBackFrom',
  'as-planned': 'theyReadItWithAll',
});

/** Feedback for chosen authors: before the others, or not yet. */
export function ReleasePeople({ rows, onClose }: ReleasePeopleProps) {
  const exchange = useExchange();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [wanted, setWanted] = useState('');
  const [how, setHow] = useState<How>(exchange.released ? 'held' : 'early');
  const [reason, setReason] = useState('');
  const [save, { isLoading, error }] = useReleasePeopleMutation();
  const found = rows.filter(({ person }) => labelWords(person).toLowerCase().includes(wanted.trim().toLowerCase()));
  const toggle = (id: string) =>
    setChosen((all) => new Set(all.has(id) ? [...all].filter((one) => one !== id) : [...all, id]));
  const go = async () => {
    const people = { participantIds: [...chosen], how, ...(how === 'held' && { reason }) };
    const result = await save({ exchangeId: exchange.id, people });
    if (result.error === undefined) onClose();
  };
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={say('feedbackForSomeOfThem')}
      description={say('whoeverHasReadTheirsKeeps')}
    >
      <form
        className="space-y-3"
        onSubmit={(event) => {
          event.preventDefault();
          void go();
        }}
      >
        <TextField
          label={say('findAuthor')}
          labelHidden
          placeholder={say('findAuthor')}
          value={wanted}
          onChange={({ target }) => setWanted(target.value)}
        />
        <ul className="max-h-64 overflow-y-auto border-y border-line py-1">
          {found.map((row) => (
            <li key={row.participantId}>
              <Checkbox
                label={`${labelWords(row.person)}: ${rowWords(row)}`}
                checked={chosen.has(row.participantId)}
                onChange={() => toggle(row.participantId)}
              />
            </li>
          ))}
        </ul>
        <Select
          label={say('whenTheyReadIt')}
          value={how}
          options={(Object.keys(HOW) as How[]).map((key) => [key, HOW[key]] as const)}
          onChange={(next) => setHow(next as How)}
        />
        {how === 'held' && (
          <TextArea
            label={say('reasonForRecord')}
            value={reason}
            maxLength={LIMITS.guidance}
            onChange={({ target }) => setReason(target.value)}
          />
        )}
        {error !== undefined && <ProblemNotice error={error} />}
        <Button look="primary" type="submit" disabled={chosen.size === 0} busy={isLoading}>
          {chosen.size === 0 ? say('chooseSomebody') : say('forAuthors', { chosen: chosen.size })}
        </Button>
      </form>
    </Dialog>
  );
}

function rowWords({ reviews, waiting, withheld, how, readAt }: ReleaseRow): string {
  const where =
    readAt !== null ? say('readWord') : how === 'early' ? say('released') : how === 'held' ? say('heldBackWord') : null;
  return listed(
    [
      say('reviewsCounted', { reviews }),
      ...(waiting > 0 ? [say('notSubmitted', { waiting })] : []),
      ...(withheld > 0 ? [say('withheld', { withheld })] : []),
      ...(where === null ? [] : [where]),
    ],
    'comma',
  );
}
