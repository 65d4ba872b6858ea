import { counted } from '@salt-circle/core';
import type { GroupSetView } from '@salt-circle/contracts';
import { useState } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useCourse } from '../../app/useCourse.js';
import { Button, Dialog, Notice, Select, TextField } from '../../kit/index.js';
import { useDivideMutation, type DivisionBody } from './groupsApi.js';

export interface DivideDialogProps {
  readonly set: GroupSetView;
  readonly students: number;
  /** What groups can be mixed by, as far as the course has it. */
  readonly mixes: ReadonlyArray<'section' | 'trait'>;
  readonly onClose: () => void;
}

const MIX_WORDS = { section: 'section', trait: 'the mixing column of the roster' } as const;

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
      title={`Divide “${set.title}”`}
      description={`All ${students} students are dealt out at random.`}
    >
      <div className="space-y-3">
        <div className="grid grid-cols-2 gap-3">
          <Select
            label="By"
            value={by}
            options={[
              ['size', 'people in a group'],
              ['count', 'number of groups'],
            ]}
            onChange={(next) => setBy(next as DivisionBody['by'])}
          />
          <TextField
            label={by === 'size' ? 'People in a group' : 'Number of groups'}
            type="number"
            min={1}
            value={Number.isNaN(number) ? '' : number}
            onChange={({ target }) => setNumber(target.valueAsNumber)}
          />
        </div>
        <Select
          label="Mixed by"
          value={mixedBy}
          options={[['nothing', 'nothing'], ...mixes.map((one) => [one, MIX_WORDS[one]] as const)]}
          hint="Each of its values is spread over the groups as evenly as can be."
          onChange={(next) => setMixedBy(next as DivisionBody['mixedBy'])}
        />
        {fits && (
          <p>
            {counted(groups, '1 group', '# groups')} of {sizesWords(students, groups)}.
          </p>
        )}
        {set.groups.length > 0 && <Notice tone="soon" title="The present groups of this set are replaced." />}
        {error !== undefined && <ProblemNotice error={error} />}
        <Button look="primary" disabled={!fits} busy={isLoading} onClick={() => void go()}>
          Divide
        </Button>
      </div>
    </Dialog>
  );
}

/** "4", or "4 or 5" where it does not come out even. */
export function sizesWords(students: number, groups: number): string {
  const least = Math.floor(students / groups);
  return students % groups === 0 ? String(least) : `${least} or ${least + 1}`;
}
