import { useParams } from 'react-router';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { Button, Loading, Notice } from '../../kit/index.js';
import { useConfirmProofMutation, useProofQuery } from './arriveApi.js';
import { Doorway } from './Doorway.js';
import { say } from '../../words/arrive.js';

/** Where a link by mail leads: the account, or the place, is the same person's as the platform's. */
export function ProofPage() {
  const { token = '' } = useParams();
  const { data, error } = useProofQuery(token);
  const [confirm, { isLoading, isSuccess, error: refused }] = useConfirmProofMutation();
  return (
    <Doorway title={isSuccess ? say('done') : say('isItYou')}>
      {error !== undefined && !isSuccess && <ProblemNotice error={error} />}
      {data === undefined && error === undefined && <Loading what={say('whatLinkIsFor')} />}
      {isSuccess ? (
        <Notice tone="done" title={say('isEnoughFromNowOn', { platform: data?.platform ?? say('platform') })}>
          {say('goBackToPageThat')}
        </Notice>
      ) : (
        data !== undefined && (
          <>
            <p>{say('somebodyHasComeToSalt', { platform: data.platform, name: data.name })}</p>
            {refused !== undefined && <ProblemNotice error={refused} />}
            <Button look="primary" busy={isLoading} onClick={() => void confirm(token)}>
              {say('itIsMe')}
            </Button>
          </>
        )
      )}
    </Doorway>
  );
}
