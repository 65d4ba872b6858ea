import type { DraftReadingView } from '@salt-circle/contracts';
import { Link, useParams } from 'react-router';
import { Loading, Prose } from '../../kit/index.js';
import { api } from '../../app/api.js';
import { Person } from '../../app/People.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { When } from '../../app/time/When.js';
import { useExchange } from '../../app/useExchange.js';

const { useDraftReadingQuery } = api.injectEndpoints({
  endpoints: (build) => ({
    draftReading: build.query<DraftReadingView, { exchangeId: string; draftId: string }>({
      query: ({ exchangeId, draftId }) => `/exchanges/${exchangeId}/drafts/${draftId}`,
      providesTags: ['Draft'],
    }),
  }),
});

/** A handed-in draft, to read. */
export function ReadDraftPage() {
  const exchange = useExchange();
  const { draftId = '' } = useParams();
  const { data, error } = useDraftReadingQuery({ exchangeId: exchange.id, draftId });
  if (error !== undefined) return <ProblemNotice error={error} />;
  if (data === undefined) return <Loading what="the draft" />;
  return (
    <article className="mx-auto max-w-4xl px-5 py-6">
      <p className="text-ink-soft">
        <Link to="../drafts" relative="path" className="text-dusk underline">
          All drafts
        </Link>{' '}
        / <Person label={data.author} />, version {data.version}, {data.words} words, handed in{' '}
        <When at={data.handedInAt} timeZone={exchange.course.timeZone} />
      </p>
      <h2 className="my-4 font-serif text-2xl font-semibold">{data.title}</h2>
      <Prose html={data.html} reading />
    </article>
  );
}
