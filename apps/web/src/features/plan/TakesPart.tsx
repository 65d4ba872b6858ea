import type { PlanChoices, TakesPartView } from '@salt-circle/contracts';
import { Checkbox, Select } from '../../kit/index.js';
import { say } from '../../words/plan.js';

export interface TakesPartProps {
  readonly rule: TakesPartView;
  readonly choices: PlanChoices;
  readonly fixed: string | undefined;
  readonly problem: string | undefined;
  readonly onChange: (rule: TakesPartView) => void;
}

/** Everybody, chosen sections and groups, or all but some. */
export function TakesPart({ rule, choices, fixed, problem, onChange }: TakesPartProps) {
  const toggle = (name: 'sections' | 'groupIds' | 'studentIds', one: string, on: boolean) =>
    onChange({ ...rule, [name]: on ? [...rule[name], one] : rule[name].filter((each) => each !== one) });
  const groups = choices.groupSets.flatMap((set) => set.groups.map((group) => ({ ...group, set: set.title })));
  return (
    <fieldset disabled={fixed !== undefined} className="space-y-3">
      <Select
        label={say('whoTakesPart')}
        value={rule.kind}
        options={[
          ['everyone', say('everybodyInCourse')],
          ['chosen', say('onlyTheseSectionsAndGroups')],
          ['except', say('allButSome')],
        ]}
        disabled={fixed !== undefined}
        hint={fixed}
        problem={problem}
        onChange={(kind) => onChange({ ...rule, kind: kind as TakesPartView['kind'] })}
      />
      {rule.kind !== 'everyone' && (
        <div className="space-y-2">
          {choices.sections.length === 0 && groups.length === 0 && rule.kind === 'chosen' && (
            <p className="text-copper">{say('courseHasNoSectionsAnd')}</p>
          )}
          <Choices
            title={say('sections')}
            list={choices.sections.map((one) => ({ id: one, words: one }))}
            chosen={rule.sections}
            onToggle={(id, on) => toggle('sections', id, on)}
          />
          <Choices
            title={say('groups')}
            list={groups.map(({ id, title, set, size }) => ({ id, words: `${title} (${set}, ${size})` }))}
            chosen={rule.groupIds}
            onToggle={(id, on) => toggle('groupIds', id, on)}
          />
          {rule.kind === 'except' && (
            <Choices
              title={say('students')}
              list={choices.students.map(({ id, name, section }) => ({
                id,
                words: section === null ? name : `${name}, ${section}`,
              }))}
              chosen={rule.studentIds}
              onToggle={(id, on) => toggle('studentIds', id, on)}
            />
          )}
        </div>
      )}
    </fieldset>
  );
}

interface ChoicesProps {
  readonly title: string;
  readonly list: ReadonlyArray<{ readonly id: string; readonly words: string }>;
  readonly chosen: readonly string[];
  readonly onToggle: (id: string, on: boolean) => void;
}

function Choices({ title, list, chosen, onToggle }: ChoicesProps) {
  if (list.length === 0) return null;
  return (
    <div role="group" aria-label={title}>
      <p className="font-medium">{title}</p>
      <div className="grid max-h-48 grid-cols-[repeat(auto-fill,minmax(13rem,1fr))] gap-x-4 overflow-y-auto">
        {list.map(({ id, words }) => (
          <Checkbox
            key={id}
            label={words}
            checked={chosen.includes(id)}
            onChange={({ target }) => onToggle(id, target.checked)}
          />
        ))}
      </div>
    </div>
  );
}
