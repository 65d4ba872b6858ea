import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { Ring } from '../../kit/index.js';
import { useSessionQuery } from '../api.js';
import { DemoClock } from './DemoClock.js';
import { InboxLink } from './InboxLink.js';
import { PersonMenu } from './PersonMenu.js';
import { QuickJump } from './QuickJump.js';
import { say } from '../../words/app.js';

export interface Crumb {
  readonly words: string;
  readonly to: string;
}

export interface TopBarProps {
  readonly crumbs: readonly Crumb[];
  readonly title: string;
  readonly aside?: ReactNode;
}

export function TopBar({ crumbs, title, aside }: TopBarProps) {
  const { data } = useSessionQuery();
  return (
    <header className="no-print flex min-h-11 flex-wrap items-center gap-x-4 gap-y-1 border-b border-line px-5 py-1">
      <a href="#main" className="sr-only focus:not-sr-only">
        {say('skipToPage')}
      </a>
      <nav aria-label={say('whereIAm')} className="flex min-w-0 flex-1 basis-48 items-center gap-2">
        <Link
          to="/"
          className="flex min-h-6 min-w-6 shrink-0 items-center gap-2 font-semibold text-ink no-underline"
          aria-label={say('saltCircleToday')}
        >
          <Ring />
          <span
            className={`whitespace-nowrap ${crumbs.length === 0 ? '' : aside === undefined ? 'hidden xl:inline' : 'hidden 2xl:inline'}`}
          >
            {say('saltCircleLabel')}
          </span>
        </Link>
        {crumbs.map(({ words, to }) => (
          <span key={to} className="hidden min-w-8 shrink items-center gap-2 text-ink-soft sm:flex">
            <Link to={to} className="truncate text-ink-soft no-underline hover:underline">
              {words}
            </Link>
            <span aria-hidden="true">/</span>
          </span>
        ))}
        <h1 className="min-w-24 shrink-[0.05] truncate font-semibold">{title}</h1>
      </nav>
      <div className="flex flex-wrap items-center justify-end gap-x-3 gap-y-1">
        {aside}
        {data?.demo === true && data.viewAs === null && <DemoClock />}
        {data?.person != null && data.viewAs === null && <QuickJump />}
        {data?.person != null && data.viewAs === null && <InboxLink />}
        {data?.person != null && data.viewAs === null && (
          <PersonMenu name={data.person.name} demo={data.demo} runsPlatforms={data.person.runsPlatforms} />
        )}
      </div>
    </header>
  );
}
