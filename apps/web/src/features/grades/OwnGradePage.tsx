import type { GradeLine, GradePartName } from '@salt-circle/core';
import { useEffect } from 'react';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useViewAs } from '../../app/view-as/useViewAs.js';
import { useExchange } from '../../app/useExchange.js';
import { Loading } from '../../kit/index.js';
import { Arithmetic } from './Arithmetic.js';
import { useOwnGradeQuery, useReadGradeMutation } from './gradesApi.js';
import { say } from '../../words/grades.js';

/** Where a student reads what a part of the own grade rests on. */
const EVIDENCE: Readonly<Record<GradePartName, 'draft' | 'review' | 'feedback' | 'reflection'>> = {
  'handing-in': 'draft',
  'reviews-done': 'review',
  'form-completed': 'review',
  'notes-made': 'review',
  'peer-score': 'feedback',
  'review-quality': 'review',
  replies: 'feedback',
  reflection: 'reflection',
  'instructor-mark': 'feedback',
};

/** A student’s own grade, and how it came about. */
export function OwnGradePage() {
  const exchange = useExchange();
  const { data, error } = useOwnGradeQuery(exchange.id, { refetchOnMountOrArgChange: true });
  const [read] = useReadGradeMutation();
  const seen = data !== undefined;
  const viewAs = useViewAs() !== null;
  useEffect(() => {
    if (seen && !viewAs) void read(exchange.id);
  }, [seen, viewAs, read, exchange.id]);
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what={say('yourGrade')} />;
  const { grade, rule, grounds } = data;
  const evidence = ({ part }: GradeLine) =>
    ['peer-score', 'instructor-mark', 'replies'].includes(part) && !exchange.feedbackOpen
      ? null
      : `../${EVIDENCE[part]}`;
  return (
    <div className="mx-auto w-full max-w-2xl px-5 py-5">
      <h2 className="text-xl font-semibold">{say('yourGradeLabel')}</h2>
      <p className="my-3 text-3xl font-semibold tabular-nums">{grade.words ?? say('noneYet')}</p>
      <Arithmetic grade={grade} rule={rule} grounds={grounds} evidence={evidence} />
    </div>
  );
}
