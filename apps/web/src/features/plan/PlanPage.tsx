import type { FieldProblem, PlanView, Problem } from '@salt-circle/contracts';
import { useEffect, useState } from 'react';
import { Loading, SaveMark } from '../../kit/index.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { Conflict } from '../../app/saving/Conflict.js';
import { LeaveGuard } from '../../app/saving/LeaveGuard.js';
import { useMe } from '../../app/session/useMe.js';
import { useFresh } from '../../app/useFresh.js';
import { useExchange } from '../../app/useExchange.js';
import { FormSummary } from './FormSummary.js';
import { Extensions } from './dates/Extensions.js';
import { PlainWords } from './PlainWords.js';
import { PlanMenu } from './PlanMenu.js';
import { usePlanFormQuery, usePlanQuery } from './planApi.js';
import { RecordGroup } from './RecordGroup.js';
import { usePlanSettings } from './usePlanSettings.js';
import { say } from '../../words/plan.js';
import { PlanGroups, type ProblemAt } from './PlanGroups.js';

/** All settings of an exchange, in the order of the job, saved as they are changed. */
export function PlanPage() {
  const exchange = useExchange();
  const query = usePlanQuery(exchange.id, { refetchOnMountOrArgChange: true });
  const plan = useFresh(query);
  if (query.error !== undefined) return <ProblemNotice error={query.error} />;
  if (plan === undefined) return <Loading what={say('plan')} />;
  return <PlanWorkspace plan={plan} fresh={!query.isFetching} readOnly={exchange.course.role !== 'instructor'} />;
}

interface WorkspaceProps {
  readonly plan: PlanView;
  readonly fresh: boolean;
  readonly readOnly: boolean;
}

function PlanWorkspace({ plan, fresh, readOnly }: WorkspaceProps) {
  const exchange = useExchange();
  const me = useMe();
  const key = `${me.id}:plan:${exchange.id}`;
  const { settings, saving, touched, held, refused, change, take } = usePlanSettings(plan, exchange.id, key);
  const [unmoved, setUnmoved] = useState<Readonly<Record<string, readonly string[]>>>({});
  const { refetch } = usePlanQuery(exchange.id);
  const { data: form } = usePlanFormQuery(exchange.id, { refetchOnMountOrArgChange: true });
  // What is still missing is the server's to say, after each save.
  useEffect(() => {
    if (touched && saving.state === 'saved') void refetch();
  }, [touched, saving.state, saving.savedAt, refetch]);

  const problemAt = problemFinder(held, plan);
  const unsaved = [...held.map(({ sentence }) => sentence), ...Object.values(unmoved).flat()];

  return (
    <div className="grid flex-1 grid-cols-1 lg:grid-cols-[1fr_26rem]">
      <div className="min-w-0 px-5 py-5">
        <div className="mb-2 flex flex-wrap items-center justify-between gap-3">
          <h2 className="text-xl font-semibold">{say('planLabel')}</h2>
          <div className="flex items-center gap-3">
            {!readOnly && <SaveMark state={saving.state} savedAt={saving.savedAt} />}
            <PlanMenu plan={plan} readOnly={readOnly} />
          </div>
        </div>
        {saving.state === 'conflict' && <PlanConflict saveKey={key} problem={saving.problem} onTake={take} />}
        {refused !== null && <ProblemNotice error={refused} />}
        {held.length > 0 && (
          <p role="status" className="mb-2 text-madder">
            {say('settingsAreNotSavedFor', { held: held.length })}
          </p>
        )}
        <LeaveGuard unsaved={unsaved.length > 0}>
          {unsaved.map((sentence) => (
            <p key={sentence}>{sentence}</p>
          ))}
        </LeaveGuard>
        <fieldset disabled={readOnly} className="min-w-0">
          <PlanGroups
            settings={settings}
            plan={plan}
            readOnly={readOnly}
            problemAt={problemAt}
            onChange={change}
            onUnmoved={(of, sentences) => setUnmoved((all) => ({ ...all, [of]: sentences }))}
          />
        </fieldset>
        <FormSummary form={form} readOnly={readOnly} />
        <Extensions plan={plan} readOnly={readOnly} />
        <RecordGroup />
      </div>
      <PlainWords
        settings={settings}
        plan={plan}
        form={form ?? null}
        canPublish={!readOnly && fresh && saving.state === 'saved'}
        saveKey={key}
        unsaved={held}
      />
    </div>
  );
}

/** What was refused comes first; what is missing stands beside its field as well as in the list. */
function problemFinder(held: readonly FieldProblem[], plan: PlanView): ProblemAt {
  return (path) =>
    held.find((one) => one.path === path)?.sentence ??
    plan.missing.find((one) => one.path === path && one.code !== 'date-missing')?.sentence;
}

interface PlanConflictProps {
  readonly saveKey: string;
  readonly problem: Problem | null;
  readonly onTake: (theirs: PlanView) => void;
}

function PlanConflict({ saveKey, problem, onTake }: PlanConflictProps) {
  const theirs = problem?.current as PlanView | undefined;
  if (problem === null || theirs === undefined) return null;
  return (
    <Conflict
      saveKey={saveKey}
      problem={problem}
      revision={theirs.revision}
      theirs={theirs.title}
      onTake={() => onTake(theirs)}
    />
  );
}
