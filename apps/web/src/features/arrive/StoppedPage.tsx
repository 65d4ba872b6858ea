import { useParams } from 'react-router';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { Loading, Notice } from '../../kit/index.js';
import { useFaultQuery } from './arriveApi.js';
import { Doorway } from './Doorway.js';
import { say } from '../../words/arrive.js';

/** Why somebody did not come in, and what can be done. */
export function StoppedPage() {
  const { fault = '' } = useParams();
  const { data, error } = useFaultQuery(fault);
  return (
    <Doorway title={say('youHaveNotComeIn')}>
      {error !== undefined && <ProblemNotice error={error} />}
      {data === undefined && error === undefined && <Loading what={say('reason')} />}
      {data !== undefined && (
        <Notice tone="problem" title={data.sentence}>
          {data.whatToDo}
        </Notice>
      )}
    </Doorway>
  );
}
