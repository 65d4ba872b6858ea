import { useSessionQuery } from '../../app/api.js';
import { SignInForm } from '../../app/session/SignInForm.js';
import { Link, useLocation } from 'react-router';
import { Entrance } from './Entrance.js';
import { say } from '../../words/sign-in.js';

export function SignInPage() {
  const { data } = useSessionQuery();
  const location = useLocation();
  const { from = '/', email = '' } = (location.state as { from?: string; email?: string } | null) ?? {};
  return (
    <Entrance title={say('signInToSaltCircle')}>
      {/* A full load, so that nothing of an earlier person stays in memory. */}
      <SignInForm email={email} onSignedIn={() => window.location.assign(from)} />
      <p className="mt-6">
        <Link to="/forgotten" className="text-dusk underline">
          {say('forgottenYourPassword')}
        </Link>
      </p>
      {data?.demo === true && (
        <p className="mt-4 text-ink-soft">
          {say('thisIsDemoPasswordOf', {
            em: (words) => <em>{words}</em>,
            link: (words) => (
              <Link to="/demo" className="text-dusk underline">
                {words}
              </Link>
            ),
          })}
        </p>
      )}
    </Entrance>
  );
}
