import { useEffect, useState, type KeyboardEvent } from 'react';
import { useNavigate } from 'react-router';
import { Dialog, Key } from '../../kit/index.js';
import { api, useCoursesQuery } from '../api.js';
import { useAppSelector, useAppDispatch } from '../store.js';
import { say } from '../../words/app.js';

interface Place {
  readonly words: string;
  readonly remark: string;
  readonly to: string;
}

/** Ctrl or Cmd K: go to a course or an exchange by typing some of its name. */
export function QuickJump() {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const press = (event: globalThis.KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'k') return;
      event.preventDefault();
      setOpen(true);
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, []);
  return (
    <>
      <button
        type="button"
        onClick={() => setOpen(true)}
        className="hidden items-center gap-1.5 text-sm text-ink-soft sm:flex"
      >
        {say('goTo')} <Key>{say('ctrlK')}</Key>
      </button>
      <Dialog open={open} onClose={() => setOpen(false)} title={say('goTo')}>
        {open && <Places onDone={() => setOpen(false)} />}
      </Dialog>
    </>
  );
}

/** Exchanges of all courses, which are loaded when the list opens. */
function usePlaces(): Place[] {
  const dispatch = useAppDispatch();
  const { data: courses = [] } = useCoursesQuery();
  useEffect(() => {
    const loads = courses.map(({ id }) => dispatch(api.endpoints.course.initiate(id)));
    return () => loads.forEach((load) => load.unsubscribe());
  }, [courses, dispatch]);
  const loaded = useAppSelector(
    (state) => courses.map(({ id }) => api.endpoints.course.select(id)(state).data),
    sameItems,
  );
  return [
    { words: say('today'), remark: say('whatNeedsYou'), to: '/' },
    ...courses.map(({ id, title }): Place => ({ words: title, remark: say('course'), to: `/courses/${id}` })),
    ...loaded.flatMap((course) =>
      (course?.exchanges ?? []).map(({ id, title }): Place => ({
        words: title,
        remark: course?.title ?? '',
        to: `/exchanges/${id}`,
      })),
    ),
  ];
}

function sameItems(a: readonly unknown[], b: readonly unknown[]): boolean {
  return a.length === b.length && a.every((one, index) => one === b[index]);
}

function Places({ onDone }: { readonly onDone: () => void }) {
  const navigate = useNavigate();
  const places = usePlaces();
  const [typed, setTyped] = useState('');
  const [at, setAt] = useState(0);
  const found = places.filter(({ words, remark }) =>
    `${words} ${remark}`.toLowerCase().includes(typed.trim().toLowerCase()),
  );
  const chosen = Math.min(at, Math.max(found.length - 1, 0));
  const go = (place: Place | undefined) => {
    if (place === undefined) return;
    onDone();
    void navigate(place.to);
  };
  const press = (event: KeyboardEvent) => {
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (step !== undefined) {
      event.preventDefault();
      setAt(Math.min(Math.max(chosen + step, 0), found.length - 1));
    } else if (event.key === 'Enter') go(found[chosen]);
  };
  return (
    <div onKeyDown={press}>
      <input
        role="combobox"
        aria-expanded="true"
        aria-controls="places"
        aria-activedescendant={found.length > 0 ? `place-${chosen}` : undefined}
        aria-label={say('courseOrExchange')}
        value={typed}
        onChange={(event) => {
          setTyped(event.target.value);
          setAt(0);
        }}
        className="w-full rounded border border-edge bg-paper px-2.5 py-1.5"
      />
      <ul role="listbox" id="places" aria-label={say('places')} className="mt-2 max-h-72 overflow-y-auto">
        {found.map((place, index) => (
          <li
            key={place.to}
            id={`place-${index}`}
            role="option"
            aria-selected={index === chosen}
            onClick={() => go(place)}
            className={`flex cursor-pointer justify-between gap-3 rounded px-2 py-1.5 ${index === chosen ? 'bg-crust' : ''}`}
          >
            {place.words}
            <span className="text-ink-soft">{place.remark}</span>
          </li>
        ))}
      </ul>
      {found.length === 0 && <p className="px-2 py-1.5 text-ink-soft">{say('nothingOfThisName')}</p>}
    </div>
  );
}
