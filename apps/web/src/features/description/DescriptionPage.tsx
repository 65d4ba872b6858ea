import { useMemo, useState } from 'react';
import { api, useSessionQuery } from '../../app/api.js';
import { NotFound } from '../../app/frame/NotFound.js';
import { Page } from '../../app/frame/Page.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { Loading, TextField } from '../../kit/index.js';
import { operationsOf, type Described, type OpenApi, type Operation } from './operations.js';
import { say } from '../../words/description.js';

const { useDescriptionQuery } = api.injectEndpoints({
  endpoints: (build) => ({ description: build.query<OpenApi, null>({ query: () => '/openapi.json' }) }),
});

/** What scripts can call, to be read; beside a program that is tried out or worked on, not in front of a class. */
export function DescriptionPage() {
  const { data: session } = useSessionQuery();
  if (session === undefined) return null;
  return session.demo || import.meta.env.DEV ? <Description /> : <NotFound />;
}

function Description() {
  const { data, error } = useDescriptionQuery(null);
  const [wanted, setWanted] = useState('');
  const operations = useMemo(() => (data === undefined ? [] : operationsOf(data)), [data]);
  const found = operations.filter(({ method, path }) =>
    `${method} ${path}`.toLowerCase().includes(wanted.toLowerCase()),
  );
  const groups = [...new Set(found.map(({ group }) => group))];
  return (
    <Page title={say('whatScriptsCanCall')}>
      <div className="mx-auto w-full max-w-4xl space-y-6 px-5 py-5">
        {error !== undefined && <ProblemNotice error={error} />}
        {data === undefined && error === undefined && <Loading what={say('description')} />}
        {data !== undefined && (
          <>
            <p>
              {say('sameAsOpenapi', {
                description: data.info.description,
                openapi: data.openapi,
                link: (words) => (
                  <a href="/api/openapi.json" className="text-dusk underline">
                    {words}
                  </a>
                ),
              })}
            </p>
            <TextField
              label={say('findRoute')}
              value={wanted}
              onChange={({ target }) => setWanted(target.value)}
              hint={say('of', { found: found.length, operations: operations.length })}
            />
            {groups.map((group) => (
              <section key={group} aria-label={group}>
                <h2 className="mb-1 text-lg font-semibold">{group}</h2>
                {found
                  .filter((one) => one.group === group)
                  .map((one) => (
                    <Route key={`${one.method} ${one.path}`} operation={one} />
                  ))}
              </section>
            ))}
          </>
        )}
      </div>
    </Page>
  );
}

function Route({ operation: { method, path, parameters, body, answer } }: { readonly operation: Operation }) {
  const line = (
    <>
      <span className="inline-block w-16 font-semibold">{method}</span>
      <span className="break-all">{path}</span>
    </>
  );
  if (parameters.length === 0 && body === null && answer === null)
    return <p className="border-b border-line py-1.5">{line}</p>;
  return (
    <details className="border-b border-line py-1.5">
      <summary className="cursor-pointer">{line}</summary>
      <div className="py-2 pl-4 text-sm">
        {parameters.length > 0 && <p className="text-ink-soft">{parameters.join(', ')}</p>}
        {body !== null && <Shape what={say('body')} of={body} />}
        {answer !== null && <Shape what={say('answer')} of={answer} />}
      </div>
    </details>
  );
}

function Shape({ what, of: { name, schema } }: { readonly what: string; readonly of: Described }) {
  return (
    <>
      <p className="mt-2 font-medium">{name === '' ? what : `${what}: ${name}`}</p>
      <pre tabIndex={0} aria-label={what} className="max-h-96 overflow-auto rounded border border-line bg-crust p-2">
        {JSON.stringify(schema, null, 2)}
      </pre>
    </>
  );
}
