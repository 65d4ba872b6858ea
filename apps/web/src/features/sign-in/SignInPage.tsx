import { useSessionQuery } from '../../app/api.js';
import { SignInForm } from '../../app/session/SignInForm.js';
import { Link, useLocation } from 'react-router';
import { Entrance } from './Entrance.js';

export function SignInPage() {
  const { data } = useSessionQuery();
  const location = useLocation();
  const { from = '/', email = '' } = (location.state as { from?: string; email?: string } | null) ?? {};
  return (
    <Entrance title="Sign in to Salt Circle">
      {/* A full load, so that nothing of an earlier person stays in memory. */}
      <SignInForm email={email} onSignedIn={() => window.location.assign(from)} />
      <p className="mt-6">
        <Link to="/forgotten" className="text-dusk underline">
          Forgotten your password?
        </Link>
      </p>
      {data?.demo === true && (
        <p className="mt-4 text-ink-soft">
          This is the demo: the password of everybody is <em>saltmarsh</em>, or{' '}
          <Link to="/demo" className="text-dusk underline">
            step into a person with one press
          </Link>
          .
        </p>
      )}
    </Entrance>
  );
}
