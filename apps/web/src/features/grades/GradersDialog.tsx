import type { GradesView, GradingShareRequest } from '@salt-circle/contracts';
import { type GradingWork, wordsBy } from '@salt-circle/core';
import { useState } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useExchange } from '../../app/useExchange.js';
import { Button, Checkbox, Dialog, Select } from '../../kit/index.js';
import { useShareOutMutation } from './gradesApi.js';
import { say } from '../../words/grades.js';

const WORKS: Readonly<Record<GradingWork, string>> = wordsBy(say, {
  draft: 'marksOfDrafts',
  reviewing: 'marksOfReviewing',
});

/** Who of the staff grades whom. */
export function GradersDialog({ view, onClose }: { readonly view: GradesView; readonly onClose: () => void }) {
  const exchange = useExchange();
  const [works, setWorks] = useState<readonly GradingWork[]>(['draft', 'reviewing']);
  const [graderIds, setGraders] = useState(view.graders.map(({ id }) => id));
  const [how, setHow] = useState<GradingShareRequest['how']>('evenly');
  const [openOnly, setOpenOnly] = useState(true);
  const [share, { isLoading, error }] = useShareOutMutation();
  const sections = new Set(view.rows.flatMap(({ section }) => section ?? []));
  const shared = view.rows.some(({ work }) => work.draft.grader !== null || work.reviewing.grader !== null);
  const toggle = <One,>(all: readonly One[], one: One, on: boolean) =>
    on ? [...all, one] : all.filter((other) => other !== one);
  const go = async () => {
    const request = { works: [...works], graderIds: [...graderIds], how, openOnly };
    const done = await share({ exchangeId: exchange.id, ...request });
    if (done.error === undefined) onClose();
  };
  const each = Math.ceil(view.rows.length / Math.max(1, graderIds.length));
  return (
    <Dialog open onClose={onClose} title={say('shareOutGrading')} description={say('everybodyCanStillGradeAnybody')}>
      <div className="space-y-4">
        <fieldset className="flex flex-col items-start gap-1">
          <legend className="font-medium">{say('what')}</legend>
          {(Object.keys(WORKS) as GradingWork[]).map((work) => (
            <Checkbox
              key={work}
              label={WORKS[work]}
              checked={works.includes(work)}
              onChange={({ target }) => setWorks(toggle(works, work, target.checked))}
            />
          ))}
        </fieldset>
        <Select
          label={say('how')}
          value={how}
          options={[
            ['evenly', say('evenlyByName')],
            ...(sections.size > 1 ? [['sections', say('byWholeSections')] as const] : []),
            ...(shared ? [['none', say('notAtAllTakeIt')] as const] : []),
          ]}
          onChange={(next) => setHow(next as typeof how)}
        />
        {how !== 'none' && (
          <fieldset className="flex flex-col items-start gap-1">
            <legend className="font-medium">{say('among')}</legend>
            {view.graders.map(({ id, name }) => (
              <Checkbox
                key={id}
                label={name}
                checked={graderIds.includes(id)}
                onChange={({ target }) => setGraders(toggle(graderIds, id, target.checked))}
              />
            ))}
          </fieldset>
        )}
        <div>
          <Checkbox
            label={say('whatIsGradedOrBegun')}
            checked={openOnly}
            onChange={({ target }) => setOpenOnly(target.checked)}
          />
        </div>
        {how === 'evenly' && graderIds.length > 0 && (
          <p className="text-ink-soft">{say('studentsUpToEach', { rows: view.rows.length, each })}</p>
        )}
        {error !== undefined && <ProblemNotice error={error} />}
        <Button look="primary" busy={isLoading} onClick={() => void go()}>
          {how === 'none' ? say('removeAssignment') : say('shareOut')}
        </Button>
      </div>
    </Dialog>
  );
}
