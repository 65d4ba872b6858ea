import { wordsBy } from '@salt-circle/core';
import type { MadeTokenView, Problem, TokenRow, TokenScope, TokensView } from '@salt-circle/contracts';
import { useState, type FormEvent } from 'react';
import { api } from '../../app/api.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { belongsNowhere, fieldProblem } from '../../app/session/fieldProblem.js';
import { relatively } from '../../app/time/words.js';
import { Button, Notice, Select, TextField } from '../../kit/index.js';
import { say } from '../../words/account.js';

const { useTokensQuery, useMakeTokenMutation, useTakeBackTokenMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    tokens: build.query<TokensView, void>({ query: () => '/account/tokens', providesTags: ['Account'] }),
    makeToken: build.mutation<MadeTokenView, { name: string; scope: TokenScope; days: number }>({
      query: (body) => ({ url: '/account/tokens', method: 'POST', body }),
      invalidatesTags: ['Account'],
    }),
    takeBackToken: build.mutation<null, string>({
      query: (id) => ({ url: `/account/tokens/${id}`, method: 'DELETE' }),
      invalidatesTags: ['Account'],
    }),
  }),
});

const SCOPES: Readonly<Record<TokenScope, string>> = wordsBy(say, {
  read: 'coursesExchangesAndReviewsTo',
  grades: 'gradesInsightsAndResultsAlone',
});
const DAYS = [7, 30, 90, 366] as const;

/** Access tokens for scripts of one's own; for staff, and nothing for anybody else. */
export function TokensSection() {
  const { data } = useTokensQuery(undefined, { refetchOnMountOrArgChange: true });
  const [making, setMaking] = useState(false);
  const [made, setMade] = useState<string | null>(null);
  if (data === undefined || (!data.may && data.tokens.length === 0)) return null;
  return (
    <section aria-labelledby="tokens" className="border-t border-line py-6">
      <h2 id="tokens" className="mb-3 text-lg font-semibold">
        {say('accessTokensForScripts')}
      </h2>
      <p className="mb-3 text-ink-soft">{say('scriptThatSendsOneReads')}</p>
      {made !== null && (
        <div className="mb-3">
          <Notice title={say('copyItNowItIs')}>
            <code className="block rounded border border-line bg-paper p-2 break-all select-all">{made}</code>
            <p className="mt-2 text-sm">
              {say('sentAsAuthorizationBearer', { code: (words) => <code>{words}</code> })}
            </p>
            <Button small onClick={() => setMade(null)}>
              {say('iHaveIt')}
            </Button>
          </Notice>
        </div>
      )}
      {data.tokens.length > 0 && (
        <ul>
          {data.tokens.map((token) => (
            <Token key={token.id} token={token} />
          ))}
        </ul>
      )}
      {making ? (
        <NewToken
          onMade={(token) => {
            setMade(token);
            setMaking(false);
          }}
          onLeave={() => setMaking(false)}
        />
      ) : (
        data.may && (
          <div className="mt-3">
            <Button onClick={() => setMaking(true)}>{say('makeToken')}</Button>
          </div>
        )
      )}
    </section>
  );
}

function Token({ token: { id, name, scope, ends, used } }: { readonly token: TokenRow }) {
  const [takeBack, { isLoading, error }] = useTakeBackTokenMutation();
  // Tokens go by the real time, which the demo does not move.
  const now = Date.now();
  return (
    <li className="border-b border-line py-2 first:border-t">
      <div className="flex items-center gap-3">
        <div className="min-w-0 flex-1">
          <span className="font-semibold break-words">{name}</span>
          <p className="text-sm text-ink-soft">
            {used === null
              ? say('endsNotUsedYet', { scopes: SCOPES[scope], when: relatively(Date.parse(ends), now) })
              : say('endsLastUsed', {
                  scopes: SCOPES[scope],
                  when: relatively(Date.parse(ends), now),
                  when2: relatively(Date.parse(used), now),
                })}
          </p>
        </div>
        <Button small disabled={isLoading} aria-label={say('takeBack', { name })} onClick={() => void takeBack(id)}>
          {say('takeBackLabel')}
        </Button>
      </div>
      {error !== undefined && <ProblemNotice error={error} />}
    </li>
  );
}

interface NewTokenProps {
  readonly onMade: (token: string) => void;
  readonly onLeave: () => void;
}

function NewToken({ onMade, onLeave }: NewTokenProps) {
  const [name, setName] = useState('');
  const [scope, setScope] = useState<TokenScope>('grades');
  const [days, setDays] = useState<number>(30);
  const [make, { isLoading, error }] = useMakeTokenMutation();
  const go = async (event: FormEvent) => {
    event.preventDefault();
    const result = await make({ name, scope, days });
    if (result.data !== undefined) onMade(result.data.token);
  };
  const problem = error as Problem | undefined;
  return (
    <form className="mt-3 space-y-3" onSubmit={(event) => void go(event)}>
      <TextField
        label={say('whatItIsFor')}
        value={name}
        problem={fieldProblem(problem, 'name')}
        onChange={({ target }) => setName(target.value)}
      />
      <Select
        label={say('whatItOpens')}
        value={scope}
        options={Object.entries(SCOPES)}
        onChange={(next) => setScope(next as TokenScope)}
      />
      <Select
        label={say('howLong')}
        value={String(days)}
        options={DAYS.map((one) => [String(one), one === 366 ? say('year') : say('days', { days: one })] as const)}
        onChange={(next) => setDays(Number(next))}
      />
      {problem !== undefined && belongsNowhere(problem) && <ProblemNotice error={problem} />}
      <div className="flex gap-2">
        <Button type="submit" look="primary" busy={isLoading} disabled={name.trim() === ''}>
          {say('makeIt')}
        </Button>
        <Button onClick={onLeave}>{say('leaveIt')}</Button>
      </div>
    </form>
  );
}
