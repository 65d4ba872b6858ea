import { useEffect, type ReactNode } from 'react';
import { Ring } from '../../kit/index.js';
import { say } from '../../words/sign-in.js';

/** A narrow page for whoever is not signed in. */
export function Entrance({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  useEffect(() => {
    document.title = say('saltCircle', { title });
  }, [title]);
  return (
    <main className="mx-auto max-w-sm px-5 py-16">
      <Ring size={40} />
      <h1 className="mt-4 mb-6 text-2xl font-semibold">{title}</h1>
      {children}
    </main>
  );
}
