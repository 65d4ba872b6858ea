import { useLocation } from 'react-router';
import { buttonClass } from '../../kit/index.js';
import { Doorway } from './Doorway.js';

/** Inside of another site's page some browsers give us no cookie: then one press opens a window, in which it begins again. */
export function WindowPage() {
  const { search } = useLocation();
  return (
    <Doorway title="One press more">
      <p>
        This browser does not let Salt Circle know you inside of another page. In a window of its own it does; you need
        not sign in again.
      </p>
      <p>
        <a className={buttonClass('primary')} href={`/api/campus/login${search}`} target="_blank" rel="noopener">
          Open Salt Circle
        </a>
      </p>
    </Doorway>
  );
}
