import { Link } from 'react-router';
import { buttonClass, Empty, Ring } from '../../kit/index.js';
import { say } from '../../words/app.js';

/** For addresses that lead nowhere. */
export function NotFound() {
  return <Ended title={say('thereIsNoPageAt')} words={say('checkAddressOrBeginAgain')} />;
}

/** For pages that broke. */
export function Broken() {
  return <Ended title={say('thisPageCouldNotBe')} words={say('whatYouTypedIsKept')} />;
}

function Ended({ title, words }: { readonly title: string; readonly words: string }) {
  return (
    <main className="p-8">
      <Ring size={36} />
      <Empty title={title}>
        <p>{words}</p>
        <Link to="/" reloadDocument className={buttonClass('primary')}>
          {say('today')}
        </Link>
      </Empty>
    </main>
  );
}
