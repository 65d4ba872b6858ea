import { Link } from 'react-router';
import { buttonClass, Empty, Ring } from '../../kit/index.js';

/** For addresses that lead nowhere. */
export function NotFound() {
  return <Ended title="There is no page at this address." words="Check the address, or begin again from Today." />;
}

/** For pages that broke. */
export function Broken() {
  return (
    <Ended
      title="This page could not be shown."
      words="What you typed is kept in this browser. Load the page again; if that does not help, begin again from Today."
    />
  );
}

function Ended({ title, words }: { readonly title: string; readonly words: string }) {
  return (
    <main className="p-8">
      <Ring size={36} />
      <Empty title={title}>
        <p>{words}</p>
        <Link to="/" reloadDocument className={buttonClass('primary')}>
          Today
        </Link>
      </Empty>
    </main>
  );
}
