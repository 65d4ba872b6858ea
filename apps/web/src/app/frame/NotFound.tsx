import { Link, useRouteError } from 'react-router';
import { buttonClass, Empty, Ring } from '../../kit/index.js';

/** For addresses that lead nowhere, and for pages that broke. */
export function NotFound() {
  const error = useRouteError();
  return (
    <main className="p-8">
      <Ring size={36} />
      <Empty title={error === undefined ? 'There is no page at this address.' : 'This page could not be shown.'}>
        <p>
          {error === undefined
            ? 'Check the address, or begin again from Today.'
            : 'What you typed is kept in this browser. Load the page again; if that does not help, begin again from Today.'}
        </p>
        <Link to="/" reloadDocument className={buttonClass('primary')}>
          Today
        </Link>
      </Empty>
    </main>
  );
}
