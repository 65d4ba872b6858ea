import { useLocation } from 'react-router';
import { buttonClass } from '../../kit/index.js';
import { Doorway } from './Doorway.js';
import { say } from '../../words/arrive.js';

/** Inside of another site's page some browsers give us no cookie: then one press opens a window, in which it begins again. */
export function WindowPage() {
  const { search } = useLocation();
  return (
    <Doorway title={say('onePressMore')}>
      <p>{say('thisBrowserDoesNotLet')}</p>
      <p>
        <a className={buttonClass('primary')} href={`/api/lti/login${search}`} target="_blank" rel="noopener">
          {say('openSaltCircle')}
        </a>
      </p>
    </Doorway>
  );
}
