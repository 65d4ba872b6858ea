import { useEffect, useRef, type ReactNode, type Ref } from 'react';
import { say } from '../../../words/app.js';

interface BesidePartProps {
  readonly label: string;
  readonly marginRef?: Ref<HTMLElement> | undefined;
  readonly ids: readonly string[];
  readonly activeId: string | null;
  readonly render: (id: string) => ReactNode;
  readonly children: ReactNode;
}

/** Pages, pictures and recordings with their notes beside them, in the order of their places. */
export function BesidePart({ label, marginRef, ids, activeId, render, children }: BesidePartProps) {
  const list = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (activeId === null) return;
    list.current?.querySelector(`[data-id="${CSS.escape(activeId)}"]`)?.scrollIntoView({ block: 'nearest' });
  }, [activeId]);
  return (
    <div className="h-full @2xl:grid @2xl:grid-cols-[minmax(0,1fr)_12.5rem] @2xl:gap-4">
      <div className="h-full min-h-0">{children}</div>
      <aside ref={marginRef} aria-label={label} className="hidden min-h-0 overflow-y-auto @2xl:block">
        <div ref={list} className="space-y-2.5">
          {ids.length === 0 && <p className="text-sm text-ink-soft">{say('noNotesOnThisPart')}</p>}
          {ids.map((id) => (
            <div key={id} data-id={id}>
              {render(id)}
            </div>
          ))}
        </div>
      </aside>
    </div>
  );
}
