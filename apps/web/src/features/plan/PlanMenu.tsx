import type { PlanView } from '@salt-circle/contracts';
import { resolveDates } from '@salt-circle/core';
import { useState } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { startViewAs } from '../../app/view-as/viewAs.js';
import { toDates } from '../../app/time/dates.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, Dialog, Menu, TextField } from '../../kit/index.js';
import { ArchiveDialog } from './ArchiveDialog.js';
import { useKeepTemplateMutation } from './planApi.js';
import { say } from '../../words/plan.js';

/** Trying the exchange as a student would see it, and keeping it as a template or an archive. */
export function PlanMenu({ plan, readOnly }: { readonly plan: PlanView; readonly readOnly: boolean }) {
  const exchange = useExchange();
  const [keeping, setKeeping] = useState(false);
  const [archiving, setArchiving] = useState(false);
  const dates = resolveDates(toDates(plan.dates));
  const look = (at: number | null) =>
    startViewAs(exchange.id, at === null ? 'example' : `example@${new Date(at).toISOString()}`);
  const minute = 60_000;
  const looks =
    dates === null
      ? [{ words: say('asExampleStudent'), onPick: () => look(null) }]
      : [
          { words: say('asExampleStudentWhileDrafting'), onPick: () => look(dates.draftsOpen + minute) },
          { words: say('asExampleStudentWhileReviewing'), onPick: () => look(dates.reviewsOpen + minute) },
          { words: say('asExampleStudentAfterRelease'), onPick: () => look(dates.release + minute) },
        ];
  return (
    <>
      <Menu
        trigger={<Button small>{say('previewAndMore')}</Button>}
        groups={[
          looks,
          ...(readOnly
            ? []
            : [
                [
                  { words: say('keepAsTemplate'), onPick: () => setKeeping(true) },
                  { words: say('takeAlongAsArchiveLabel'), onPick: () => setArchiving(true) },
                ],
              ]),
        ]}
      />
      {archiving && <ArchiveDialog onClose={() => setArchiving(false)} />}
      <KeepTemplate key={String(keeping)} open={keeping} onClose={() => setKeeping(false)} />
    </>
  );
}

function KeepTemplate({ open, onClose }: { readonly open: boolean; readonly onClose: () => void }) {
  const exchange = useExchange();
  const [title, setTitle] = useState(exchange.title);
  const [keep, { isLoading, error }] = useKeepTemplateMutation();
  const go = async () => {
    const result = await keep({ courseId: exchange.course.id, exchangeId: exchange.id, title });
    if (result.data !== undefined) onClose();
  };
  return (
    <Dialog
      open={open}
      onClose={onClose}
      title={say('keepAsTemplateLabel')}
      description={say('settingsAndFormAreKept')}
    >
      <div className="space-y-3">
        <TextField
          label={say('title')}
          value={title}
          maxLength={200}
          onChange={({ target }) => setTitle(target.value)}
        />
        {exchange.attachments.length > 0 && <p className="text-ink-soft">{say('filesAttachedToBriefAnd')}</p>}
        {error !== undefined && <ProblemNotice error={error} />}
        <Button look="primary" busy={isLoading} onClick={() => void go()}>
          {say('keepIt')}
        </Button>
      </div>
    </Dialog>
  );
}
