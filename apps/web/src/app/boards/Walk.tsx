import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useEffect, useEffectEvent, type ReactNode } from 'react';
import { Link, resolvePath, useLocation, useNavigate } from 'react-router';
import { selectSingleKeys, selectWalk, walkBegun, type WalkStop } from '../layoutSlice.js';
import { useAppDispatch, useAppSelector } from '../store.js';
import { say } from '../../words/app.js';

/** Keeps what is listed, for whoever opens one of it. Ways are taken from the page that lists. */
export function useBeginWalk(): (stops: readonly WalkStop[]) => void {
  const dispatch = useAppDispatch();
  const { pathname } = useLocation();
  return (stops) => {
    const absolute = stops.map(({ to, words }) => ({ to: resolvePath(to, pathname).pathname, words }));
    // The draft of a group stands in a row for each of its members: once is enough.
    dispatch(walkBegun([...new Map(absolute.map((stop) => [stop.to, stop])).values()]));
  };
}

/** Where in the list one is, and what stands on either side of it; null when the page was not opened from a list. */
export function useWalk() {
  const walk = useAppSelector(selectWalk);
  const { pathname } = useLocation();
  const at = walk.findIndex(({ to }) => to === pathname);
  return at < 0 || walk.length < 2 ? null : { at, of: walk.length, before: walk[at - 1], after: walk[at + 1] };
}

/** Previous and next of the list that the page was opened from, in the order in which it was shown; also by P and N. */
export function Walk() {
  const walk = useWalk();
  const navigate = useNavigate();
  const singleKeys = useAppSelector(selectSingleKeys);
  const onKey = useEffectEvent((event: KeyboardEvent) => {
    const plain = !event.ctrlKey && !event.metaKey && !event.altKey && !event.defaultPrevented;
    if (walk === null || !singleKeys || !plain || isTyping(event.target)) return;
    const stop = { n: walk.after, p: walk.before }[event.key.toLowerCase()];
    if (stop !== undefined) void navigate(stop.to);
  });
  useEffect(() => {
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, []);
  if (walk === null) return null;
  return (
    <nav aria-label={say('listThatYouCameFrom')} className="no-print flex items-center gap-1 text-sm text-ink-soft">
      <Step stop={walk.before} words={say('previous')} keys="P">
        <ChevronLeft size={16} aria-hidden="true" />
      </Step>
      <span className="tabular-nums">{say('of', { at: walk.at + 1, of: walk.of })}</span>
      <Step stop={walk.after} words={say('next')} keys="N">
        <ChevronRight size={16} aria-hidden="true" />
      </Step>
    </nav>
  );
}

interface StepProps {
  readonly stop: WalkStop | undefined;
  readonly words: string;
  readonly keys: string;
  readonly children: ReactNode;
}

function Step({ stop, words, keys, children }: StepProps) {
  const look = 'inline-flex size-7 items-center justify-center rounded border border-edge';
  if (stop === undefined) {
    return (
      <span className={`${look} opacity-40`} aria-hidden="true">
        {children}
      </span>
    );
  }
  const name = say('stepTo', { way: words, name: stop.words });
  return (
    <Link
      to={stop.to}
      aria-label={name}
      title={say('stepByKey', { step: name, key: keys })}
      className={`${look} text-ink hover:bg-crust`}
    >
      {children}
    </Link>
  );
}

/** Whether a key that is pressed there is a letter of something that is written. */
export function isTyping(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  return target.isContentEditable || target.closest('input, textarea, select, [role=menu], [role=dialog]') !== null;
}
