// Widths of a table's columns as the person has set them, kept in this browser; without any they share the room.
import { useState } from "react";
import { usePreferences } from "../../preferences";

export type Widths = Record<string, number>;
export const LEAST_PX = 32;
const STEP_PX = 8;

/** Widths of the drawn columns by their keys. */
export function drawnWidths(table: HTMLTableElement): Record<string, number> {
  const heads = [...table.querySelectorAll<HTMLElement>("th[data-column]")];
  return Object.fromEntries(heads.map((head) => [head.dataset.column!, head.offsetWidth]));
}

export function useWidths(title: string) {
  const { widths: all, prefer } = usePreferences();
  const [dragged, setDragged] = useState<Widths | null>(null);
  const kept = all[title];
  const keep = (next: Widths) => {
    setDragged(null);
    prefer({ widths: { ...all, [title]: next } });
  };
  return {
    widths: dragged ?? kept ?? {},
    /** While the edge of a column is dragged; kept when it is let go. */
    drag: setDragged,
    keep,
    /** One step wider or narrower. */
    nudge: (table: HTMLTableElement, key: string, steps: number) => {
      const now = drawnWidths(table);
      keep({ ...now, [key]: Math.max(LEAST_PX, now[key]! + steps * STEP_PX) });
    },
    reset: () => {
      setDragged(null);
      prefer({ widths: Object.fromEntries(Object.entries(all).filter(([name]) => name !== title)) });
    },
  };
}

export type ColumnWidths = ReturnType<typeof useWidths>;
