import { wordsBy } from '@salt-circle/core';
import type { PlatformsView, PlatformRequest, PlatformRow } from '@salt-circle/contracts';
import { useState } from 'react';
import { Page } from '../../app/frame/Page.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { relatively } from '../../app/time/words.js';
import { Button, Dialog, Empty, Loading, StateMark } from '../../kit/index.js';
import { PlatformDialog } from './PlatformDialog.js';
import {
  usePlatformsQuery,
  useChangePlatformMutation,
  useMakeKeyMutation,
  useRemovePlatformMutation,
} from './platformsApi.js';
import { ConnectDialog } from './ConnectDialog.js';
import { say } from '../../words/platforms.js';

/** Platforms that are connected, how they do, and what we sign with; for whoever sees to them. */
export function PlatformsPage() {
  const { data, error } = usePlatformsQuery(undefined, { refetchOnMountOrArgChange: true, pollingInterval: 30_000 });
  const [open, setOpen] = useState<'connect' | 'hand' | PlatformRow | null>(null);
  return (
    <Page title={say('platforms')}>
      <div className="mx-auto w-full max-w-4xl px-5 py-6">
        {error !== undefined && <ProblemNotice error={error} />}
        {data === undefined && error === undefined && <Loading what={say('platformsWord')} />}
        {data !== undefined && (
          <>
            <div className="mb-4 flex flex-wrap items-center justify-between gap-3">
              <p className="max-w-prose text-ink-soft">{say('fromPlatformPeopleComeIn')}</p>
              <div className="flex flex-wrap gap-2">
                <Button onClick={() => setOpen('hand')}>{say('enterByHand')}</Button>
                <Button look="primary" onClick={() => setOpen('connect')}>
                  {say('connectPlatform')}
                </Button>
              </div>
            </div>
            {data.platforms.length === 0 && (
              <Empty title={say('noPlatformIsConnectedYet')}>
                <p>{say('makeLinkAndGiveIt')}</p>
              </Empty>
            )}
            <ul>
              {data.platforms.map((one) => (
                <PlatformItem key={one.id} platform={one} onChange={() => setOpen(one)} />
              ))}
            </ul>
            <Keys keys={data.keys} />
            <Ours ours={data.ours} />
          </>
        )}
      </div>
      {open === 'connect' && <ConnectDialog onClose={() => setOpen(null)} />}
      {open !== null && open !== 'connect' && (
        <PlatformDialog platform={open === 'hand' ? null : open} onClose={() => setOpen(null)} />
      )}
    </Page>
  );
}

/** What is sent to change a platform. */
function bodyOf(platform: PlatformRow, part: Partial<PlatformRequest>): PlatformRequest {
  const { name, issuer, clientId, authUrl, tokenUrl, keysUrl, tokenAudience, active, makesCourses } = platform;
  const { pages, deployments } = platform;
  return {
    ...{ name, issuer, clientId, authUrl, tokenUrl, keysUrl, tokenAudience, active, makesCourses, pages: [...pages] },
    deployments: deployments.filter(({ allowed }) => allowed).map(({ id }) => id),
    ...part,
  };
}

