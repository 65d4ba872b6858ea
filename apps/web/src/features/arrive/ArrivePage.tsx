import { wordsBy } from '@salt-circle/core';
import type { ArrivalView } from '@salt-circle/contracts';
import { useEffect, useState } from 'react';
import { useParams } from 'react-router';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { Button, Loading, Notice } from '../../kit/index.js';
import { useArrivalQuery, useSayMutation, type Saying } from './arriveApi.js';
import { ChooseLink } from './ChooseLink.js';
import { Doorway } from './Doorway.js';
import type { StepProps } from './step.js';
import { WhichCourse } from './WhichCourse.js';
import { ByMail, OwnAccount } from './WhoYouAre.js';
import { say } from '../../words/arrive.js';

/** What somebody is asked who comes from a platform, one thing after the other, and no more than has to be asked. */
export function ArrivePage() {
  const { token = '' } = useParams();
  const { data, error, refetch } = useArrivalQuery(token, { refetchOnMountOrArgChange: true });
  const [answer, { data: said, isLoading, error: refused }] = useSayMutation();
  const view = said ?? data;
  const go = view?.go ?? null;
  useEffect(() => {
    // A full load: the page begins anew, as somebody who is in.
    if (go !== null) window.location.assign(go);
  }, [go]);
  if (error !== undefined && view === undefined)
    return (
      <Doorway title={say('thisDidNotWork')}>
        <ProblemNotice error={error} />
      </Doorway>
    );
  if (view === undefined || go !== null) return <Loading what={go === null ? say('whatComesNext') : say('yourPage')} />;
  const tell = (what: Saying['what'], body?: object) => void answer({ token, what, ...(body && { body }) });
  const step = { view, token, busy: isLoading, error: refused, tell };
  return (
    <Doorway title={TITLES[view.step](view)}>
      {view.step === 'who' && <Who {...step} />}
      {view.step === 'prove' && <Prove {...step} again={() => void refetch()} />}
      {view.step === 'course' && <WhichCourse {...step} />}
      {view.step === 'role' && <Role {...step} />}
      {view.step === 'choose' && <ChooseLink {...step} />}
      {view.step === 'stop' && view.stop !== null && (
        <Notice tone="waiting" title={view.stop.sentence}>
          {view.stop.whatToDo}
        </Notice>
      )}
    </Doorway>
  );
}

const TITLES: Readonly<Record<ArrivalView['step'], (view: ArrivalView) => string>> = {
  who: ({ name }) => (name === null ? say('welcome') : say('welcomeOf', { name })),
  prove: () => say('isThisPlaceYours'),
  course: ({ course }) => say('whichCourseIs', { course }),
  role: () => say('youHaveAnotherRoleHere'),
  choose: () => say('whatShallLinkLeadTo'),
  stop: () => say('thisGoesNoFurther'),
  go: () => say('oneMoment'),
};

function Who({ view, token, busy, error, tell }: StepProps) {
  const [own, setOwn] = useState(false);
  if (own)
    return <OwnAccount token={token} busy={busy} error={error} tell={tell} byMail onLeave={() => setOwn(false)} />;
  return (
    <>
      <p>{say('youComeFromFromCourse', { platform: view.platform, course: view.course })}</p>
      {error !== undefined && <ProblemNotice error={error} />}
      <Button look="primary" busy={busy} onClick={() => tell('begin')}>
        {say('goOn')}
      </Button>
      <p>
        <button type="button" className="min-h-6 text-dusk underline" onClick={() => setOwn(true)}>
          {say('iHaveAccountHereAlready')}
        </button>
      </p>
    </>
  );
}

function Prove({ view, token, busy, error, tell, again }: StepProps & { readonly again: () => void }) {
  const [own, setOwn] = useState(false);
  const { name = '', hint = '', taken = false, byPassword = false } = view.prove ?? {};
  return (
    <>
      <p>
        {taken
          ? say('placeInThisCourseBelongs', { name, platform: view.platform })
          : hint === ''
            ? say('courseListsAndNobodyHas', { name, platform: view.platform })
            : say('courseListsAndNobodyHasTaken', { name, hint, platform: view.platform })}
      </p>
      <ByMail token={token} email={null} words={hint === '' ? say('sendMeLink') : say('sendLinkTo', { hint })} />
      {byPassword && !own && (
        <p>
          <button type="button" className="min-h-6 text-dusk underline" onClick={() => setOwn(true)}>
            {taken ? say('iKnowItsPassword') : say('iHaveAccountWithThis')}
          </button>
        </p>
      )}
      {own && <OwnAccount token={token} busy={busy} error={error} tell={tell} onLeave={() => setOwn(false)} />}
      <p className="text-ink-soft">{say('ifItIsNotYours')}</p>
      <Button onClick={again}>{say('iHaveUsedLinkGo')}</Button>
    </>
  );
}

const ROLES = wordsBy(say, { instructor: 'instructor', assistant: 'assistant', student: 'student' });

function Role({ view, busy, error, tell }: StepProps) {
  const { role, courseRole } = view;
  return (
    <>
      <p>
        {say('saysThatYouAreIn', {
          platform: view.platform,
          roles: role === null ? say('neitherStudentNorStaff') : ROLES[role],
          course: view.course,
          roles2: courseRole === null ? say('notListed') : ROLES[courseRole],
        })}
      </p>
      {error !== undefined && <ProblemNotice error={error} />}
      <Button look="primary" busy={busy} onClick={() => tell('role')}>
        {say('goOnAs', { roles: courseRole === null ? say('youAre') : ROLES[courseRole] })}
      </Button>
    </>
  );
}
