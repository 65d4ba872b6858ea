import { useParams } from 'react-router';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { Button, Loading, Notice } from '../../kit/index.js';
import { useConfirmProofMutation, useProofQuery } from './arriveApi.js';
import { Doorway } from './Doorway.js';

/** Where a link by mail leads: the account, or the place, is the same person's as the campus's. */
export function ProofPage() {
  const { token = '' } = useParams();
  const { data, error } = useProofQuery(token);
  const [confirm, { isLoading, isSuccess, error: refused }] = useConfirmProofMutation();
  return (
    <Doorway title={isSuccess ? 'Done' : 'Is it you?'}>
      {error !== undefined && !isSuccess && <ProblemNotice error={error} />}
      {data === undefined && error === undefined && <Loading what="what the link is for" />}
      {isSuccess ? (
        <Notice tone="done" title={`${data?.campus ?? 'The campus'} is enough from now on.`}>
          Go back to the page that you came to from there, and go on.
        </Notice>
      ) : (
        data !== undefined && (
          <>
            <p>
              Somebody has come to Salt Circle from {data.campus}, and says to be {data.name}. If it is you, say so:
              from then on you come in from there without a password. If it was not you, close this page.
            </p>
            {refused !== undefined && <ProblemNotice error={refused} />}
            <Button look="primary" busy={isLoading} onClick={() => void confirm(token)}>
              It is me
            </Button>
          </>
        )
      )}
    </Doorway>
  );
}
