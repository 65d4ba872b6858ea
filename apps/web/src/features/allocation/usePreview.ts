import type { JobView, PreviewView, Problem } from '@salt-circle/contracts';
import { useCallback, useEffect, useRef, useState } from 'react';
import { problemOf } from '../../app/api.js';
import {
  useCancelPreviewMutation,
  useLazyPreviewJobQuery,
  useStartPreviewMutation,
  type PreviewBody,
} from './allocationApi.js';

const LOOK_AGAIN = 250;

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
  /** The last one asked for: answers to earlier ones are of no interest any more. */
  const latest = useRef(0);

  const settle = useCallback((job: JobView) => {
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

  useEffect(() => {
    if (running === null) return;
    const timer = setTimeout(() => {
      void look({ id, jobId: running.id }).then(({ data, error }) => {
        if (error !== undefined) {
          setRunning(null);
          setProblem(problemOf(error));
        } else if (data?.state === 'running') setRunning({ ...data });
        else if (data !== undefined) settle(data);
      });
    }, LOOK_AGAIN);
    return () => clearTimeout(timer);
  }, [id, look, running, settle]);

  return {
    preview,
    running,
    problem,
    start,
    cancel: () => {
      latest.current += 1;
      if (running !== null) void cancelPreview({ id, jobId: running.id });
      setRunning(null);
    },
    show: setPreview,
  };
}
