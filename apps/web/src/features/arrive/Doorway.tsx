import { useEffect, type ReactNode } from 'react';
import { Ring } from '../../kit/index.js';
import { say } from '../../words/arrive.js';

/** A narrow page for whoever comes from a platform; also inside of one of its pages. */
export function Doorway({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  useEffect(() => {
    document.title = say('saltCircle', { title });
  }, [title]);
  return (
    <main className="mx-auto max-w-md space-y-5 px-5 py-10">
      <Ring size={36} />
      <h1 className="text-2xl font-semibold">{title}</h1>
      {children}
    </main>
  );
}
