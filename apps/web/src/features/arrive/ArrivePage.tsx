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

/** What somebody is asked who comes from a campus, one thing after the other, and no more than has to be asked. */
export function ArrivePage() {
  const { token = '' } = useParams();
  const { data, error, refetch } = useArrivalQuery(token, { refetchOnMountOrArgChange: true });
  const [say, { data: said, isLoading, error: refused }] = useSayMutation();
  const view = said ?? data;
  const go = view?.go ?? null;
  useEffect(() => {
    // A full load: the page begins anew, as somebody who is in.
    if (go !== null) window.location.assign(go);
  }, [go]);
  if (error !== undefined && view === undefined)
    return (
      <Doorway title="This did not work">
        <ProblemNotice error={error} />
      </Doorway>
    );
  if (view === undefined || go !== null) return <Loading what={go === null ? 'what comes next' : 'your page'} />;
  const tell = (what: Saying['what'], body?: object) => void say({ token, what, ...(body && { body }) });
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
  who: ({ name }) => (name === null ? 'Welcome' : `Welcome, ${name}`),
  prove: () => 'Is this place yours?',
  course: ({ course }) => `Which course is “${course}”?`,
  role: () => 'You have another role here',
  choose: () => 'What shall the link lead to?',
  stop: () => 'This goes no further',
  go: () => 'One moment',
};

function Who({ view, token, busy, error, tell }: StepProps) {
  const [own, setOwn] = useState(false);
  if (own)
    return <OwnAccount token={token} busy={busy} error={error} tell={tell} byMail onLeave={() => setOwn(false)} />;
  return (
    <>
      <p>
        You come from {view.campus}, from the course “{view.course}”. It is the first time, so from now on Salt Circle
        knows you by it, and asks for no password.
      </p>
      {error !== undefined && <ProblemNotice error={error} />}
      <Button look="primary" busy={busy} onClick={() => tell('begin')}>
        Go on
      </Button>
      <p>
        <button type="button" className="min-h-6 text-dusk underline" onClick={() => setOwn(true)}>
          I have an account here already
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
          ? `A place in this course belongs to an account (${name}) that is not tied to ${view.campus} yet.`
          : `The course lists ${name}${hint === '' ? '' : ` (${hint})`}, and nobody has taken that place yet.`}{' '}
        If it is yours, show it once; then {view.campus} is enough.
      </p>
      <ByMail token={token} email={null} words={hint === '' ? 'Send me a link' : `Send a link to ${hint}`} />
      {byPassword && !own && (
        <p>
          <button type="button" className="min-h-6 text-dusk underline" onClick={() => setOwn(true)}>
            {taken ? 'I know its password' : 'I have an account with this address'}
          </button>
        </p>
      )}
      {own && <OwnAccount token={token} busy={busy} error={error} tell={tell} onLeave={() => setOwn(false)} />}
      <p className="text-ink-soft">If it is not yours, ask your instructor to look at the list of people.</p>
      <Button onClick={again}>I have used the link: go on</Button>
    </>
  );
}

const ROLES = { instructor: 'an instructor', assistant: 'an assistant', student: 'a student' } as const;

function Role({ view, busy, error, tell }: StepProps) {
  const { role, courseRole } = view;
  return (
    <>
      <p>
        {view.campus} says that you are {role === null ? 'neither student nor staff' : ROLES[role]} in “{view.course}”.
        In Salt Circle you are {courseRole === null ? 'not listed' : ROLES[courseRole]}, and that stays. An instructor
        of the course can change it under People.
      </p>
      {error !== undefined && <ProblemNotice error={error} />}
      <Button look="primary" busy={busy} onClick={() => tell('role')}>
        Go on as {courseRole === null ? 'you are' : ROLES[courseRole]}
      </Button>
    </>
  );
}
