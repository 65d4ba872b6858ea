import { useState } from 'react';
import { Link } from 'react-router';
import type { DemoPerson } from '@salt-circle/contracts';
import { Empty, Loading, Notice, Ring } from '../../kit/index.js';
import { useDemoPeopleQuery, useStepInMutation } from '../../app/api.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { say } from '../../words/demo.js';

const rolesInOrder = () =>
  [
    ['instructor', say('instructors')],
    ['assistant', say('assistants')],
    ['student', say('students')],
  ] as const;

/** The first page of the demo: choose whose eyes to see it with. */
export function DemoPage() {
  const { data: people, error } = useDemoPeopleQuery();
  const [stepIn] = useStepInMutation();
  const [stepping, setStepping] = useState<string | null>(null);
  const choose = async (id: string) => {
    setStepping(id);
    const result = await stepIn(id);
    // A full load, so that nothing of an earlier person stays in memory.
    if (result.error === undefined) window.location.assign('/');
    else setStepping(null);
  };
  return (
    <main className="mx-auto max-w-5xl px-5 py-10">
      <div className="flex items-center gap-3">
        <Ring size={40} />
        <h1 className="text-2xl font-semibold">{say('saltCircleDemo')}</h1>
      </div>
      <div className="mt-4 max-w-prose">
        <Notice>
          {say('everybodyAndEverythingHereIs', {
            link: (words) => (
              <Link to="/demo/mail" className="text-dusk underline">
                {words}
              </Link>
            ),
          })}
        </Notice>
      </div>
      {error !== undefined && (
        <Empty title={say('thereIsNoDemoHere')}>
          <ProblemNotice error={error} />
        </Empty>
      )}
      {people === undefined && error === undefined && <Loading what={say('peopleOfDemo')} />}
      {rolesInOrder().map(([role, words]) => (
        <Group
          key={role}
          words={words}
          people={(people ?? []).filter(({ places }) => places[0]?.role === role)}
          stepping={stepping}
          onChoose={choose}
        />
      ))}
    </main>
  );
}

interface GroupProps {
  readonly words: string;
  readonly people: readonly DemoPerson[];
  readonly stepping: string | null;
  readonly onChoose: (id: string) => Promise<void>;
}

function Group({ words, people, stepping, onChoose }: GroupProps) {
  if (people.length === 0) return null;
  return (
    <section className="mt-8">
      <h2 className="mb-2 text-lg font-semibold">{words}</h2>
      <ul className="grid grid-cols-1 gap-1.5 sm:grid-cols-2 lg:grid-cols-3">
        {people.map(({ id, name, places }) => (
          <li key={id}>
            <button
              type="button"
              disabled={stepping !== null}
              onClick={() => void onChoose(id)}
              className="w-full rounded border border-line bg-paper px-3 py-2 text-left hover:bg-crust disabled:opacity-60"
            >
              <span className="block font-medium">{name}</span>
              <span className="block text-sm text-ink-soft">{places.map(({ course }) => course).join(', ')}</span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
