import type { JobView, PreviewView, Problem } from '@salt-circle/contracts';
import { useCallback, useEffect, useRef, useState } from 'react';
import { problemOf } from '../../app/api.js';
import { selectLive } from '../../app/changes/changesSlice.js';
import { useNews } from '../../app/changes/useChanges.js';
import { useAppSelector } from '../../app/store.js';
import {
  useCancelPreviewMutation,
  useLazyPreviewJobQuery,
  useStartPreviewMutation,
  type PreviewBody,
} from './allocationApi.js';

/** Milliseconds between two looks at how far it is; where news come in, only in case one gets lost. */
const LOOK_AGAIN = 250;
const LOOK_BEHIND_NEWS = 2_000;

export interface Previewing {
  readonly preview: PreviewView | null;
  readonly running: JobView | null;
  readonly problem: Problem | null;
  readonly start: (body: PreviewBody) => void;
  readonly cancel: () => void;
  readonly show: (preview: PreviewView | null) => void;
}

/** Has an allocation worked out on the server, watches how far it is, and can call it off. */
export function usePreview(id: string): Previewing {
  const [preview, setPreview] = useState<PreviewView | null>(null);
  const [running, setRunning] = useState<JobView | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [startPreview] = useStartPreviewMutation();
  const [look] = useLazyPreviewJobQuery();
  const [cancelPreview] = useCancelPreviewMutation();
  const live = useAppSelector(selectLive);
  /** The last one asked for: answers to earlier ones are of no interest any more. */
  const latest = useRef(0);

  const settle = useCallback((job: JobView) => {
    // News and the timer may both have asked: the second answer would bring back a preview dropped after the first.
    latest.current += 1;
    setRunning(null);
    if (job.state === 'done') setPreview(job.preview);
    setProblem(job.problem);
  }, []);

  const start = (body: PreviewBody) => {
    latest.current += 1;
    const mine = latest.current;
    if (running !== null) void cancelPreview({ id, jobId: running.id });
    setProblem(null);
    void startPreview({ id, ...body }).then(({ data, error }) => {
      if (latest.current !== mine) return;
      if (error !== undefined) setProblem(problemOf(error));
      else if (data.state === 'running') setRunning(data);
      else settle(data);
    });
  };

  const lookAgain = useCallback(() => {
    if (running === null) return;
    const mine = latest.current;
    void look({ id, jobId: running.id }).then(({ data, error }) => {
      if (latest.current !== mine) return;
      if (error !== undefined) {
        setRunning(null);
        setProblem(problemOf(error));
      } else if (data?.state === 'running') setRunning({ ...data });
      else if (data !== undefined) settle(data);
    });
  }, [id, look, running, settle]);

  useNews('preview', id, lookAgain);
  useEffect(() => {
    if (running === null) return;
    const timer = setTimeout(lookAgain, live ? LOOK_BEHIND_NEWS : LOOK_AGAIN);
    return () => clearTimeout(timer);
  }, [running, lookAgain, live]);

  const cancel = () => {
    latest.current += 1;
    if (running !== null) void cancelPreview({ id, jobId: running.id });
    setRunning(null);
  };

  return {
    preview,
    running,
    problem,
    start,
    cancel,
    show: (next) => {
      // What is dropped or applied is not followed by one that was still being worked out.
      cancel();
      setPreview(next);
    },
  };
}
