import type { OpenPlace } from '@salt-circle/contracts';
import { Button } from '../../kit/index.js';
import { api } from '../api.js';
import { ProblemNotice } from '../ProblemNotice.js';
import { say } from '../../words/app.js';

const { useTakePlacesMutation } = api.injectEndpoints({
  endpoints: (build) => ({
    takePlaces: build.mutation<null, readonly string[]>({
      query: (placeIds) => ({ url: '/account/places', method: 'POST', body: { placeIds } }),
      invalidatesTags: ['Account', 'Courses', 'Today'],
    }),
  }),
});

/** Places in courses that were given to the own address, and wait to be taken. Nothing for none. */
export function OpenPlaces({ places }: { readonly places: readonly OpenPlace[] }) {
  const [take, { isLoading, error }] = useTakePlacesMutation();
  if (places.length === 0) return null;
  return (
    <section aria-label={say('placesForYou')} className="mb-6">
      <ul>
        {places.map(({ id, course, role, by }) => (
          <li key={id} className="flex flex-wrap items-center gap-3 border-b border-line py-3 first:border-t">
            <div className="min-w-0 flex-1">
              <span className="font-semibold">{course}</span>
              <p className="text-sm text-ink-soft">{say('hasGivenYouPlaceAs', { by, role })}</p>
            </div>
            <Button busy={isLoading} aria-label={say('takePlaceIn', { course })} onClick={() => void take([id])}>
              {say('takePlace')}
            </Button>
          </li>
        ))}
      </ul>
      {error !== undefined && <ProblemNotice error={error} />}
    </section>
  );
}
