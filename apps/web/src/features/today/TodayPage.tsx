import type { TodayItem, WaitingItem } from '@salt-circle/contracts';
import { Link } from 'react-router';
import { buttonClass, Empty, Loading } from '../../kit/index.js';
import { useCoursesQuery } from '../../app/api.js';
import { Page } from '../../app/frame/Page.js';
import { usePolling } from '../../app/changes/useChanges.js';
import { OpenPlaces } from '../../app/places/OpenPlaces.js';
import { ProblemNotice } from '../../app/ProblemNotice.js';
import { useMe } from '../../app/session/useMe.js';
import { useNow } from '../../app/time/useNow.js';
import { When } from '../../app/time/When.js';
import { NewCourse } from './NewCourse.js';
import { ReadArchive } from './ReadArchive.js';
import { useOpenPlacesQuery, useTodayQuery } from './todayApi.js';
import { isUntil, needWords, waitWords } from './words.js';
import { say } from '../../words/today.js';
import { ROLE_WORDS } from '../../app/People.js';

const SOON = 24 * 3_600_000;
/** What needs somebody changes with the time alone, too: something is due soon, or has opened. */
const SLOWLY = 5 * 60_000;

/** What needs me, by due time, one row each with one verb. */
export function TodayPage() {
  const me = useMe();
  const { data, error } = useTodayQuery(undefined, {
    refetchOnMountOrArgChange: true,
    pollingInterval: usePolling(60_000) || SLOWLY,
  });
  const { data: courses = [] } = useCoursesQuery();
  const { data: places } = useOpenPlacesQuery(undefined, { refetchOnMountOrArgChange: true });
  return (
    <Page title={say('today')}>
      <div className="mx-auto max-w-5xl px-5 py-6">
        {places !== undefined && <OpenPlaces places={places} />}
        {error !== undefined && <ProblemNotice error={error} />}
        {data === undefined && error === undefined && <Loading what={say('whatNeedsYou')} />}
        {data !== undefined && data.items.length === 0 && (
          <Empty title={say('nothingNeedsYouNow', { name: me.name.split(' ')[0] ?? '' })}>
            <p>{data.waiting.length > 0 ? say('belowIsWhatComesNext') : say('whatYouAreAskedTo')}</p>
          </Empty>
        )}
        {data !== undefined && data.items.length > 0 && (
          <ul aria-label={say('whatNeedsYouLabel')}>
            {data.items.map((item, index) => (
              <NeedRow key={`${item.kind} ${item.exchangeId} ${item.reviewId ?? ''}`} item={item} first={index === 0} />
            ))}
          </ul>
        )}
        {data !== undefined && data.waiting.length > 0 && <Waiting items={data.waiting} />}
        <section className="mt-10">
          <h2 className="mb-2 text-lg font-semibold">{say('courses')}</h2>
          <ul className="flex flex-wrap gap-2">
            {courses.map(({ id, title, role }) => (
              <li key={id}>
                <Link to={`/courses/${id}`} className={buttonClass('plain')}>
                  {title}
                  {role !== 'student' && <span className="text-ink-soft">{ROLE_WORDS[role]}</span>}
                </Link>
              </li>
            ))}
            {me.createsCourses && (
              <li>
                <NewCourse />
                <ReadArchive />
              </li>
            )}
          </ul>
        </section>
      </div>
    </Page>
  );
}

function NeedRow({ item, first }: { readonly item: TodayItem; readonly first: boolean }) {
  const now = useNow();
  const { what, verb, to, urgent } = needWords(item);
  const due = item.due === null ? null : Date.parse(item.due);
  const soon = due !== null && due > now && due - now < SOON;
  const past = due !== null && due <= now;
  return (
    <li className="grid grid-cols-[1fr_auto] items-center gap-x-4 border-b border-line py-3 first:border-t">
      <div>
        <p className="font-semibold">{what}</p>
        <p className="text-ink-soft">{say('whereFrom', { exchange: item.exchangeTitle, course: item.courseTitle })}</p>
        {item.due !== null && (
          <p
            className={
              past ? 'text-madder' : soon ? 'inline-block bg-saffron-ground px-1 text-saffron' : 'text-ink-soft'
            }
          >
            {say(urgent, { when: <When at={item.due} timeZone={item.timeZone} /> })}
          </p>
        )}
      </div>
      <Link to={to} className={buttonClass(first ? 'primary' : 'plain')}>
        {verb}
      </Link>
    </li>
  );
}

function Waiting({ items }: { readonly items: readonly WaitingItem[] }) {
  return (
    <section className="mt-8">
      <h2 className="mb-1 text-lg font-semibold">{say('nothingToDoYet')}</h2>
      <ul>
        {items.map((item) => (
          <li key={item.exchangeId} className="border-b border-line py-2.5">
            <Link
              to={`/exchanges/${item.exchangeId}`}
              className="font-medium text-ink underline decoration-line underline-offset-4"
            >
              {item.exchangeTitle}
            </Link>{' '}
            <span className="text-ink-soft">
              {waitWords(item, <When at={item.next.at} timeZone={item.timeZone} exact={isUntil(item)} />)}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