function PlatformItem({ platform, onChange }: { readonly platform: PlatformRow; readonly onChange: () => void }) {
  const [change, changing] = useChangePlatformMutation();
  const [remove, removing] = useRemovePlatformMutation();
  const [asking, setAsking] = useState(false);
  const { id, name, issuer, active, courses, people, arrivedAt, answeredAt, faults, deployments } = platform;
  const now = Date.now();
  const ago = (at: string | null) => (at === null ? '' : relatively(Date.parse(at), now));
  const waiting = deployments.filter(({ allowed }) => !allowed);
  const allow = (deployment: string) => {
    const allowed = deployments.filter((one) => one.allowed).map((one) => one.id);
    void change({ id, body: bodyOf(platform, { deployments: [...allowed, deployment] }) });
  };
  const error = changing.error ?? removing.error;
  return (
    <li className="border-t border-line py-4">
      <div className="flex flex-wrap items-start gap-3">
        <div className="min-w-0 flex-1 basis-72">
          <h2 className="flex flex-wrap items-center gap-2 text-lg font-semibold">
            {name}
            <StateMark
              state={!active ? 'excused' : faults.length === 0 ? 'done' : 'late'}
              word={!active ? say('paused') : faults.length === 0 ? say('connected') : say('somethingIsWrong')}
              wordHidden={false}
            />
          </h2>
          <p className="text-sm break-all text-ink-soft">{issuer}</p>
          <p className="mt-1">
            {say('courses', { courses, people })}{' '}
            {arrivedAt === null ? say('nobodyHasComeByIt') : say('somebodyLastCameByIt', { ago: ago(arrivedAt) })}{' '}
            {answeredAt === null ? say('itHasNotBeenAsked') : say('itLastAnswered', { ago: ago(answeredAt) })}
          </p>
          {faults.map(({ sentence, at }) => (
            <p key={sentence} className="mt-1 text-madder">
              {sentence} <span className="text-ink-soft">{ago(at)}</span>
            </p>
          ))}
          {waiting.map((one) => (
            <p key={one.id} className="mt-2 flex flex-wrap items-center gap-2">
              <span>{say('somebodyCameByPartOf', { code: <code className="break-all">{one.id}</code> })}</span>
              <Button small busy={changing.isLoading} onClick={() => allow(one.id)}>
                {say('allowIt')}
              </Button>
            </p>
          ))}
          {error !== undefined && <ProblemNotice error={error} />}
        </div>
        <div className="flex flex-wrap gap-2">
          <Button small onClick={onChange}>
            {say('changeLabel')}
          </Button>
          <Button
            small
            busy={changing.isLoading}
            onClick={() => void change({ id, body: bodyOf(platform, { active: !active }) })}
          >
            {active ? say('pause') : say('goOn')}
          </Button>
          <Button small onClick={() => setAsking(true)}>
            {say('remove')}
          </Button>
        </div>
      </div>
      <Dialog
        open={asking}
        onClose={() => setAsking(false)}
        title={say('removeOf', { name })}
        description={say('peopleKeepTheirPlacesAnd')}
      >
        <Button look="destructive" busy={removing.isLoading} onClick={() => void remove(id)}>
          {say('removeOf2', { name })}
        </Button>
      </Dialog>
    </li>
  );
}

const KEY_WORDS: Readonly<Record<PlatformsView['keys'][number]['state'], string>> = wordsBy(say, {
  next: 'shownAlreadySigns',
  signing: 'signsNow',
  ending: 'shownForWhatItSigned',
});

function Keys({ keys }: Pick<PlatformsView, 'keys'>) {
  const [make, { isLoading, error }] = useMakeKeyMutation();
  const now = Date.now();
  return (
    <section aria-labelledby="keys" className="border-t border-line py-5">
      <h2 id="keys" className="mb-2 text-lg font-semibold">
        {say('keysThatWeSignWith')}
      </h2>
      {keys.length === 0 && <p className="mb-3">{say('firstOneIsMadeWhen')}</p>}
      <ul className="mb-3">
        {keys.map(({ id, state, until }) => (
          <li key={id}>
            <code>{id.slice(0, 8)}</code>{' '}
            <span className="text-ink-soft">
              {KEY_WORDS[state]}
              {state !== 'signing' && until !== null && ` ${relatively(Date.parse(until), now)}`}
            </span>
          </li>
        ))}
      </ul>
      <p className="mb-3 max-w-prose text-ink-soft">{say('newKeyIsShownDay')}</p>
      {error !== undefined && <ProblemNotice error={error} />}
      <Button busy={isLoading} onClick={() => void make()}>
        {say('makeNewKey')}
      </Button>
    </section>
  );
}

function Ours({ ours }: Pick<PlatformsView, 'ours'>) {
  const rows = [
    [say('loginInitiation'), ours.loginUrl],
    [say('redirectAndLaunch'), ours.launchUrl],
    [say('keySetJwks'), ours.keysUrl],
    ...ours.scopes.map((scope, index) => [index === 0 ? say('scopes') : '', scope] as const),
  ] as const;
  return (
    <section aria-labelledby="ours" className="border-t border-line py-5">
      <h2 id="ours" className="mb-2 text-lg font-semibold">
        {say('whatPlatformHasToKnow')}
      </h2>
      <dl className="grid gap-x-4 gap-y-1 sm:grid-cols-[11rem_1fr]">
        {rows.map(([what, value]) => (
          <div key={value} className="contents">
            <dt className="text-ink-soft">{what}</dt>
            <dd>
              <code className="break-all select-all">{value}</code>
            </dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
