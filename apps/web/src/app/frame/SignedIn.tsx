import { useEffect, useState } from 'react';
import { Navigate, Outlet, useLocation } from 'react-router';
import { Loading } from '../../kit/index.js';
import { problemOf, useSessionQuery } from '../api.js';
import { ProblemNotice } from '../ProblemNotice.js';
import { ConfirmPasswordDialog } from '../session/ConfirmPasswordDialog.js';
import { SignedOutBar } from '../session/SignedOutBar.js';
import { useChanges } from '../changes/useChanges.js';
import { LeftBehind } from '../saving/LeftBehind.js';
import { saveQueue } from '../store.js';
import { say } from '../../words/app.js';

/** Everything below is for signed-in people, and waits until their unsent work has been taken up again. */
export function SignedIn() {
  const { data, error } = useSessionQuery();
  const location = useLocation();
  const personId = data?.person?.id ?? null;
  const viewAs = data?.viewAs != null;
  const [loadedFor, setLoadedFor] = useState<string | null>(null);
  // With borrowed eyes one hears what the student hears, and a stream cannot say whose eyes they are.
  useChanges(personId !== null && !viewAs);
  useEffect(() => {
    if (personId === null) return;
    // With a student's eyes, what the student left unsent in this browser is none of ours.
    if (viewAs) setLoadedFor(personId);
    else void saveQueue.load(personId).then(() => setLoadedFor(personId));
  }, [personId, viewAs]);
  if (error !== undefined) return <ProblemNotice error={problemOf(error)} />;
  if (data === undefined) return <Loading what={say('saltCircleLabel')} />;
  if (personId === null) {
    return <Navigate to={data.demo ? '/demo' : '/sign-in'} replace state={{ from: location.pathname }} />;
  }
  if (loadedFor !== personId) return <Loading what={say('yourWork')} />;
  return (
    <>
      {!viewAs && <LeftBehind personId={personId} />}
      <Outlet />
      <SignedOutBar />
      {!viewAs && <ConfirmPasswordDialog />}
    </>
  );
}
