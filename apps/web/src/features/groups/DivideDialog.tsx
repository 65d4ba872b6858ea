import { wordsBy } from '@salt-circle/core';
import type { GroupSetView } from '@salt-circle/contracts';
import { useState } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useCourse } from '../../app/useCourse.js';
import { Button, Dialog, Notice, Select, TextField } from '../../kit/index.js';
import { useDivideMutation, type DivisionBody } from './groupsApi.js';
import { say } from '../../words/groups.js';

export interface DivideDialogProps {
  readonly set: GroupSetView;
  readonly students: number;
  /** What groups can be mixed by, as far as the course has it. */
  readonly mixes: ReadonlyArray<'section' | 'trait'>;
  readonly onClose: () => void;
}

const MIX_WORDS = wordsBy(say, { section: 'section', trait: 'mixingColumnOfRoster' });

/** Everybody anew, at random: by size or number, even, and mixed. */
export function DivideDialog({ set, students, mixes, onClose }: DivideDialogProps) {
  const course = useCourse();
  const [by, setBy] = useState<DivisionBody['by']>('size');
  const [number, setNumber] = useState(4);
  const [mixedBy, setMixedBy] = useState<DivisionBody['mixedBy']>(mixes[0] ?? 'nothing');
  const [divide, { isLoading, error }] = useDivideMutation();
  const groups = by === 'count' ? Math.min(number, students) : Math.max(1, Math.round(students / number));
  const fits = Number.isInteger(number) && number >= 1 && students > 0;
  const go = async () => {
    const seed = Math.floor(Math.random() * 2 ** 32);
    const result = await divide({ courseId: course.id, setId: set.id, body: { by, number, mixedBy, seed } });
    if (result.error === undefined) onClose();
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={say('divide', { title: set.title })}
      description={say('allStudentsAreDealtOut', { students })}
    >
      <div className="space-y-3">
        <div className="grid grid-cols-2 gap-3">
          <Select
            label={say('by')}
            value={by}
            options={[
              ['size', say('peopleInGroup')],
              ['count', say('numberOfGroups')],
            ]}
            onChange={(next) => setBy(next as DivisionBody['by'])}
          />
          <TextField
            label={by === 'size' ? say('peopleInGroupLabel') : say('numberOfGroupsLabel')}
            type="number"
            min={1}
            value={Number.isNaN(number) ? '' : number}
            onChange={({ target }) => setNumber(target.valueAsNumber)}
          />
        </div>
        <Select
          label={say('mixedBy')}
          value={mixedBy}
          options={[['nothing', say('nothing')], ...mixes.map((one) => [one, MIX_WORDS[one]] as const)]}
          hint={say('eachOfItsValuesIs')}
          onChange={(next) => setMixedBy(next as DivisionBody['mixedBy'])}
        />
        {fits && <p>{say('groupsOf', { groups, sizesWords: sizesWords(students, groups) })}</p>}
        {set.groups.length > 0 && <Notice tone="soon" title={say('presentGroupsOfThisSet')} />}
        {error !== undefined && <ProblemNotice error={error} />}
        <Button look="primary" disabled={!fits} busy={isLoading} onClick={() => void go()}>
          {say('divideLabel')}
        </Button>
      </div>
    </Dialog>
  );
}

/** "4", or "4 or 5" where it does not come out even. */
export function sizesWords(students: number, groups: number): string {
  const least = Math.floor(students / groups);
  return students % groups === 0 ? String(least) : say('or', { least, least2: least + 1 });
}
