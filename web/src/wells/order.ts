// Which designs the list shows and in which order: designs of one well stay together. No React.
import type { DesignItem } from "../design/types";

export type SortKey = "well" | "saved" | "findings";

export interface Sorting {
  key: SortKey;
  descending: boolean;
}

export interface Listed {
  design: DesignItem;
  /** The first of its well. */
  first: boolean;
}

/** How grave what is open in a design is; a design not worked yet stands after all that are. */
function gravity({ summary }: DesignItem): number {
  if (!summary) return -1;
  return summary.stops * 1e6 + summary.cautions * 1e3 + summary.unknowns;
}

const VALUES: Record<SortKey, (design: DesignItem) => string | number> = {
  well: (d) => d.well_name.toLowerCase(),
  saved: (d) => d.saved_at,
  findings: gravity,
};

const compared = (a: string | number, b: string | number) =>
  typeof a === "string" ? a.localeCompare(b as string, "en", { numeric: true }) : a - (b as number);

export function listed(designs: readonly DesignItem[], sought: string, { key, descending }: Sorting): Listed[] {
  const words = sought.toLowerCase().split(/\s+/).filter(Boolean);
  const wells = new Map<number, DesignItem[]>();
  for (const design of designs) {
    const text = `${design.well_name} ${design.name} ${design.author}`.toLowerCase();
    if (words.every((word) => text.includes(word))) wells.set(design.well_id, [...(wells.get(design.well_id) ?? []), design]);
  }
  const sign = descending ? -1 : 1;
  const leading = [...wells.values()].map((group) => {
    const values = group.map(VALUES[key]).sort((a, b) => sign * compared(a, b));
    return { group: group.sort((a, b) => a.id - b.id), value: values[0]! };
  });
  leading.sort((a, b) => sign * compared(a.value, b.value) || a.group[0]!.id - b.group[0]!.id);
  return leading.flatMap(({ group }) => group.map((design, i) => ({ design, first: i === 0 })));
}
