// Tabs on the Radix primitive.
import { Tabs as Radix } from "radix-ui";
import type { ReactNode } from "react";

export interface Tab {
  value: string;
  title: string;
  content: ReactNode;
}

/** Tabs of what is shown under each name, with their titles. */
export function tabsOf<Name extends string>(titles: Record<Name, string>, contents: Partial<Record<Name, ReactNode>>): Tab[] {
  return (Object.keys(contents) as Name[]).map((value) => ({ value, title: titles[value], content: contents[value] }));
}

export function Tabs({
  label,
  tabs,
  value,
  onChange,
}: {
  label: string;
  tabs: readonly Tab[];
  value: string;
  onChange: (v: string) => void;
}) {
  return (
    <Radix.Root value={value} onValueChange={onChange} className="flex min-h-0 flex-1 flex-col">
      <Radix.List aria-label={label} className="mb-2 flex shrink-0 flex-wrap gap-x-1.5 border-b border-rule">
        {tabs.map((tab) => (
          <Radix.Trigger
            key={tab.value}
            value={tab.value}
            className="-mb-px border-b-2 border-transparent py-1 font-narrow text-[12.5px] whitespace-nowrap text-mute data-[state=active]:border-petrol data-[state=active]:font-semibold data-[state=active]:text-ink"
          >
            {tab.title}
          </Radix.Trigger>
        ))}
      </Radix.List>
      {tabs.map((tab) => (
        <Radix.Content key={tab.value} value={tab.value} className="min-h-0 flex-1 overflow-auto pr-1 pb-3 stacked:max-h-[85vh]">
          {tab.content}
        </Radix.Content>
      ))}
    </Radix.Root>
  );
}
