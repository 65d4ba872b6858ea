import { useEffect, type ReactNode } from 'react';
import { ViewAsBand } from '../view-as/ViewAsBand.js';
import { TopBar, type Crumb } from './TopBar.js';
import { say } from '../../words/app.js';

export interface PageProps {
  readonly crumbs?: readonly Crumb[];
  readonly title: string;
  /** At the right of the bar, before the person. */
  readonly aside?: ReactNode;
  /** The page is as high as the window, and its parts scroll by themselves. */
  readonly fill?: boolean;
  readonly children: ReactNode;
}

/** One page under the bar that says where I am. */
export function Page({ crumbs = [], title, aside, fill = false, children }: PageProps) {
  useEffect(() => {
    document.title = say('saltCircle', { title });
  }, [title]);
  return (
    <div className={fill ? 'flex h-dvh flex-col' : 'flex min-h-dvh flex-col'}>
      <ViewAsBand />
      <TopBar crumbs={crumbs} title={title} aside={aside} />
      <main id="main" tabIndex={-1} className={`flex flex-1 flex-col outline-none ${fill ? 'min-h-0' : ''}`}>
        {children}
      </main>
    </div>
  );
}
