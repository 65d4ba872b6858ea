import type { AddressLinkView } from '@salt-circle/contracts';
import { Link, useParams } from 'react-router';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { Button, Loading, Notice } from '../../kit/index.js';
import { Entrance } from './Entrance.js';
import { useAddressLinkQuery, useConfirmAddressMutation } from './linksApi.js';
import { say } from '../../words/sign-in.js';

/** Where a link about a new address leads: confirmed by a press, because mail programs open links by themselves. */
export function AddressLinkPage() {
  const { token = '' } = useParams();
  const [confirm, { data: done, isLoading, error: failed }] = useConfirmAddressMutation();
  const { data, error } = useAddressLinkQuery(token, { skip: done !== undefined });
  const problem = failed ?? (done === undefined ? error : undefined);
  return (
    <Entrance title={say('yourNewAddress')}>
      {problem !== undefined && <ProblemNotice error={problem} />}
      {data === undefined && error === undefined && <Loading what={say('yourLink')} />}
      {data !== undefined && done === undefined && problem === undefined && (
        <>
          <Change link={data} />
          <Button look="primary" busy={isLoading} onClick={() => void confirm(token)}>
            {say('confirmIt')}
          </Button>
        </>
      )}
      {data !== undefined && done !== undefined && (
        <Notice tone={done.made ? 'done' : 'waiting'} title={done.made ? say('changeIsMade') : say('confirmed')}>
          {done.made
            ? say('fromNowOnYouSign', { to: data.to })
            : say('nowOpenLinkThatWas', { to: data.which === 'old' ? data.to : data.from })}
        </Notice>
      )}
      <p className="mt-6">
        <Link to="/" className="text-dusk underline">
          {say('goToSaltCircle')}
        </Link>
      </p>
    </Entrance>
  );
}

function Change({ link }: { readonly link: AddressLinkView }) {
  return (
    <p className="mb-4">
      {link.last
        ? say('youSignInWithAnd', {
            strong: <strong className="break-words">{link.from}</strong>,
            strong2: <strong className="break-words">{link.to}</strong>,
          })
        : say('youSignInWithAndWant', {
            strong: <strong className="break-words">{link.from}</strong>,
            strong2: <strong className="break-words">{link.to}</strong>,
          })}
    </p>
  );
}
