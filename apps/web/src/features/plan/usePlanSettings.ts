import type { FieldProblem, PlanView, Problem } from '@salt-circle/contracts';
import { useEffect, useEffectEvent, useRef, useState } from 'react';
import { useSaver, useSavingState, type SavingState } from '../../app/saving/useSaving.js';
import { saveQueue } from '../../app/store.js';
import { settingsOf, type Settings } from './settings.js';

type Name = keyof Settings;

export interface PlanSettingsState {
  /** As they are shown: what cannot be kept yet included. */
  readonly settings: Settings;
  readonly saving: SavingState;
  readonly touched: boolean;
  /** What keeps single settings from being saved; all others are. */
  readonly held: readonly FieldProblem[];
  /** What was refused as a whole. */
  readonly refused: Problem | null;
  readonly change: (part: Partial<Settings>) => void;
  readonly take: (theirs: PlanView) => void;
}

const nameIn = ({ path }: FieldProblem): Name => path.split('.')[0] as Name;

/**
 * The settings of a plan, saved as they are typed, each apart: what the server refuses stays on the page beside its reason, and
 * the rest is sent again with what it held of that one before.
 */
export function usePlanSettings(plan: PlanView, exchangeId: string, key: string): PlanSettingsState {
  const [own, setOwn] = useState<Settings>(() => ({ ...settingsOf(plan), ...saveQueue.pending(key)?.body }));
  const [held, setHeld] = useState<readonly FieldProblem[]>([]);
  const [touched, setTouched] = useState(false);
  /** What was last sent, perhaps by an earlier visit, and what the server last took. */
  const sent = useRef<Settings | null>(saveQueue.pending(key) === null ? null : own);
  const kept = useRef<Settings>(settingsOf(plan));
  const save = useSaver(key, `/api/exchanges/${exchangeId}/plan`, plan.revision);
  const saving = useSavingState(key);

  const put = (settings: Settings, back: readonly FieldProblem[]) => {
    const names = new Set(back.map(nameIn));
    sent.current = pick(settings, kept.current, names);
    setHeld(back);
    save({ ...sent.current });
  };
  const settle = useEffectEvent(() => {
    if (saving.state === 'saved' && sent.current !== null) kept.current = sent.current;
    if (saving.state !== 'refused' || sent.current === null) return;
    const problems = (saving.problem?.fields ?? []).filter((one) => nameIn(one) in own);
    if (problems.length === 0) return;
    const back = [...held.filter((one) => !problems.some((other) => nameIn(other) === nameIn(one))), ...problems];
    // What went as the server held it would be refused again: then it is only said.
    const isNew = problems.some((one) => sent.current?.[nameIn(one)] !== kept.current[nameIn(one)]);
    if (isNew) put(own, back);
    else setHeld(back);
  });
  useEffect(() => settle(), [saving.state, saving.savedAt, saving.problem]);

  // Once published, these are the server's: they are changed by a step of their own, with a notice.
  const theirs = plan.published ? { dates: plan.dates, late: plan.late, gradeParts: plan.gradeParts } : {};
  const settings = { ...own, ...theirs };
  return {
    settings,
    saving,
    touched,
    held,
    refused:
      saving.state === 'refused' && !(saving.problem?.fields ?? []).some((one) => nameIn(one) in own)
        ? saving.problem
        : null,
    change: (part) => {
      const next = { ...settings, ...part };
      setOwn(next);
      setTouched(true);
      put(
        next,
        held.filter((one) => !(nameIn(one) in part)),
      );
    },
    take: (other) => {
      kept.current = settingsOf(other);
      // What was sent last is not what the server holds.
      sent.current = null;
      setHeld([]);
      setOwn(kept.current);
    },
  };
}

function pick(settings: Settings, kept: Settings, names: ReadonlySet<Name>): Settings {
  return Object.fromEntries(
    (Object.keys(settings) as Name[]).map((name) => [name, (names.has(name) ? kept : settings)[name]]),
  ) as unknown as Settings;
}
