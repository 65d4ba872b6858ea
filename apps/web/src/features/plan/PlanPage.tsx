import type { PlanView, Problem } from '@salt-circle/contracts';
import { useEffect, useState } from 'react';
import { Loading, RichText, SaveMark, Select, TextField } from '../../kit/index.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { Conflict } from '../../app/saving/Conflict.js';
import { useSaver, useSavingState } from '../../app/saving/useSaving.js';
import { useMe } from '../../app/session/useMe.js';
import { saveQueue } from '../../app/store.js';
import { useFresh } from '../../app/useFresh.js';
import { useExchange } from '../../app/useExchange.js';
import { DateRows } from './DateRows.js';
import { FormSummary } from './FormSummary.js';
import { PlainWords } from './PlainWords.js';
import { usePlanQuery } from './planApi.js';
import { RecordGroup } from './RecordGroup.js';
import { SettingsGroup } from './SettingsGroup.js';
import { settingsOf, type Settings } from './settings.js';

/** All settings of an exchange, in the order of the job, saved as they are changed. */
export function PlanPage() {
  const exchange = useExchange();
  const query = usePlanQuery(exchange.id, { refetchOnMountOrArgChange: true });
  const plan = useFresh(query);
  if (query.error !== undefined) return <ProblemNotice error={query.error} />;
  if (plan === undefined) return <Loading what="the plan" />;
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
  const [settings, setSettings] = useState<Settings>(() => ({ ...settingsOf(plan), ...saveQueue.pending(key)?.body }));
  const [touched, setTouched] = useState(false);
  const save = useSaver(key, `/api/exchanges/${exchange.id}/plan`, plan.revision);
  const saving = useSavingState(key);
  const { refetch } = usePlanQuery(exchange.id);
  // What is still missing is the server's to say, after each save.
  useEffect(() => {
    if (touched && saving.state === 'saved') void refetch();
  }, [touched, saving.state, saving.savedAt, refetch]);

  const change = (part: Partial<Settings>) => {
    const next = { ...settings, ...part };
    setSettings(next);
    setTouched(true);
    save({ ...next });
  };
  const problems = saving.state === 'refused' ? (saving.problem?.fields ?? []) : [];
  const problemAt = (path: string) => problems.find((one) => one.path === path)?.sentence;

  return (
    <div className="grid flex-1 grid-cols-1 lg:grid-cols-[1fr_26rem]">
      <div className="px-5 py-5">
        <div className="mb-2 flex flex-wrap items-center justify-between gap-3">
          <h2 className="text-xl font-semibold">Plan</h2>
          {!readOnly && <SaveMark state={saving.state} savedAt={saving.savedAt} />}
        </div>
        {saving.state === 'conflict' && (
          <PlanConflict saveKey={key} problem={saving.problem} onTake={(theirs) => setSettings(settingsOf(theirs))} />
        )}
        <fieldset disabled={readOnly} className="min-w-0">
          <SettingsGroup
            title="What is written"
            summary={`${settings.title}${settings.briefHtml === '' ? '; no brief yet' : ''}`}
            startOpen={!plan.published}
          >
            <TextField
              label="Title"
              value={settings.title}
              onChange={(event) => change({ title: event.target.value })}
              problem={problemAt('title')}
            />
            <div>
              <p className="mb-1 font-medium">Brief: what authors are asked to write</p>
              <div className="rounded border border-edge bg-salt px-3 pb-2">
                <RichText
                  label="Brief"
                  html={settings.briefHtml}
                  editable={!readOnly}
                  onChange={(briefHtml) => change({ briefHtml })}
                />
              </div>
            </div>
          </SettingsGroup>
          <DateRows
            dates={settings.dates}
            timeZone={exchange.course.timeZone}
            problemAt={problemAt}
            onChange={(dates) => change({ dates })}
            startOpen={!plan.published}
          />
          <SettingsGroup
            title="Who reviews whom"
            summary={reviewsWords(settings.reviewsPerStudent)}
            startOpen={plan.missing.some(({ path }) => path === 'reviewsPerStudent')}
          >
            <TextField
              label="Reviews each student gives"
              type="number"
              min={1}
              max={10}
              value={Number.isNaN(settings.reviewsPerStudent) ? '' : settings.reviewsPerStudent}
              onChange={(event) => change({ reviewsPerStudent: event.target.valueAsNumber })}
              disabled={plan.fixed.reviewsPerStudent !== undefined}
              hint={
                plan.fixed.reviewsPerStudent ??
                'Drafts of others in the course, dealt out evenly once drafts are in. Only those who handed in take part.'
              }
              problem={problemAt('reviewsPerStudent')}
            />
          </SettingsGroup>
          <SettingsGroup title="Names" summary={namesWords(settings.names)}>
            <Select
              label="Names"
              value={settings.names}
              options={[
                ['both-ways', 'Hidden both ways: authors and reviewers know each other by alias'],
                ['open', 'Open: everybody sees names'],
              ]}
              onChange={(names) => change({ names: names as Settings['names'] })}
              disabled={plan.fixed.names !== undefined}
              hint={plan.fixed.names ?? 'You see names and aliases in any case.'}
            />
          </SettingsGroup>
          <SettingsGroup
            title="How to review"
            summary={settings.guideHtml === '' ? 'No guide for reviewers yet; optional' : 'A guide for reviewers'}
          >
            <div>
              <p className="mb-1 font-medium">Guide: how reviewers are asked to review</p>
              <div className="rounded border border-edge bg-salt px-3 pb-2">
                <RichText
                  label="Guide"
                  html={settings.guideHtml}
                  editable={!readOnly}
                  onChange={(guideHtml) => change({ guideHtml })}
                />
              </div>
            </div>
          </SettingsGroup>
        </fieldset>
        <FormSummary exchangeId={exchange.id} readOnly={readOnly} />
        <RecordGroup exchangeId={exchange.id} timeZone={exchange.course.timeZone} />
      </div>
      <PlainWords
        settings={settings}
        plan={plan}
        timeZone={exchange.course.timeZone}
        canPublish={!readOnly && fresh && saving.state === 'saved'}
        saveKey={key}
        unsaved={problems}
      />
    </div>
  );
}

function reviewsWords(count: number): string {
  if (!(count >= 1)) return 'Say how many reviews each student gives';
  return count === 1 ? 'Each student reviews 1 draft by another' : `Each student reviews ${count} drafts by others`;
}

function namesWords(names: Settings['names']): string {
  return names === 'open' ? 'Open: everybody sees names' : 'Hidden both ways, under aliases of shore birds and plants';
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
