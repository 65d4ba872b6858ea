import { Tabs as RadixTabs } from 'radix-ui';
import type { ReactNode } from 'react';

export interface Tab {
  readonly key: string;
  readonly words: ReactNode;
  readonly content: ReactNode;
}

export interface TabsProps {
  readonly tabs: readonly Tab[];
  readonly value: string;
  readonly onChange: (key: string) => void;
  readonly label: string;
  /** At the right of the row of tabs. */
  readonly aside?: ReactNode;
  /** All panels below each other, with their words as headings: for paper. */
  readonly all?: boolean;
  /** Panels fill the height and scroll by themselves; the hidden ones stay, with the place that one was at. */
  readonly fill?: boolean;
}

export function Tabs({ tabs, value, onChange, label, aside, all = false, fill = false }: TabsProps) {
  if (all) {
    return (
      <div>
        {tabs.map(({ key, words, content }) => (
          <section key={key}>
            <h2 className="border-b border-line py-2 text-lg font-semibold">{words}</h2>
            {content}
          </section>
        ))}
      </div>
    );
  }
  return (
    <RadixTabs.Root value={value} onValueChange={onChange} className={fill ? 'flex h-full min-h-0 flex-col' : ''}>
      <div className="flex flex-wrap items-center justify-between gap-x-4 border-b border-line">
        <RadixTabs.List aria-label={label} className="flex gap-5">
          {tabs.map((tab) => (
            <RadixTabs.Trigger
              key={tab.key}
              value={tab.key}
              className="-mb-px border-b-2 border-transparent py-2 text-ink-soft data-[state=active]:border-iodine data-[state=active]:font-semibold data-[state=active]:text-ink"
            >
              {tab.words}
            </RadixTabs.Trigger>
          ))}
        </RadixTabs.List>
        {aside}
      </div>
      {tabs.map((tab) => (
        <RadixTabs.Content
          key={tab.key}
          value={tab.key}
          {...(fill ? { forceMount: true as const } : {})}
          className={fill ? 'relative min-h-0 flex-1 overflow-y-auto data-[state=inactive]:hidden' : ''}
        >
          {tab.content}
        </RadixTabs.Content>
      ))}
    </RadixTabs.Root>
  );
}
