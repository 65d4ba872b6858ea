import type { AddressLinkView } from '@salt-circle/contracts';
import { Link, useParams } from 'react-router';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { Button, Loading, Notice } from '../../kit/index.js';
import { Entrance } from './Entrance.js';
import { useAddressLinkQuery, useConfirmAddressMutation } from './linksApi.js';

/** Where a link about a new address leads: confirmed by a press, because mail programs open links by themselves. */
export function AddressLinkPage() {
  const { token = '' } = useParams();
  const [confirm, { data: done, isLoading, error: failed }] = useConfirmAddressMutation();
  const { data, error } = useAddressLinkQuery(token, { skip: done !== undefined });
  const problem = failed ?? (done === undefined ? error : undefined);
  return (
    <Entrance title="Your new address">
      {problem !== undefined && <ProblemNotice error={problem} />}
      {data === undefined && error === undefined && <Loading what="your link" />}
      {data !== undefined && done === undefined && problem === undefined && (
        <>
          <Change link={data} />
          <Button look="primary" busy={isLoading} onClick={() => void confirm(token)}>
            Confirm it
          </Button>
        </>
      )}
      {data !== undefined && done !== undefined && (
        <Notice tone={done.made ? 'done' : 'waiting'} title={done.made ? 'The change is made.' : 'Confirmed.'}>
          {done.made
            ? `From now on you sign in with ${data.to}.`
            : `Now open the link that was sent to ${data.which === 'old' ? data.to : data.from} as well.`}
        </Notice>
      )}
      <p className="mt-6">
        <Link to="/" className="text-dusk underline">
          Go to Salt Circle
        </Link>
      </p>
    </Entrance>
  );
}

function Change({ link }: { readonly link: AddressLinkView }) {
  return (
    <p className="mb-4">
      You sign in with <strong className="break-words">{link.from}</strong>, and want to use{' '}
      <strong className="break-words">{link.to}</strong> from now on.{' '}
      {link.last
        ? 'The other address has confirmed it already.'
        : 'It is changed once both addresses have confirmed it.'}
    </p>
  );
}
