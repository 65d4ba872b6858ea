import { Ring } from '../../kit/index.js';
import { useSessionQuery } from '../../app/api.js';
import { SignInForm } from '../../app/session/SignInForm.js';
import { Link, useLocation } from 'react-router';

export function SignInPage() {
  const { data } = useSessionQuery();
  const location = useLocation();
  const from = (location.state as { from?: string } | null)?.from ?? '/';
  return (
    <main className="mx-auto max-w-sm px-5 py-16">
      <Ring size={40} />
      <h1 className="mt-4 mb-6 text-2xl font-semibold">Sign in to Salt Circle</h1>
      {/* A full load, so that nothing of an earlier person stays in memory. */}
      <SignInForm onSignedIn={() => window.location.assign(from)} />
      {data?.demo === true && (
        <p className="mt-6 text-ink-soft">
          This is the demo: the password of everybody is <em>saltmarsh</em>, or{' '}
          <Link to="/demo" className="text-dusk underline">
            step into a person with one press
          </Link>
          .
        </p>
      )}
    </main>
  );
}
